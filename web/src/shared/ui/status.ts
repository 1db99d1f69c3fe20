import type { Cell, Status } from '../api';
import { statusOf } from '../lib/concepts';

export type ShownStatus = Status | 'unasked';

/** The word for a status, as the interface says it. */
export const wordOf = (status: string): string => statusOf(status)?.word ?? status;

/** What to show of a full name: while it is asked again its earlier answer gives way. */
export const shownStatus = (cell: Pick<Cell, 'status' | 'pending'> | undefined): ShownStatus =>
  !cell ? 'unasked' : cell.pending ? 'waiting' : cell.status;

/** The word of a cell: what nobody with authority has said carries a question mark. */
export const statusWord = (status: ShownStatus, likely: boolean): string =>
  likely && status !== 'waiting' ? `${wordOf(status)}?` : wordOf(status);
