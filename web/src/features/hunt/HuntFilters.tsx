import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type ReactNode, useCallback, useState } from 'react';

import type { HuntCounts, Markets } from '../../shared/api';
import { concepts } from '../../shared/lib/concepts';
import { formatCount } from '../../shared/lib/format';
import { listOf, toggled } from '../../shared/lib/question';
import { useLetters } from '../../shared/lib/useLetters';
import { LettersField } from '../../shared/sheet/LettersField';
import { Choice, Row } from '../../shared/ui/Choice';
import { Section } from '../../shared/ui/Section';
import { t } from '../../shared/texts';
import { HUNT_FIELDS, type HuntAsk, type HuntField, type HuntQuestion } from './huntQuestion';

interface Props {
  question: HuntQuestion;
  onAsk: HuntAsk;
  counts: HuntCounts | undefined;
  total: number | undefined;
  markets: Markets['markets'];
  currency: string;
}

const MOST_EXTENSIONS = 14;
const REST = 350;
const WITHIN: readonly (readonly [number, string])[] = [
  [6, t('6 hours')],
  [24, t('a day')],
  [72, t('3 days')],
  [168, t('a week')],
  [720, t('30 days')],
];

type NumberField = Extract<
  HuntField,
  | 'letters_min'
  | 'letters_max'
  | 'words_min'
  | 'words_max'
  | 'price_min'
  | 'price_max'
  | 'bids_min'
  | 'bids_max'
  | 'age_min'
  | 'links_min'
  | 'sites_min'
>;

/** A number typed: asked for once the typing rests; what is none asks for nothing. */
function Figure({
  field,
  label,
  named = label,
  most,
  question,
  onAsk,
}: Pick<Props, 'question' | 'onAsk'> & { field: NumberField; label: string; named?: string; most: number }) {
  const given = question[field];
  const look = useCallback(
    (text: string) => {
      const number = Number(text);
      onAsk({ [field]: text && Number.isFinite(number) ? Math.min(most, Math.max(0, number)) : undefined });
    },
    [field, most, onAsk],
  );
  const [typed, setTyped] = useLetters(given === undefined ? '' : String(given), REST, look);
  return (
    <TextField
      size="small"
      label={label}
      value={typed}
      onChange={(e) => setTyped(e.target.value.replace(/[^\d.]/g, ''))}
      slotProps={{ htmlInput: { inputMode: 'decimal', 'aria-label': named } }}
    />
  );
}

const Pair = ({ children }: { children: ReactNode }) => (
  <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, mt: 1 }}>{children}</Box>
);

/** All filters of the hunt; they combine. */
export function HuntFilters({ question, onAsk, counts, total, markets, currency }: Props) {
  const part = { question, onAsk };
  const [every, setEvery] = useState(false);
  const own = listOf(question.extensions);
  const extensions = [...new Set([...own, ...Object.keys(counts?.extension ?? {})])];
  const narrowed = HUNT_FIELDS.filtersOf(question);
  return (
    <Stack sx={{ gap: 2 }}>
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between', minHeight: 30 }}>
        <Typography role="status">
          {total === undefined ? ' ' : t('leaves {total, plural, one {# name} other {# names}}', { total })}
        </Typography>
        <Button
          size="small"
          disabled={narrowed === 0}
          onClick={() => onAsk(HUNT_FIELDS.unfiltered)}
          sx={{ whiteSpace: 'nowrap' }}>
          {t('Show all')}
        </Button>
      </Stack>
      <Section title={t('How it can be had')}>
        <Row label={t('How it can be had')}>
          {concepts().offers.map(({ name, word }) => (
            <Choice
              key={name}
              word={word}
              count={counts?.kind[name]}
              on={listOf(question.kinds).includes(name)}
              onPress={() => onAsk({ kinds: toggled(question.kinds, name) })}
            />
          ))}
        </Row>
        <TextField
          select
          fullWidth
          size="small"
          label={t('Ends or drops within')}
          value={question.within ?? ''}
          onChange={(e) => onAsk({ within: e.target.value === '' ? undefined : Number(e.target.value) })}
          sx={{ mt: 1.2 }}>
          <MenuItem value="">{t('any time')}</MenuItem>
          {WITHIN.map(([hours, word]) => (
            <MenuItem key={hours} value={hours}>
              {word}
            </MenuItem>
          ))}
        </TextField>
      </Section>
      <Section title={currency ? t('Price in {currency}, and bids', { currency }) : t('Price and bids')}>
        <Pair>
          <Figure field="price_min" named={t('Price from')} label={t('From')} most={1_000_000} {...part} />
          <Figure field="price_max" named={t('Price up to')} label={t('Up to')} most={1_000_000} {...part} />
          <Figure field="bids_min" label={t('Bids from')} most={100_000} {...part} />
          <Figure field="bids_max" label={t('Bids to')} most={100_000} {...part} />
        </Pair>
      </Section>
      <Section title={t('The name')}>
        <Stack sx={{ gap: 1 }}>
          <LettersField field="text" label={t('Has letters')} {...part} />
          <Pair>
            <LettersField field="starts" label={t('Begins')} {...part} />
            <LettersField field="ends" label={t('Ends')} {...part} />
            <Figure field="letters_min" named={t('Letters from')} label={t('Letters')} most={63} {...part} />
            <Figure field="letters_max" named={t('Letters up to')} label={t('up to')} most={63} {...part} />
            <Figure field="words_min" named={t('Words from')} label={t('Words')} most={3} {...part} />
            <Figure field="words_max" named={t('Words up to')} label={t('up to')} most={3} {...part} />
          </Pair>
          <Row label={t('Hyphens and digits')}>
            {(['hyphen', 'digit'] as const).map((field) => (
              <Choice
                key={field}
                word={field === 'hyphen' ? t('no hyphen') : t('no digit')}
                count={undefined}
                on={question[field] === 'no'}
                onPress={() => onAsk({ [field]: question[field] === 'no' ? undefined : 'no' })}
              />
            ))}
          </Row>
        </Stack>
      </Section>
      <Section title={t('Extension')}>
        <Row label={t('Extension')}>
          {extensions.slice(0, every ? undefined : MOST_EXTENSIONS).map((e) => (
            <Choice
              key={e}
              word={`.${e}`}
              count={counts?.extension[e]}
              on={own.includes(e)}
              onPress={() => onAsk({ extensions: toggled(question.extensions, e) })}
            />
          ))}
        </Row>
        {extensions.length > MOST_EXTENSIONS && (
          <Button size="small" onClick={() => setEvery(!every)}>
            {every ? t('Fewer') : t('All {count} extensions', { count: formatCount(extensions.length) })}
          </Button>
        )}
        <Typography variant="body2" color="textSecondary" sx={{ mt: 1, mb: 0.4 }}>
          {t('Registered under these, too')}
        </Typography>
        <Row label={t('Registered under these, too')}>
          {['com', 'net', 'org'].map((e) => (
            <Choice
              key={e}
              word={`.${e}`}
              count={undefined}
              on={listOf(question.also).includes(e)}
              onPress={() => onAsk({ also: toggled(question.also, e) })}
            />
          ))}
        </Row>
      </Section>
      <Section title={t('Its past')}>
        <Pair>
          <Figure
            field="age_min"
            named={t('Years since it was registered first')}
            label={t('Years old')}
            most={60}
            {...part}
          />
          <Figure field="links_min" named={t('Links at least')} label={t('Links')} most={2_000_000_000} {...part} />
          <Figure
            field="sites_min"
            named={t('Linking sites at least')}
            label={t('Sites')}
            most={2_000_000_000}
            {...part}
          />
        </Pair>
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={question.clean ?? false}
              onChange={(e) => onAsk({ clean: e.target.checked || undefined })}
            />
          }
          label={t('leave out what its past is warned of')}
        />
      </Section>
      {markets.length > 1 && (
        <Section title={t('Market')}>
          <Row label={t('Market')}>
            {markets.map(({ code, name }) => (
              <Choice
                key={code}
                word={name}
                count={counts?.market[code]}
                on={listOf(question.markets).includes(code)}
                onPress={() => onAsk({ markets: toggled(question.markets, code) })}
              />
            ))}
          </Row>
        </Section>
      )}
    </Stack>
  );
}
