import './marks.css';

import { statusOf } from '../lib/concepts';
import { type ShownStatus, statusWord, wordOf } from './status';
import { VisuallyHidden } from './VisuallyHidden';

interface Props {
  status: ShownStatus;
  /** No source with authority has said so. */
  likely?: boolean;
  /** Leave the word out where the column would be too narrow; it stays for screen readers. */
  wordless?: boolean;
}

/** How a status looks: a shape and a colour; what can be had best of all, and for sure, stands out. */
export function markClass(status: ShownStatus, likely: boolean): string {
  const kind = statusOf(status);
  return `mark mark-${kind?.mark ?? 'dash'}${likely ? ' likely' : ''}${kind?.worth === 0 && !likely ? ' sure' : ''}`;
}

/** A status by shape and word. */
export const StatusMark = ({ status, likely = false, wordless = false }: Props) => (
  <span className={markClass(status, likely)}>
    {wordless ? <VisuallyHidden>{wordOf(status)}</VisuallyHidden> : statusWord(status, likely)}
  </span>
);
