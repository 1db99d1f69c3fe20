import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';

/** A part of a panel under a head of its own. */
export const Section = ({ title, children }: { title: string; children: ReactNode }) => (
  <Box component="section" aria-label={title}>
    <Typography variant="h3" component="h2" sx={{ mb: 0.6 }}>
      {title}
    </Typography>
    {children}
  </Box>
);
