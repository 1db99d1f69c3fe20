import Box from '@mui/material/Box';

import type { Weight } from '../api';
import { weightKind } from '../lib/concepts';
import { VisuallyHidden } from './VisuallyHidden';

/** Shapes of our own: a boulder, a fork in the path, mist, a flag, a sprout. */
const SHAPES: Record<Weight, { path: string; filled?: boolean; broken?: boolean; colour: string }> = {
  stop: { path: 'M2 10.2L4 4.4 8.4 2.2l3.6 4-.9 5.2-6.6 1z', filled: true, colour: 'primary.main' },
  think: { path: 'M7 13V8.2M7 8.2L3 1.8M7 8.2l4-6.4', colour: 'amber' },
  unknown: { path: 'M1.2 5q2.9-3.2 5.8 0t5.8 0M1.2 10q2.9-3.2 5.8 0t5.8 0', broken: true, colour: 'text.secondary' },
  note: { path: 'M3.6 13V1.8h7.2L8.6 4.6l2.2 2.8H3.6', colour: 'text.primary' },
  clear: {
    path: 'M1.6 12.2h10.8M7 12V6.4M7 7.6Q3 7.6 3 3.4 7 3.4 7 7.6zM7 6.4q0-3.4 3.8-3.4 0 3.4-3.8 3.4z',
    colour: 'secondary.main',
  },
};

interface Props {
  weight: Weight;
  /** Leave the word out where there is no room; it stays for screen readers. */
  wordless?: boolean;
  /** Somebody accepts it: it weighs no more. */
  accepted?: boolean;
}

/** How much a finding weighs, by shape and word. */
export function WeightMark({ weight, wordless = false, accepted = false }: Props) {
  const { path, filled = false, broken = false, colour } = SHAPES[weight];
  const word = weightKind(weight)?.word ?? weight;
  return (
    <Box
      component="span"
      sx={{
        display: 'inline-flex',
        alignItems: 'center',
        gap: 0.6,
        whiteSpace: 'nowrap',
        color: colour,
        fontWeight: weight === 'stop' ? 650 : 500,
        opacity: accepted ? 0.6 : 1,
      }}>
      <Box
        component="svg"
        viewBox="0 0 14 14"
        aria-hidden
        sx={{
          width: 15,
          height: 15,
          flex: 'none',
          fill: filled ? 'currentColor' : 'none',
          stroke: 'currentColor',
          strokeWidth: 1.6,
          strokeLinecap: 'round',
          strokeLinejoin: 'round',
          strokeDasharray: broken ? '2.4 2' : 'none',
        }}>
        <path d={path} />
      </Box>
      {wordless ? <VisuallyHidden>{word}</VisuallyHidden> : word}
    </Box>
  );
}
