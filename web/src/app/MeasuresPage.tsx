import Box from '@mui/material/Box';
import MuiLink from '@mui/material/Link';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { Link, useLocation } from 'react-router';

import type { Example } from '../shared/api';
import { concepts } from '../shared/lib/concepts';
import { gradeOf, presetOf, sharesOf } from '../shared/lib/grading';
import { EmptyState } from '../shared/ui/EmptyState';
import { Bar } from '../shared/ui/GradeFigure';
import { MarkedLetters } from '../shared/ui/MarkedLetters';
import { useExamples } from './useExamples';
import { t } from '../shared/texts';

function Worked({ example }: { example: Example }) {
  const { label, project, score, reasons } = example;
  return (
    <Box
      component="li"
      sx={{
        borderTop: 1,
        borderColor: 'divider',
        py: 1,
        display: 'grid',
        gridTemplateColumns: '190px 1fr',
        gap: 2,
      }}>
      <Box>
        <Stack direction="row" sx={{ justifyContent: 'space-between', gap: 1 }}>
          <Box component="span" className="serif" sx={{ fontWeight: 600, overflowWrap: 'anywhere' }}>
            {label}
          </Box>
          <strong>{score === null ? '–' : Math.round(score)}</strong>
        </Stack>
        <Bar value={score ?? 0} width="100%" />
        <Typography variant="caption" color="textSecondary" component="div">
          {t('for {project}', { project })}
        </Typography>
      </Box>
      <Stack component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {reasons.map((reason) => (
          <li key={reason.text}>
            <MarkedLetters text={label} start={reason.start} end={reason.end} />
            {reason.text}
          </li>
        ))}
      </Stack>
    </Box>
  );
}

/** How the grade and each measure are worked out, with examples that are worked out here and now. */
export function MeasuresPage() {
  const { data, error } = useExamples();
  const { measures, purposes, exponent } = concepts();
  const { hash } = useLocation();
  useEffect(() => {
    if (data && hash) document.getElementById(hash.slice(1))?.scrollIntoView();
  }, [data, hash]);
  const uneven = { one: 95, two: 95, three: 20 };
  const even = { one: 1, two: 1, three: 1 };
  return (
    <Box component="main" sx={{ maxWidth: 860, mx: 'auto', px: 3, py: 4, '& p': { mb: 1 } }}>
      <Typography variant="h1" sx={{ mb: 1 }}>
        {t('How grades are worked out')}
      </Typography>
      <Stack component="nav" aria-label={t('Measures')} direction="row" sx={{ gap: 2, mb: 1.5 }}>
        {measures.map(({ name, word }) => (
          <MuiLink key={name} component={Link} to={`#${name}`} color="secondary">
            {word}
          </MuiLink>
        ))}
      </Stack>
      <Typography>
        {t(
          '{measures, plural, one {# measure looks} other {# measures look}} at a name, each from 0 to 100 and each with its reasons. The grade weighs them: as the purpose of the brief has it, or as you set the sliders.',
          { measures: measures.length },
        )}
      </Typography>
      <>
        <Box
          component="table"
          sx={{
            borderCollapse: 'collapse',
            my: 2,
            '& th, & td': { textAlign: 'right', px: 1.4, py: 0.4, borderBottom: 1, borderColor: 'divider' },
            '& th:first-of-type': { textAlign: 'left', pl: 0 },
          }}>
          <caption>
            <Typography variant="caption" color="textSecondary">
              {t('Each measure’s share of the grade, by purpose')}
            </Typography>
          </caption>
          <thead>
            <tr>
              <th scope="col">{t('Purpose')}</th>
              {measures.map((m) => (
                <th scope="col" key={m.name}>
                  {m.word}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {purposes.map(({ name: purpose, word }) => {
              const shares = sharesOf(presetOf(purpose));
              return (
                <tr key={purpose}>
                  <th scope="row">{word}</th>
                  {measures.map((m) => (
                    <td key={m.name}>{Math.round(100 * (shares[m.name] ?? 0))} %</td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </Box>
        <Typography>
          {t(
            'A weakness is not made good by strengths elsewhere: the mean leans to the low scores (a power mean with exponent {exponent}). Three measures that count alike with 95, 95 and 20 give {grade, number}, where the plain average would give {average, number}.',
            {
              exponent,
              grade: Math.round(gradeOf(uneven, { weights: even, exponent })),
              average: Math.round((95 + 95 + 20) / 3),
            },
          )}
        </Typography>
      </>
      {error && !data && (
        <EmptyState alert title={t('The examples could not be loaded')}>
          {error.message}
        </EmptyState>
      )}
      {measures.map(({ name, word, asks, how }) => (
        <Box component="section" key={name} id={name} sx={{ mt: 3, scrollMarginTop: 12 }}>
          <Typography variant="h2">{word}</Typography>
          <Typography color="textSecondary">{asks}</Typography>
          {how.map((text) => (
            <Typography key={text}>{text}</Typography>
          ))}
          <Box
            component="ul"
            aria-label={t('Examples of {word}', { word: word.toLowerCase() })}
            sx={{ m: 0, p: 0, listStyle: 'none' }}>
            {data?.examples[name]?.map((example) => (
              <Worked key={example.label} example={example} />
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
