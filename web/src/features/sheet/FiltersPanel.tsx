import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Slider from '@mui/material/Slider';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import type { Counts } from '../../shared/api';
import {
  type SheetQuestion,
  type Change,
  leastOf,
  listOf,
  narrows,
  SHEET_FIELDS,
  toggled,
  withLeast,
} from '../../shared/lib/question';
import { formatCount } from '../../shared/lib/format';
import { measures } from '../../shared/lib/concepts';
import { wordOf } from '../../shared/ui/status';
import { MARK_WORDS } from './activeFilters';
import { LettersField } from '../../shared/sheet/LettersField';
import { Choice, Row } from '../../shared/ui/Choice';
import { Section } from '../../shared/ui/Section';
import { CostFilter } from './CostFilter';
import { useCounts } from './useCounts';
import { t } from '../../shared/texts';

interface Props {
  projectId: number;
  question: SheetQuestion;
  onAsk: (part: Change) => void;
  extensions: readonly string[];
}

export type Part = Omit<Props, 'projectId' | 'extensions'> & { counts: Counts | undefined };

const RANGES = [
  ['letters', t('Letters'), 3, 20],
  ['syllables', t('Syllables'), 1, 8],
  ['words', t('Words'), 1, 5],
] as const;

/** From and to, with how many names lie between them while the thumb moves. */
function Between({
  name,
  word,
  low,
  high,
  counts,
  question,
  onAsk,
}: Part & { name: (typeof RANGES)[number][0]; word: string; low: number; high: number }) {
  const given: [number, number] = [question[`${name}_min`] ?? low, question[`${name}_max`] ?? high];
  const [moved, setMoved] = useState<[number, number] | null>(null);
  const [from, to] = moved ?? given;
  const inside = (value: number) => (from <= low || value >= from) && (to >= high || value <= to);
  const leaves = Object.entries(counts?.values[name] ?? {}).reduce(
    (sum, [value, n]) => (inside(Number(value)) ? sum + n : sum),
    0,
  );
  const upTo = to >= high ? t('any') : to;
  const range = from <= low ? t('up to {to}', { to: upTo }) : t('{from} to {to}', { from, to: upTo });
  return (
    <Box>
      <Stack direction="row" sx={{ justifyContent: 'space-between' }}>
        <span>
          {word} {from <= low && to >= high ? t('any') : range}
        </span>
        <Typography variant="caption" color="textSecondary">
          {counts && formatCount(leaves)}
        </Typography>
      </Stack>
      <Slider
        size="small"
        color="secondary"
        min={low}
        max={high}
        value={[from, to]}
        getAriaLabel={(i) => (i ? t('{what} at most', { what: word }) : t('{what} at least', { what: word }))}
        onChange={(_, v) => {
          if (Array.isArray(v)) setMoved([v[0] ?? low, v[1] ?? high]);
        }}
        onChangeCommitted={(_, v) => {
          const [a = low, b = high] = Array.isArray(v) ? v : [];
          setMoved(null);
          onAsk({ [`${name}_min`]: a > low ? a : undefined, [`${name}_max`]: b < high ? b : undefined });
        }}
      />
    </Box>
  );
}

/** A lowest score, with how many names reach it while the thumb moves. */
function AtLeast({
  word,
  value,
  counts,
  onChange,
}: {
  word: string;
  value: number;
  counts: Readonly<Record<string, number>> | undefined;
  onChange: (score: number) => void;
}) {
  const [moved, setMoved] = useState<number | null>(null);
  const score = moved ?? value;
  return (
    <Box>
      <Stack direction="row" sx={{ justifyContent: 'space-between' }}>
        <span>
          {word} {score ? t('from {score}', { score }) : t('any')}
        </span>
        <Typography variant="caption" color="textSecondary">
          {counts?.[score] === undefined ? '' : formatCount(counts[score])}
        </Typography>
      </Stack>
      <Slider
        size="small"
        color="secondary"
        min={0}
        max={95}
        step={5}
        value={score}
        aria-label={t('{word} at least', { word })}
        onChange={(_, v) => setMoved(v)}
        onChangeCommitted={(_, v) => {
          setMoved(null);
          onChange(v);
        }}
      />
    </Box>
  );
}

function OpenIn({ counts, question, onAsk, extensions }: Part & Pick<Props, 'extensions'>) {
  const chosen = listOf(question.open_in);
  const left = counts?.choices.open_in;
  const only = (which: string) => {
    onAsk({ open_in: question.open_in === which ? undefined : which, open_all: undefined });
  };
  const both = chosen.filter((e) => e !== 'any' && e !== 'all');
  return (
    <Section title={t('Open in')}>
      <Row label={t('Open in')}>
        <Choice word={t('any of mine')} count={left?.any} on={question.open_in === 'any'} onPress={() => only('any')} />
        <Choice word={t('all of mine')} count={left?.all} on={question.open_in === 'all'} onPress={() => only('all')} />
        {extensions.map((e) => (
          <Choice
            key={e}
            word={`.${e}`}
            count={left?.[e]}
            on={chosen.includes(e)}
            onPress={() => onAsk({ open_in: toggled(both.join(','), e) })}
          />
        ))}
      </Row>
      {both.length > 1 && (
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={question.open_all ?? false}
              onChange={(e) => onAsk({ open_all: e.target.checked || undefined })}
            />
          }
          label={t('in every one of these')}
        />
      )}
    </Section>
  );
}

/** All filters; they combine, and each tells how many names it would leave. */
export function FiltersPanel({ projectId, question, onAsk, extensions }: Props) {
  const counts = useCounts(projectId, question).data;
  const part: Part = { question, onAsk, counts };
  const least = leastOf(question);
  const many = (
    field: 'recipes' | 'added' | 'status',
    label: string,
    words: readonly (readonly [string, string])[],
  ) => (
    <Row label={label}>
      {words
        .map(([value, word]) => ({
          value,
          word,
          count: counts?.choices[field]?.[value],
          on: listOf(question[field]).includes(value),
        }))
        .filter(({ count, on }) => on || count !== 0)
        .map(({ value, word, count, on }) => (
          <Choice
            key={value}
            word={word}
            count={count}
            on={on}
            onPress={() => onAsk({ [field]: toggled(question[field], value) })}
          />
        ))}
    </Row>
  );
  const choices = (field: string) => Object.keys(counts?.choices[field] ?? {});
  const either = (field: 'hyphen' | 'digit', one: string, none: string) => (
    <>
      <Choice
        word={one}
        count={counts?.choices[field]?.yes}
        on={question[field] === 'yes'}
        onPress={() => onAsk({ [field]: question[field] === 'yes' ? undefined : 'yes' })}
      />
      <Choice
        word={none}
        count={counts?.choices[field]?.no}
        on={question[field] === 'no'}
        onPress={() => onAsk({ [field]: question[field] === 'no' ? undefined : 'no' })}
      />
    </>
  );
  return (
    <Stack
      sx={{
        gap: 2.2,
        '& .MuiSlider-root': { py: 0.8, display: 'block', width: 'calc(100% - 12px)', mx: '6px' },
      }}>
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between', minHeight: 30 }}>
        <Typography role="status">
          {counts ? t('leaves {total, plural, one {# name} other {# names}}', { total: counts.total }) : ' '}
        </Typography>
        <Button disabled={!narrows(question)} onClick={() => onAsk(SHEET_FIELDS.unfiltered)}>
          {t('Clear all')}
        </Button>
      </Stack>
      <Section title={t('Looked at')}>
        <Row label={t('Looked at')}>
          {MARK_WORDS.map(([value, word]) => (
            <Choice
              key={value}
              word={word}
              count={counts?.choices.mark?.[value]}
              on={(question.mark ?? '') === value}
              onPress={() => onAsk({ mark: value || undefined })}
            />
          ))}
        </Row>
      </Section>
      <OpenIn {...part} extensions={extensions} />
      <Section title={t('Status in any of mine')}>
        {many(
          'status',
          t('Status'),
          choices('status').map((s) => [s, wordOf(s)]),
        )}
      </Section>
      <Section title={t('Letters')}>
        <Stack sx={{ gap: 1, mb: 1 }}>
          <LettersField field="text" label={t('contains')} {...part} />
          <Stack direction="row" sx={{ gap: 1 }}>
            <LettersField field="starts" label={t('begins with')} {...part} />
            <LettersField field="ends" label={t('ends with')} {...part} />
          </Stack>
        </Stack>
        {RANGES.map(([name, word, low, high]) => (
          <Between key={name} name={name} word={word} low={low} high={high} {...part} />
        ))}
        <Row label={t('Hyphens')}>{either('hyphen', t('a hyphen'), t('no hyphen'))}</Row>
        <Box sx={{ mt: 0.5 }}>
          <Row label={t('Digits')}>{either('digit', t('a digit'), t('no digit'))}</Row>
        </Box>
      </Section>
      <Section title={t('Grade and measures')}>
        <AtLeast
          word={t('Grade')}
          value={question.grade_min ?? 0}
          counts={counts?.least.grade}
          onChange={(score) => onAsk({ grade_min: score || undefined })}
        />
        {measures().map(({ name, word }) => (
          <AtLeast
            key={name}
            word={word}
            value={least[name] ?? 0}
            counts={counts?.least[name]}
            onChange={(score) => onAsk({ least: withLeast(question, name, score).least })}
          />
        ))}
      </Section>
      <Section title={t('Recipe')}>
        {many(
          'recipes',
          t('Recipe'),
          choices('recipes').map((r) => [r, r]),
        )}
      </Section>
      <Section title={t('The added word is a')}>
        {many(
          'added',
          t('The added word is a'),
          choices('added').map((a) => [a, a]),
        )}
      </Section>
      <Section title={t('What it costs')}>
        <CostFilter {...part} />
      </Section>
      <Section title={t('Looked for a month, at least')}>
        <Row label={t('Looked for a month, at least')}>
          {Object.entries(counts?.demand ?? {}).map(([searches, count]) => (
            <Choice
              key={searches}
              word={formatCount(Number(searches))}
              count={count}
              on={question.demand_min === Number(searches)}
              onPress={() =>
                onAsk({ demand_min: question.demand_min === Number(searches) ? undefined : Number(searches) })
              }
            />
          ))}
        </Row>
      </Section>
    </Stack>
  );
}
