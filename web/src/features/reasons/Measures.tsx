import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import type { Judged, Measure } from '../../shared/api';
import { Bar } from '../../shared/ui/GradeFigure';

const WORDS: Record<string, string> = { length: 'Length', spelling: 'Spelling', fit: 'Keyword fit' };

type Reason = Measure['reasons'][number];

/** The letters a reason speaks of, when it is not all of them. */
function Letters({ label, reason }: { label: string; reason: Reason }) {
  if (reason.end - reason.start >= label.length) return null;
  return (
    <Box component="span" className="serif" aria-hidden sx={{ color: 'text.secondary', whiteSpace: 'nowrap' }}>
      {label.slice(0, reason.start)}
      <Box component="mark" sx={{ bgcolor: 'transparent', color: 'text.primary', fontWeight: 600, borderBottom: 2, borderColor: 'amber' }}>{label.slice(reason.start, reason.end)}</Box>
      {label.slice(reason.end)}{' '}
    </Box>
  );
}

function points(value: number): string {
  const rounded = Math.round(value);
  return rounded > 0 ? `+${rounded}` : rounded < 0 ? `−${-rounded}` : '';
}

/** Each measure with its figure, its share of the grade, and its reasons. */
export function Measures({ name }: { name: Judged }) {
  return (
    <Stack component="ul" aria-label="Measures" sx={{ gap: 1.6, m: 0, p: 0, listStyle: 'none' }}>
      {name.measures.map((measure) => (
        <Box component="li" key={measure.name}>
          <Stack direction="row" sx={{ alignItems: 'baseline', gap: 1 }}>
            <Typography variant="h3" component="h3" sx={{ fontSize: '0.95rem' }}>{WORDS[measure.name] ?? measure.name}</Typography>
            <Typography variant="caption" color="textSecondary">{Math.round(100 * measure.weight)} % of the grade</Typography>
            <Box component="span" sx={{ ml: 'auto', fontWeight: 600 }}>{Math.round(measure.score)}</Box>
          </Stack>
          <Bar value={measure.score} width="100%" />
          <Stack component="ul" sx={{ m: 0, mt: 0.3, p: 0, listStyle: 'none', gap: 0.4 }}>
            {measure.reasons.map((reason) => (
              <Stack component="li" direction="row" key={`${reason.text}${reason.start}`} sx={{ gap: 1, fontSize: '0.86rem', lineHeight: 1.4 }}>
                <Box sx={{ flex: 1 }}><Letters label={name.label} reason={reason} />{reason.text}</Box>
                <Box component="span" sx={{ color: reason.points < 0 ? 'amber' : 'text.secondary', minWidth: 26, textAlign: 'right' }}>{points(reason.points)}</Box>
              </Stack>
            ))}
          </Stack>
        </Box>
      ))}
    </Stack>
  );
}
