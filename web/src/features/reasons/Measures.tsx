import Box from '@mui/material/Box';
import MuiLink from '@mui/material/Link';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';

import type { Judged } from '../../shared/api';
import { measureOf } from '../../shared/lib/concepts';
import { Bar } from '../../shared/ui/GradeFigure';
import { MarkedLetters } from '../../shared/ui/MarkedLetters';
import { t } from '../../shared/texts';

function points(value: number): string {
  const rounded = Math.round(value);
  return rounded > 0 ? `+${rounded}` : rounded < 0 ? `−${-rounded}` : '';
}

/** Each measure with its figure, its share of the grade, and its reasons. */
export function Measures({ name }: { name: Judged }) {
  return (
    <Stack component="ul" aria-label={t('Measures')} sx={{ gap: 1.6, m: 0, p: 0, listStyle: 'none' }}>
      {name.measures.map((measure) => (
        <Box component="li" key={measure.name}>
          <Stack direction="row" sx={{ alignItems: 'baseline', gap: 1 }}>
            <Typography variant="h3" component="h3" sx={{ fontSize: '0.95rem' }}>
              <MuiLink
                component={Link}
                to={`/measures#${measure.name}`}
                color="inherit"
                underline="hover"
                title={t('How this is worked out')}>
                {measureOf(measure.name)?.word ?? measure.name}
              </MuiLink>
            </Typography>
            {measure.score !== null && (
              <Typography variant="caption" color="textSecondary">
                {t('{part} % of the grade', { part: Math.round(100 * measure.weight) })}
              </Typography>
            )}
            <Box component="span" sx={{ ml: 'auto', fontWeight: 600 }}>
              {measure.score === null ? '–' : Math.round(measure.score)}
            </Box>
          </Stack>
          {measure.score !== null && <Bar value={measure.score} width="100%" />}
          <Stack component="ul" sx={{ m: 0, mt: 0.3, p: 0, listStyle: 'none', gap: 0.4 }}>
            {measure.reasons.map((reason) => (
              <Stack
                component="li"
                direction="row"
                key={`${reason.text}${reason.start}`}
                sx={{ gap: 1, fontSize: '0.86rem', lineHeight: 1.4 }}>
                <Box sx={{ flex: 1, minWidth: 0, overflowWrap: 'anywhere' }}>
                  <MarkedLetters text={name.shown} start={reason.start} end={reason.end} />
                  {reason.text}
                </Box>
                <Box
                  component="span"
                  sx={{
                    color: reason.points < 0 ? 'amber' : 'text.secondary',
                    minWidth: 26,
                    textAlign: 'right',
                  }}>
                  {points(reason.points)}
                </Box>
              </Stack>
            ))}
          </Stack>
        </Box>
      ))}
    </Stack>
  );
}
