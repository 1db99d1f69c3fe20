import type { Cell, Status } from '../api';

export type ShownStatus = Status | 'unasked';

/** The word for each status, as the interface says it. */
export const STATUS_WORD: Record<ShownStatus, string> = {
  open: 'open',
  taken: 'taken',
  unsure: 'unsure',
  waiting: 'waiting',
  unasked: 'not asked',
};

/** What to show of a full name: while it is asked again its earlier answer gives way. */
export const shownStatus = (cell: Pick<Cell, 'status' | 'pending'> | undefined): ShownStatus =>
  !cell ? 'unasked' : cell.pending ? 'waiting' : cell.status;
