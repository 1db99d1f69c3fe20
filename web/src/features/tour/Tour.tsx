import Button from '@mui/material/Button';
import Paper from '@mui/material/Paper';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';

import { usePreferences } from '../../shared/lib/preferences';
import { t } from '../../shared/texts';

interface Stop {
  /** What is pointed at. */
  at: string;
  title: string;
  text: string;
}

/** What bears a label, whatever the language. */
const labelled = (label: string, more = '') => `${more}[aria-label="${CSS.escape(label)}"]`;

const STOPS: readonly Stop[] = [
  {
    at: labelled(t('Words and limits')),
    title: t('Your words'),
    text: t('Press a word to open it up: its senses, its kin, its forms. Every change makes the names anew.'),
  },
  {
    at: labelled(t('Fields of your world')),
    title: t('Your world'),
    text: t(
      'Names are said from here: the fields nearest to your sentence and what people say in them. Switch fields, answer the small questions, drop what is not yours.',
    ),
  },
  {
    at: labelled(t('Names'), '[role="grid"]'),
    title: t('The sheet'),
    text: t(
      'The best names first, no two alike in a row. Arrow keys move, t keeps, x sends away, u takes anything back.',
    ),
  },
  {
    at: labelled(t('Reasons')),
    title: t('The reasons'),
    text: t('Why the chosen name is there, who says it is open and when, and names near it.'),
  },
  {
    at: labelled(t('What became of the names')),
    title: t('What became of them'),
    text: t(
      'From everything made to what you kept. Each step that is underlined is a filter; the button Filters has them all.',
    ),
  },
  {
    at: labelled(t('Project')),
    title: t('What you keep'),
    text: t(
      'On the shortlist names are compared, set against each other in duels, and shown to others for their vote.',
    ),
  },
];

/** A short tour of the bench, for those who have not seen it; it can be put away at any step. */
export function Tour() {
  const { preferences, keep } = usePreferences();
  const [step, setStep] = useState(0);
  const stop = STOPS[step];
  const on = preferences?.toured === false && stop !== undefined;
  const at = on ? stop.at : null;
  useEffect(() => {
    const element = at === null ? null : document.querySelector<HTMLElement>(at);
    if (!element) return;
    element.style.outline = '3px solid var(--mui-palette-amber)';
    element.style.outlineOffset = '-3px';
    return () => {
      element.style.outline = element.style.outlineOffset = '';
    };
  }, [at]);
  if (!on) return null;
  const end = () => {
    keep({ toured: true });
  };
  return (
    <Paper
      component="section"
      aria-label={t('A short tour')}
      elevation={6}
      sx={{
        position: 'fixed',
        bottom: 10,
        right: 10,
        zIndex: 10,
        width: 276,
        maxWidth: 'calc(100vw - 20px)',
        maxHeight: 'calc(100dvh - 20px)',
        overflow: 'auto',
        p: 2,
        borderTop: 3,
        borderColor: 'amber',
      }}>
      <Typography variant="h3" component="h2">
        {stop.title}
      </Typography>
      <Typography role="status" sx={{ my: 1 }}>
        {stop.text}
      </Typography>
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between' }}>
        <Typography variant="caption" color="textSecondary">
          {t('{step} of {stops}', { step: step + 1, stops: STOPS.length })}
        </Typography>
        <Stack direction="row" sx={{ gap: 1 }}>
          <Button onClick={end}>{t('Put it away')}</Button>
          <Button
            variant="contained"
            onClick={() => {
              if (step + 1 < STOPS.length) setStep(step + 1);
              else end();
            }}>
            {step + 1 < STOPS.length ? t('Next') : t('Begin')}
          </Button>
        </Stack>
      </Stack>
    </Paper>
  );
}
