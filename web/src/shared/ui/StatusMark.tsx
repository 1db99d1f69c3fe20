import Box from '@mui/material/Box';
import type { ReactElement } from 'react';

import { Unseen } from './Unseen';
import { type ShownStatus, STATUS_WORD } from './status';

// Each status has a shape of its own: a bud, a staked square, a split leaf, beads, a dash.
const SHAPES: Record<ShownStatus, ReactElement> = {
  open: <circle cx="7" cy="7" r="4.6" fill="none" stroke="currentColor" strokeWidth="2.2" />,
  taken: <path d="M2.5 4.5h9v7h-9zM7 1v3" fill="currentColor" stroke="currentColor" strokeWidth="1.5" />,
  unsure: <path d="M7 1.5L12.5 7 7 12.5z M7 1.5L1.5 7 7 12.5" fill="none" stroke="currentColor" strokeWidth="1.5" strokeDasharray="2.2 1.5" />,
  waiting: <path d="M2 7h.1M7 7h.1M12 7h.1" stroke="currentColor" strokeWidth="2.6" strokeLinecap="round" />,
  unasked: <path d="M4.5 7h5" stroke="currentColor" strokeWidth="1.4" />,
};

export const statusColor = (status: ShownStatus): string => `status.${status}`;

interface Props {
  status: ShownStatus;
  /** Leave the word out where the column would be too narrow; it stays for screen readers. */
  wordless?: boolean;
}

/** A status by shape and word. */
export function StatusMark({ status, wordless = false }: Props) {
  return (
    <Box component="span" sx={{ display: 'inline-flex', alignItems: 'center', gap: 0.6, color: statusColor(status), whiteSpace: 'nowrap', fontWeight: status === 'open' ? 650 : 450 }}>
      <Box component="svg" viewBox="0 0 14 14" aria-hidden sx={{ width: 13, height: 13, flex: 'none' }}>
        {SHAPES[status]}
      </Box>
      {wordless ? <Unseen>{STATUS_WORD[status]}</Unseen> : STATUS_WORD[status]}
    </Box>
  );
}
