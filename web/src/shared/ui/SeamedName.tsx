import Box from '@mui/material/Box';
import type { SxProps } from '@mui/material/styles';

interface Props {
  label: string;
  /** Where each part begins, from 0. */
  starts: readonly number[];
  sx?: SxProps;
}

/** A name whose seams show: the parts take turns between two weights. */
export function SeamedName({ label, starts, sx }: Props) {
  const cuts = [...new Set([0, ...starts])].filter((s) => s < label.length).sort((a, b) => a - b);
  return (
    <Box component="span" className="serif" sx={sx}>
      {cuts.map((start, i) => (
        <Box component="span" key={start} sx={{ fontWeight: i % 2 ? 720 : 420 }}>
          {label.slice(start, cuts[i + 1])}
        </Box>
      ))}
    </Box>
  );
}
