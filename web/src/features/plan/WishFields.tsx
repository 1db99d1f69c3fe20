import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { useState } from 'react';

import type { ApiError } from '../../shared/api';
import { t } from '../../shared/texts';
import { YearsField } from '../../shared/ui/YearsField';
import { CURRENCIES, MOST_YEARS, type PlanWish } from './planQuestion';

interface Props {
  wish: PlanWish;
  countries: readonly { code: string; name: string }[];
  error: ApiError | null;
  onChange: (change: Partial<PlanWish>) => void;
}

/** For whom, for how long, and how. */
export function WishFields({ wish, countries, error, onChange }: Props) {
  const [vat, setVat] = useState(wish.vat);
  const [trouble, setTrouble] = useState(String(wish.trouble || ''));
  const [budget, setBudget] = useState(String(wish.budget || ''));
  return (
    <Stack direction="row" role="group" aria-label={t('What is planned')} sx={{ flexWrap: 'wrap', gap: 1.5, mb: 2 }}>
      <YearsField years={wish.years} most={MOST_YEARS} onYears={(years) => onChange({ years })} />
      <TextField
        select
        label={t('Country of the buyer')}
        value={wish.country}
        onChange={(e) => onChange({ country: e.target.value })}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        sx={{ width: 200 }}>
        <MenuItem value="">{t('not said')}</MenuItem>
        {countries.map((c) => (
          <MenuItem key={c.code} value={c.code}>
            {c.name}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label={t('VAT number of a business')}
        value={vat}
        onChange={(e) => setVat(e.target.value.slice(0, 40))}
        onBlur={() => onChange({ vat })}
        onKeyDown={(e) => {
          if (e.key === 'Enter') onChange({ vat });
        }}
        error={Boolean(error?.at('vat'))}
        helperText={error?.at('vat')}
        sx={{ width: 220 }}
      />
      <TextField
        select
        label={t('Currency')}
        value={wish.currency}
        onChange={(e) => onChange({ currency: e.target.value })}
        sx={{ width: 110 }}>
        {CURRENCIES.map((c) => (
          <MenuItem key={c} value={c}>
            {c}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label={t('Trouble of a move')}
        title={t('What a move to another seller costs you in trouble, beside its price')}
        value={trouble}
        onChange={(e) => {
          if (/^\d{0,4}$/.test(e.target.value)) setTrouble(e.target.value);
        }}
        onBlur={() => onChange({ trouble: Number(trouble) })}
        onKeyDown={(e) => {
          if (e.key === 'Enter') onChange({ trouble: Number(trouble) });
        }}
        disabled={!wish.moving}
        slotProps={{ htmlInput: { inputMode: 'numeric' } }}
        sx={{ width: 160 }}
      />
      <TextField
        select
        label={t('Paying later')}
        title={t('By how much less a year what is paid later weighs: with more, less is paid ahead')}
        value={wish.ahead}
        onChange={(e) => onChange({ ahead: Number(e.target.value) })}
        sx={{ width: 175 }}>
        {[...new Set([0, 2, 5, 10, 20, wish.ahead])]
          .sort((a, b) => a - b)
          .map((n) => (
            <MenuItem key={n} value={n}>
              {n ? t('{n, number} % less a year', { n }) : t('weighs the same')}
            </MenuItem>
          ))}
      </TextField>
      <TextField
        label={t('Budget in all')}
        title={t('What all of it may cost over the years; beyond it, it is said which names to leave out')}
        value={budget}
        onChange={(e) => {
          if (/^\d{0,6}$/.test(e.target.value)) setBudget(e.target.value);
        }}
        onBlur={() => onChange({ budget: Number(budget) })}
        onKeyDown={(e) => {
          if (e.key === 'Enter') onChange({ budget: Number(budget) });
        }}
        slotProps={{ htmlInput: { inputMode: 'numeric' } }}
        sx={{ width: 150 }}
      />
      <FormControlLabel
        control={<Switch checked={wish.moving} onChange={(e) => onChange({ moving: e.target.checked })} />}
        label={t('Moving allowed')}
      />
      <FormControlLabel
        control={<Switch checked={wish.privacy} onChange={(e) => onChange({ privacy: e.target.checked })} />}
        label={t('Holder not public')}
      />
    </Stack>
  );
}
