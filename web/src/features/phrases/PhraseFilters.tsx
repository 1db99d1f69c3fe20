import Chip from '@mui/material/Chip';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useCallback } from 'react';

import type { Figures } from '../../shared/api';
import { formatCount } from '../../shared/lib/format';
import { useLetters } from '../../shared/lib/useLetters';
import { t } from '../../shared/texts';
import { viewWord } from './figures';
import type { Question } from './usePhrases';

interface Props {
  question: Question;
  onAsk: (part: { [K in keyof Question]?: Question[K] | undefined }) => void;
}

const SEARCHES = [10, 100, 1_000, 10_000];
const SHARES = [0.2, 0.4, 0.6, 0.8];

/** Whose figures are looked at: those of two sources are never added. */
export function ViewChoice({ figures, question, onAsk }: Props & { figures: Figures }) {
  if (!figures.views.length) return null;
  return (
    <TextField
      select
      label={t('Figures of')}
      value={question.view ?? figures.usual}
      onChange={(e) => onAsk({ view: e.target.value === figures.usual ? undefined : e.target.value })}
      sx={{ minWidth: 190 }}>
      {figures.views.map((view) => (
        <MenuItem key={view.key} value={view.key}>
          {viewWord(view.key)} ({formatCount(view.known)})
        </MenuItem>
      ))}
    </TextField>
  );
}

/** What the phrases are narrowed by. */
export function PhraseFilters({ question, onAsk }: Props) {
  const look = useCallback(
    (typed: string) => {
      onAsk({ text: typed || undefined, offset: undefined });
    },
    [onAsk],
  );
  const [typed, setTyped] = useLetters(question.text ?? '', 30, look, true);
  const chip = (word: string, on: boolean, part: Parameters<Props['onAsk']>[0]) => (
    <Chip
      size="small"
      clickable
      variant={on ? 'filled' : 'outlined'}
      color={on ? 'secondary' : 'default'}
      aria-pressed={on}
      label={word}
      onClick={() => onAsk({ ...part, offset: undefined })}
    />
  );
  const number = (
    label: string,
    value: number | undefined,
    choices: readonly number[],
    word: (n: number) => string,
    set: (n: number | undefined) => Parameters<Props['onAsk']>[0],
  ) => (
    <TextField
      select
      label={label}
      value={value ?? ''}
      onChange={(e) => onAsk({ ...set(e.target.value === '' ? undefined : Number(e.target.value)), offset: undefined })}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      sx={{ minWidth: 118 }}>
      <MenuItem value="">{t('any')}</MenuItem>
      {choices.map((n) => (
        <MenuItem key={n} value={n}>
          {word(n)}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
      <TextField
        label={t('Find in phrases')}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        sx={{ width: 190 }}
      />
      {number(
        t('Searches'),
        question.demand_min,
        SEARCHES,
        (n) => t('{n, number} or more', { n }),
        (n) => ({ demand_min: n }),
      )}
      {number(
        t('Contested'),
        question.competition_max,
        SHARES,
        (n) => t('up to {n, number} %', { n: 100 * n }),
        (n) => ({ competition_max: n }),
      )}
      {number(
        t('Words'),
        question.words_min,
        [2, 3, 4, 5],
        (n) => t('{n, number} or more', { n }),
        (n) => ({ words_min: n }),
      )}
      {chip(t('with a season'), question.season ?? false, { season: question.season ? undefined : true })}
      {chip(t('unknown'), question.known === 'no', { known: question.known === 'no' ? undefined : 'no' })}
      {chip(t('chosen'), question.mark === 'chosen', { mark: question.mark === 'chosen' ? undefined : 'chosen' })}
      {question.group &&
        chip(t('group of “{phrase}”', { phrase: question.group }), true, { group: undefined, cut: undefined })}
    </Stack>
  );
}
