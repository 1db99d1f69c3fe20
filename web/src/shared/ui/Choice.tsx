import Box from '@mui/material/Box';
import Chip from '@mui/material/Chip';
import Stack from '@mui/material/Stack';
import type { ReactNode } from 'react';

import { formatCount } from '../lib/format';

/** A choice with how many names it would leave. */
export function Choice({
  word,
  count,
  on,
  onPress,
}: {
  word: string;
  count: number | undefined;
  on: boolean;
  onPress: () => void;
}) {
  return (
    <Chip
      size="small"
      clickable
      variant={on ? 'filled' : 'outlined'}
      color={on ? 'secondary' : 'default'}
      aria-pressed={on}
      onClick={onPress}
      label={
        <>
          {word}{' '}
          <Box component="span" sx={{ opacity: on ? 0.9 : 1, color: on ? 'inherit' : 'text.secondary' }}>
            {count === undefined ? '' : formatCount(count)}
          </Box>
        </>
      }
    />
  );
}

export const Row = ({ label, children }: { label: string; children: ReactNode }) => (
  <Stack direction="row" role="group" aria-label={label} sx={{ flexWrap: 'wrap', gap: 0.5 }}>
    {children}
  </Stack>
);
