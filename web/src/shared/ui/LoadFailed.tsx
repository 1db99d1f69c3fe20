import Button from '@mui/material/Button';

import { EmptyState } from './EmptyState';

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
          Try again
        </Button>
      }>
      {error.message}
    </EmptyState>
  );
}
