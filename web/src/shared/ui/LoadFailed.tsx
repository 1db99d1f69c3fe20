import Button from '@mui/material/Button';

import { EmptyState } from './EmptyState';
import { t } from '../texts';

interface Props {
  title: string;
  error: Error;
  onRetry: () => unknown;
}

/** What stands where something could not be loaded: why, and trying again. */
export function LoadFailed({ title, error, onRetry }: Props) {
  return (
    <EmptyState
      alert
      title={title}
      action={
        <Button variant="outlined" onClick={() => void onRetry()}>
          {t('Try again')}
        </Button>
      }>
      {error.message}
    </EmptyState>
  );
}
