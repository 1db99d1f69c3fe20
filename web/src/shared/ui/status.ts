import type { Cell, Status } from '../api';

export type ShownStatus = Status | 'unasked';

/** The word for each status, as the interface says it. */
export const STATUS_WORD: Record<ShownStatus, string> = {
  open: 'open',
  premium: 'premium',
  taken: 'taken',
  offered: 'offered',
  dropping: 'dropping',
  reserved: 'reserved',
  barred: 'barred',
  unsure: 'unsure',
  waiting: 'waiting',
  unasked: 'not asked',
};

/** What each status means, in a sentence. */
export const STATUS_MEANS: Record<ShownStatus, string> = {
  open: 'can be registered at the usual price',
  premium: 'can be registered, at a price of its own',
  taken: 'registered',
  offered: 'registered, and its holder or an auction sells it',
  dropping: 'registered, and on its way out',
  reserved: 'held back by the registry',
  barred: 'not allowed for this owner or with this label',
  unsure: 'could not be found out',
  waiting: 'asked, not answered yet',
  unasked: 'never asked',
};

/** What to show of a full name: while it is asked again its earlier answer gives way. */
export const shownStatus = (cell: Pick<Cell, 'status' | 'pending'> | undefined): ShownStatus =>
  !cell ? 'unasked' : cell.pending ? 'waiting' : cell.status;

/** The word of a cell: what nobody with authority has said carries a question mark. */
export const statusWord = (status: ShownStatus, likely: boolean): string => (likely && status !== 'waiting' ? `${STATUS_WORD[status]}?` : STATUS_WORD[status]);
