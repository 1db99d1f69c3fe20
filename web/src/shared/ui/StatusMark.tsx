import './marks.css';

import { type ShownStatus, STATUS_WORD, statusWord } from './status';
import { Unseen } from './Unseen';

interface Props {
  status: ShownStatus;
  /** No source with authority has said so. */
  likely?: boolean;
  /** Leave the word out where the column would be too narrow; it stays for screen readers. */
  wordless?: boolean;
}

/** How a status looks: a shape and a colour. */
export const markClass = (status: ShownStatus, likely: boolean): string =>
  `mark mark-${status}${likely ? ' likely' : ''}${status === 'open' && !likely ? ' sure-open' : ''}`;

/** A status by shape and word. */
export const StatusMark = ({ status, likely = false, wordless = false }: Props) => (
  <span className={markClass(status, likely)}>{wordless ? <Unseen>{STATUS_WORD[status]}</Unseen> : statusWord(status, likely)}</span>
);
