import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import type { Costed, Costs } from '../../shared/api';
import { offerKind } from '../../shared/lib/concepts';
import { formatLeft, formatMoney } from '../../shared/lib/format';
import { useNow } from '../../shared/lib/useNow';
import { Age } from '../../shared/ui/Age';
import { rich, t } from '../../shared/texts';

type One = NonNullable<Costed['buying']>;

/** What one name takes, from its holder or in an auction. */
export function buyingInWords({ kind, low, high, ceiling, over }: One, currency: string): string {
  const money = (amount: string) => formatMoney(amount, currency);
  if (kind === 'asking') return t('Its holder hears offers: what it takes is not known.');
  if (kind === 'fixed')
    return low
      ? t('Its holder sells it for {price}.', { price: money(low) })
      : t('Its holder sells it; its price cannot be converted.');
  if (!low) return t('It is in an auction; what is bid is not told.');
  if (over && ceiling)
    return t('{low} is bid already: more than the {ceiling} you would bid at most.', {
      low: money(low),
      ceiling: money(ceiling),
    });
  if (high) return t('Between {low}, which is bid, and {high}, your most.', { low: money(low), high: money(high) });
  return t('{low} is bid so far; how high it goes is not known.', { low: money(low) });
}

interface Props {
  fullName: string;
  buying: One;
  currency: string;
  onCeiling: (amount: number) => void;
}

/** A name somebody holds: what it takes to buy it, and what one would bid at most. */
export function Buying({ fullName, buying, currency, onCeiling }: Props) {
  const now = useNow();
  const [most, setMost] = useState(buying.ceiling ? String(Math.round(Number(buying.ceiling))) : '');
  return (
    <Box sx={{ mb: 1.5 }}>
      <Typography>
        {t('{how} at {market}', { how: offerKind(buying.kind)?.word ?? buying.kind, market: buying.market })}
        {buying.ends && `, ${t('ends {left}', { left: formatLeft(buying.ends, now) })}`}.{' '}
        <strong>{buyingInWords(buying, currency)}</strong>{' '}
        <Typography component="span" variant="caption" color="textSecondary">
          {rich('By a list of {age}; holding it over the years is not in it.', { age: <Age at={buying.told} /> })}
        </Typography>
      </Typography>
      {buying.kind === 'auction' && (
        <TextField
          size="small"
          label={t('You bid at most ({currency})', { currency })}
          value={most}
          onChange={(e) => setMost(e.target.value.replace(/\D/g, '').slice(0, 8))}
          onBlur={() => onCeiling(Number(most))}
          onKeyDown={(e) => {
            if (e.key === 'Enter') onCeiling(Number(most));
          }}
          slotProps={{
            htmlInput: { inputMode: 'numeric', 'aria-label': t('Most bid for {name}', { name: fullName }) },
          }}
          sx={{ mt: 1, width: 200 }}
        />
      )}
    </Box>
  );
}

/** What all names take that somebody holds, beside the plan. */
export function allBuyingInWords({ buying, currency }: Pick<Costs, 'buying' | 'currency'>): string {
  if (!buying) return '';
  const said = {
    names: buying.names,
    low: formatMoney(buying.low, currency),
    high: formatMoney(buying.high, currency),
  };
  const unknown =
    buying.unknown > 0
      ? ` ${t('Of {n, plural, one {one of them} other {# of them}} no price is told.', { n: buying.unknown })}`
      : '';
  const whole =
    buying.high === null
      ? t(
          'Buying {names, plural, one {the one somebody holds} other {the # somebody holds}} takes {low} at the least; how much at the most is not known.',
          said,
        )
      : buying.high === buying.low
        ? t(
            'Buying {names, plural, one {the one somebody holds} other {the # somebody holds}} takes {low} beside.',
            said,
          )
        : t(
            'Buying {names, plural, one {the one somebody holds} other {the # somebody holds}} takes {low} to {high} beside.',
            said,
          );
  return `${whole}${unknown}`;
}
