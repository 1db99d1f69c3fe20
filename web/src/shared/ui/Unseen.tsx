import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

/** Words for screen readers only, where a shape or the place says it to the eye. */
export function Unseen({ children }: { children: ReactNode }) {
  return <Box component="span" sx={{ position: 'absolute', width: '1px', height: '1px', overflow: 'hidden', clipPath: 'inset(50%)', whiteSpace: 'nowrap' }}>{children}</Box>;
}
