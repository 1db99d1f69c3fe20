import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import Chip from '@mui/material/Chip';
import Typography from '@mui/material/Typography';

import type { Costed, Costs, SellerKind } from '../../shared/api';
import { formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';

const cell = {
  px: 1.2,
  py: 0.7,
  borderTop: 1,
  borderColor: 'divider',
  textAlign: 'right',
  whiteSpace: 'nowrap',
} as const;

interface Props {
  costs: Costs;
  sellers: readonly SellerKind[];
  names: readonly string[];
  out: readonly string[];
  chosen: string | null;
  onChoose: (name: string) => void;
  onOut: (out: string[]) => void;
  /** Those that are used, not only held for protection. */
  used: readonly string[];
  onUsed: (used: string[]) => void;
}

/** What each name costs over the horizon at each seller, staying there, and at best; the least of each row is marked. */
export function CostTable({ costs, sellers, names, out, chosen, onChoose, onOut, used, onUsed }: Props) {
  const { currency } = costs;
  const found = new Map(costs.names.map((n) => [n.full_name, n]));
  return (
    <Box sx={{ overflowX: 'auto', bgcolor: 'background.paper', border: 1, borderColor: 'divider', borderRadius: 1 }}>
      <Box component="table" aria-label={t('Costs')} sx={{ borderCollapse: 'collapse', width: '100%' }}>
        <thead>
          <tr>
            <Box component="th" scope="col" sx={{ ...cell, borderTop: 0, textAlign: 'left' }}>
              {t('Full name')}
            </Box>
            <Box component="th" scope="col" sx={{ ...cell, borderTop: 0 }}>
              {t('Cheapest way')}
            </Box>
            {sellers.map((s) => (
              <Box component="th" scope="col" key={s.code} sx={{ ...cell, borderTop: 0, fontWeight: 500 }}>
                {s.name}
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {names.map((name) => (
            <NameRow
              key={name}
              name={name}
              used={used.includes(name)}
              onUsed={(on) => onUsed(on ? [...used, name] : used.filter((u) => u !== name))}
              costed={out.includes(name) ? undefined : found.get(name)}
              sellers={sellers}
              currency={currency}
              on={!out.includes(name)}
              chosen={chosen === name}
              onChoose={() => onChoose(name)}
              onOn={(on) => onOut(on ? out.filter((o) => o !== name) : [...out, name])}
            />
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

interface RowProps {
  name: string;
  used: boolean;
  onUsed: (used: boolean) => void;
  costed: Costed | undefined;
  sellers: readonly SellerKind[];
  currency: string;
  on: boolean;
  chosen: boolean;
  onChoose: () => void;
  onOn: (on: boolean) => void;
}

function NameRow({ name, used, onUsed, costed, sellers, currency, on, chosen, onChoose, onOn }: RowProps) {
  const totals = (costed?.sellers ?? []).flatMap((s) => (s.total === null ? [] : [Number(s.total)]));
  const least = Math.min(...totals);
  return (
    <tr>
      <Box component="th" scope="row" sx={{ ...cell, textAlign: 'left', fontWeight: 400 }}>
        <Checkbox
          size="small"
          checked={on}
          onChange={(e) => onOn(e.target.checked)}
          slotProps={{ input: { 'aria-label': t('{name} in the plan', { name }) } }}
          sx={{ p: 0.4, mr: 0.6 }}
        />
        <Box
          component="button"
          type="button"
          aria-pressed={chosen}
          disabled={!costed}
          onClick={onChoose}
          sx={{
            font: 'inherit',
            border: 0,
            bgcolor: 'transparent',
            color: 'inherit',
            p: 0,
            cursor: 'pointer',
            textDecoration: chosen ? 'underline' : 'none',
          }}>
          <span className="serif">{name}</span>
        </Box>
        {on && (
          <Chip
            size="small"
            clickable
            variant="outlined"
            color={used ? 'primary' : 'default'}
            label={used ? t('used') : t('held')}
            aria-pressed={used}
            aria-label={t('{name} is used, not only held', { name })}
            title={
              used
                ? t('Used: kept whatever the budget. Press for a name that is only held for protection.')
                : t('Held for protection. Press for a name that is used.')
            }
            onClick={() => onUsed(!used)}
            sx={{ ml: 1, height: 20 }}
          />
        )}
      </Box>
      <Box component="td" sx={{ ...cell, fontWeight: 650 }}>
        {costed?.cheapest ? formatMoney(costed.cheapest.total, currency) : on ? t('nowhere') : ''}
      </Box>
      {sellers.map((s) => {
        const holding = costed?.sellers.find((h) => h.seller === s.code);
        if (!holding) return <Box component="td" key={s.code} sx={cell} />;
        if (holding.total === null)
          return (
            <Box
              component="td"
              key={s.code}
              sx={{ ...cell, color: 'text.secondary' }}
              title={holding.unsold ? t('Asked, this seller does not sell the name') : t('Not offered here')}>
              –
            </Box>
          );
        const best = Number(holding.total) === least;
        const title = t('{year} a year; first payment {first}, dearest year {dearest}', {
          year: formatMoney(holding.a_year, currency),
          first: formatMoney(holding.first, currency),
          dearest: formatMoney(holding.dearest, currency),
        });
        return (
          <Box component="td" key={s.code} title={title} sx={cell}>
            <Box component="span" sx={best ? { borderBottom: 2, borderColor: 'secondary.main' } : undefined}>
              {formatMoney(holding.total, currency)}
            </Box>
            {holding.quoted && (
              <Typography
                component="span"
                variant="caption"
                color="warning"
                sx={{ ml: 0.5 }}
                title={t('The seller asks a price of its own for this name; its list says otherwise')}>
                {holding.quoted === 'premium' ? t('premium') : t('quoted')}
              </Typography>
            )}
          </Box>
        );
      })}
    </tr>
  );
}
