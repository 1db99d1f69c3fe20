import { createTheme } from '@mui/material/styles';

/** The library's own look: tests find things by role and name, not by colour. */
export const plainTheme = createTheme({ cssVariables: true });
