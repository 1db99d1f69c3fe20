import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useCallback, useState } from 'react';

import type { Counts } from '../../shared/api';
import type { Change, SheetQuestion } from '../../shared/lib/question';
import { formatMoney } from '../../shared/lib/format';
import { useLetters } from '../../shared/lib/useLetters';
import { t } from '../../shared/texts';
import { Choice, Row } from '../../shared/ui/Choice';

interface Props {
  question: SheetQuestion;
  onAsk: (part: Change) => void;
  counts: Counts | undefined;
}

type Span = 'price' | 'later' | 'whole';
const SPANS: readonly Span[] = ['price', 'later', 'whole'];

/** An amount typed: held back until the typing rests; what is no amount is not asked for. */
function Amount({
  field,
  label,
  question,
  onAsk,
}: Omit<Props, 'counts'> & { field: `${Span}_${'min' | 'max'}`; label: string }) {
  const look = useCallback(
    (typed: string) => {
      onAsk({ [field]: typed === '' ? undefined : Number(typed) });
    },
    [field, onAsk],
  );
  const [typed, setTyped] = useLetters(String(question[field] ?? ''), 300, look);
  return (
    <TextField
      fullWidth
      label={label}
      value={typed}
      onChange={(e) => {
        const amount = e.target.value.trim().replace(',', '.');
        if (/^\d{0,6}(\.\d{0,2})?$/.test(amount)) setTyped(amount);
      }}
      slotProps={{ htmlInput: { inputMode: 'decimal' } }}
    />
  );
}

/** What the first year, each later one, or all of them may cost, and whether premium names are wanted. */
export function CostFilter({ question, onAsk, counts }: Props) {
  const asked = SPANS.find((s) => question[`${s}_min`] !== undefined || question[`${s}_max`] !== undefined);
  const [span, setSpan] = useState<Span>(asked ?? 'price');
  const words: Record<Span, string> = {
    price: t('First year'),
    later: t('Later years'),
    whole: counts ? t('{years, plural, one {One year} other {# years}}', { years: counts.years }) : t('All years'),
  };
  const most = question[`${span}_max`];
  const premium = (value: 'yes' | 'no', word: string) => (
    <Choice
      word={word}
      count={counts?.choices.premium?.[value]}
      on={question.premium === value}
      onPress={() => onAsk({ premium: question.premium === value ? undefined : value })}
    />
  );
  return (
    <Stack sx={{ gap: 1 }}>
      <ToggleButtonGroup
        exclusive
        size="small"
        fullWidth
        value={span}
        aria-label={t('Of which years')}
        onChange={(_, next: Span | null) => next && setSpan(next)}>
        {SPANS.map((s) => (
          <ToggleButton key={s} value={s} sx={{ py: 0.3, px: 0.5, textTransform: 'none', lineHeight: 1.2 }}>
            {words[s]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Row label={t('{span} at most', { span: words[span] })}>
        {Object.entries(counts?.prices[span] ?? {}).map(([price, count]) => (
          <Choice
            key={price}
            word={formatMoney(price, counts?.currency ?? '')}
            count={count}
            on={most === Number(price)}
            onPress={() => onAsk({ [`${span}_max`]: most === Number(price) ? undefined : Number(price) })}
          />
        ))}
      </Row>
      <Stack direction="row" sx={{ gap: 1 }}>
        <Amount key={`${span} from`} field={`${span}_min`} label={t('from')} question={question} onAsk={onAsk} />
        <Amount key={`${span} to`} field={`${span}_max`} label={t('up to')} question={question} onAsk={onAsk} />
      </Stack>
      <Row label={t('Premium names')}>
        {premium('no', t('no premium'))}
        {premium('yes', t('premium'))}
      </Row>
    </Stack>
  );
}
