import { useColorScheme } from '@mui/material/styles';

const LIGHT = ['#4f2143', '#24625b', '#8a5208', '#3b5488', '#9a3412', '#5c5a33'];
const DARK = ['#dcb3cf', '#7cc5b8', '#e3ab58', '#9db4e6', '#f0a184', '#cfcb97'];

/** What lines of a chart are drawn in, on the paper that is on. */
export function useInks(): readonly string[] {
  const { mode, systemMode } = useColorScheme();
  return (mode === 'system' ? systemMode : mode) === 'dark' ? DARK : LIGHT;
}
