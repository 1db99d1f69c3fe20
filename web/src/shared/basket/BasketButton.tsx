import Button from '@mui/material/Button';

import { useNotify } from '../ui/Notices';
import { t } from '../texts';
import { useBasketActs } from './useBasket';

interface Props {
  projectId: number;
  /** Full names. */
  names: string[];
  /** They are all in it. */
  there?: boolean;
  word?: string;
}

/** Puts full names into the basket. */
export function BasketButton({ projectId, names, there = false, word }: Props) {
  const { add } = useBasketActs();
  const notify = useNotify();
  return (
    <Button
      variant="outlined"
      color={there ? 'secondary' : 'primary'}
      disabled={add.isPending || !names.length}
      onClick={() => add.mutate({ project: projectId, names }, { onError: (error) => notify(error.message) })}>
      {there ? t('In the basket') : (word ?? t('Into the basket'))}
    </Button>
  );
}
