import Box from '@mui/material/Box';

interface Props {
  /** 0 to 100. */
  grade: number;
  width?: number;
  /** One figure among several: not as heavy. */
  plain?: boolean;
}

/** A grade as a figure with a measure beneath it. */
export function GradeFigure({ grade, width = 34, plain = false }: Props) {
  return (
    <Box component="span" sx={{ display: 'inline-flex', alignItems: 'center', gap: plain ? 0.5 : 0.8 }}>
      <Box component="span" sx={{ fontWeight: plain ? 450 : 600, minWidth: plain ? '3ch' : '2ch', textAlign: 'right' }}>{Math.round(grade)}</Box>
      <Bar value={grade} width={width} />
    </Box>
  );
}

/** A bar of 0 to 100, for the eye only. */
export function Bar({ value, width }: { value: number; width: number | string }) {
  return (
    <Box component="span" aria-hidden sx={{ display: 'inline-block', width, height: 4, borderRadius: 2, bgcolor: 'divider', overflow: 'hidden' }}>
      <Box component="span" sx={{ display: 'block', height: '100%', width: `${Math.min(100, Math.max(0, value))}%`, bgcolor: 'secondary.main' }} />
    </Box>
  );
}
