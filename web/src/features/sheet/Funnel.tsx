import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Stack from '@mui/material/Stack';

import type { Funnel as Counts } from '../../shared/api';
import { useFunnel } from './useFunnel';
import { formatCount } from '../../shared/lib/format';
import type { SheetQuestion, Change } from '../../shared/lib/question';
import { t } from '../../shared/texts';

interface Step {
  name: keyof Counts;
  word: string;
  help: string;
  /** The filter the step stands for; steps before the list have none. "good" knows from which grade. */
  filter?: (counts: Counts | undefined) => SheetQuestion;
}

const STEPS: readonly Step[] = [
  { name: 'made', word: t('made'), help: t('Names the recipes made from your words') },
  { name: 'within', word: t('within limits'), help: t('Different names that keep your limits') },
  { name: 'listed', word: t('listed'), help: t('The best of them: show all'), filter: () => ({}) },
  {
    name: 'good',
    word: t('good enough'),
    help: t('Show those with a grade that is good enough'),
    filter: (counts) => ({ grade_min: counts?.good_from ?? 80 }),
  },
  {
    name: 'open',
    word: t('open'),
    help: t('Show those open in one of your extensions'),
    filter: () => ({ open_in: 'any' }),
  },
  {
    name: 'kept',
    word: t('shortlisted'),
    help: t('Show those on the shortlist'),
    filter: () => ({ mark: 'kept' }),
  },
];

interface Props {
  projectId: number;
  question: SheetQuestion;
  onChange: (part: Change) => void;
  /** In rows of three, where there is little room. */
  wraps?: boolean;
}

const NONE: Change = { grade_min: undefined, open_in: undefined, open_all: undefined, mark: undefined };

const isOn = (step: Step, question: SheetQuestion, counts: Counts | undefined): boolean => {
  if (!step.filter) return false;
  const wanted = step.filter(counts);
  return (
    question.grade_min === wanted.grade_min && question.open_in === wanted.open_in && question.mark === wanted.mark
  );
};

/** What became of the names, hung on a wire; each step of the list filters it. */
export function Funnel({ projectId, question, onChange, wraps = false }: Props) {
  const { data } = useFunnel(projectId);
  return (
    <Stack
      component="ol"
      aria-label={t('What became of the names')}
      direction="row"
      sx={{
        listStyle: 'none',
        m: 0,
        p: 0,
        gap: 0.5,
        position: 'relative',
        ...(wraps && { display: 'grid', gridTemplateColumns: 'repeat(3, minmax(84px, 1fr))', rowGap: 1 }),
        '&::before': {
          content: '""',
          position: 'absolute',
          left: 0,
          right: 0,
          top: 5,
          borderTop: 2,
          borderColor: 'wire',
          display: wraps ? 'none' : 'block',
        },
      }}>
      {STEPS.map((step) => {
        const on = isOn(step, question, data);
        const count = data?.[step.name];
        const inside = (
          <>
            <Box
              aria-hidden
              sx={{
                width: 10,
                height: 10,
                borderRadius: '50%',
                mb: 0.4,
                border: 2,
                borderColor: on ? 'secondary.main' : 'wire',
                bgcolor: on ? 'secondary.main' : 'background.default',
              }}
            />
            <Box
              component="span"
              className="serif"
              sx={{
                fontSize: '1.08rem',
                fontWeight: 600,
                lineHeight: 1.15,
                color: on ? 'secondary.main' : 'text.primary',
              }}>
              {count === undefined ? '–' : formatCount(count)}
            </Box>
            <Box
              component="span"
              sx={{
                fontSize: '0.78rem',
                color: 'text.secondary',
                textDecoration: step.filter ? 'underline' : 'none',
                textDecorationColor: 'var(--mui-palette-wire)',
                textUnderlineOffset: 3,
              }}>
              {step.word}
            </Box>
          </>
        );
        const look = {
          flex: 1,
          display: 'flex',
          flexDirection: 'column',
          alignItems: 'flex-start',
          textAlign: 'left',
          position: 'relative',
        } as const;
        return (
          <Box
            component="li"
            key={step.name}
            title={
              step.name === 'good' && data
                ? t('Show those graded {goodFrom} and above', { goodFrom: data.good_from })
                : step.help
            }
            sx={{ flex: 1, display: 'flex' }}>
            {step.filter ? (
              <ButtonBase aria-pressed={on} onClick={() => onChange({ ...NONE, ...step.filter?.(data) })} sx={look}>
                {inside}
              </ButtonBase>
            ) : (
              <Box sx={look}>{inside}</Box>
            )}
          </Box>
        );
      })}
    </Stack>
  );
}
