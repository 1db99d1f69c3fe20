import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Slider from '@mui/material/Slider';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { type ReactNode, useState } from 'react';

import { asApiError, type Preferences } from '../../shared/api';
import { formatMoment, formatMoney } from '../../shared/lib/format';
import { measures } from '../../shared/lib/concepts';
import { useIsDemo, usePreferences } from '../../shared/lib/preferences';
import { ChipsField } from '../../shared/ui/ChipsField';
import { AccountFields } from './AccountFields';
import { t } from '../../shared/texts';

const THEMES = [
  ['system', t('as the system')],
  ['light', t('light paper')],
  ['dark', t('dark paper')],
] as const;
const DENSITIES = [
  ['dense', t('dense rows')],
  ['usual', t('usual rows')],
  ['roomy', t('roomy rows')],
] as const;
const LOCALES: readonly (readonly [Preferences['locale'], string])[] = [
  ['en', t('English')],
  ['en-GB', t('English, United Kingdom')],
  ['en-IE', t('English, Ireland')],
  ['de', t('German')],
  ['fr', t('French')],
  ['es', t('Spanish')],
  ['sv', t('Swedish')],
  ['nl', t('Dutch')],
  ['pt', t('Portuguese')],
];
const CURRENCIES: readonly Preferences['currency'][] = ['', 'EUR', 'USD', 'GBP', 'SEK', 'CHF', 'CAD', 'AUD', 'NZD'];
const MIDDLE = 5;
const SAMPLE = '2026-11-25T14:30:00Z';

function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ mb: 3 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

/** How the person likes things; kept as it is changed. */
export function SettingsPage({ extensions }: { extensions: readonly string[] }) {
  const demo = useIsDemo();
  const { preferences: mine, keep, error, saving } = usePreferences();
  const failed = asApiError(error);
  const [rate, setRate] = useState<string | null>(null);
  if (!mine) return null;
  const own = Object.keys(mine.weights).length > 0;
  return (
    <Box component="main" sx={{ maxWidth: 720, mx: 'auto', px: 2, py: 3 }}>
      <Typography variant="h1">{t('Settings')}</Typography>
      <Typography color="textSecondary" role="status" sx={{ mb: 2 }}>
        {saving ? t('saving…') : t('Kept as you change them.')}
      </Typography>
      {failed && (
        <Alert severity="error" sx={{ mb: 2 }}>
          {failed.problems[0]?.message ?? failed.message}
        </Alert>
      )}
      <Section title={t('Looks')}>
        <Stack sx={{ gap: 1.5, alignItems: 'flex-start' }}>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={mine.theme}
            aria-label={t('Paper')}
            onChange={(_, theme: Preferences['theme'] | null) => {
              if (theme) keep({ theme });
            }}>
            {THEMES.map(([value, word]) => (
              <ToggleButton key={value} value={value} sx={{ textTransform: 'none', px: 1.5 }}>
                {word}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={mine.density}
            aria-label={t('Rows of the sheet')}
            onChange={(_, density: Preferences['density'] | null) => {
              if (density) keep({ density });
            }}>
            {DENSITIES.map(([value, word]) => (
              <ToggleButton key={value} value={value} sx={{ textTransform: 'none', px: 1.5 }}>
                {word}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </Stack>
      </Section>
      <Section title={t('Numbers, dates and prices')}>
        <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap' }}>
          <TextField
            select
            label={t('Written as in')}
            value={mine.locale}
            onChange={(e) => keep({ locale: e.target.value as Preferences['locale'] })}
            sx={{ width: 230 }}>
            {LOCALES.map(([value, word]) => (
              <MenuItem key={value} value={value}>
                {word}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label={t('Prices in')}
            value={mine.currency}
            onChange={(e) => keep({ currency: e.target.value as Preferences['currency'] })}
            sx={{ width: 170 }}
            slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}>
            {CURRENCIES.map((value) => (
              <MenuItem key={value} value={value}>
                {value || t('as quoted')}
              </MenuItem>
            ))}
          </TextField>
          {mine.currency && mine.currency !== 'EUR' && (
            <TextField
              label={t('One euro is, in {currency}', { currency: mine.currency })}
              value={rate ?? mine.rate ?? ''}
              onChange={(e) => setRate(e.target.value)}
              onBlur={() => {
                if (rate !== null) keep({ rate: rate.trim() === '' ? null : Number(rate.replace(',', '.')) });
                setRate(null);
              }}
              helperText={t('By your own reckoning: no rate is looked up.')}
              sx={{ width: 220 }}
              slotProps={{ htmlInput: { inputMode: 'decimal' } }}
            />
          )}
        </Stack>
        <Typography color="textSecondary" sx={{ mt: 1 }}>
          {t('{names, number} names · {moment} · {price}', {
            names: 12_345,
            moment: formatMoment(SAMPLE),
            price: formatMoney(12.5, 'EUR'),
          })}
        </Typography>
      </Section>
      <Section title={t('What new projects begin with')}>
        <ChipsField
          label={t('Extensions, in your order')}
          show={(e) => `.${e}`}
          options={extensions}
          value={mine.extensions}
          onChange={(next) => keep({ extensions: next })}
          error={failed?.at('extensions', true)}
          help={t('None: .com, .net and .org.')}
        />
        <FormControlLabel
          sx={{ mt: 1 }}
          control={
            <Checkbox
              checked={own}
              onChange={(e) => {
                keep({
                  weights: e.target.checked ? Object.fromEntries(measures().map((m) => [m.name, MIDDLE])) : {},
                });
              }}
            />
          }
          label={t('Weights of my own, instead of those of the purpose')}
        />
        {own &&
          measures().map(({ name, word }) => (
            <Stack key={name} direction="row" sx={{ alignItems: 'center', gap: 2, maxWidth: 420 }}>
              <Box component="span" sx={{ width: 110 }}>
                {word}
              </Box>
              <Slider
                size="small"
                color="secondary"
                min={0}
                max={10}
                defaultValue={mine.weights[name] ?? 0}
                aria-label={t('Weight of {word}', { word })}
                onChangeCommitted={(_, v) => keep({ weights: { ...mine.weights, [name]: v } })}
              />
            </Stack>
          ))}
      </Section>
      <Section title={t('Keys')}>
        <FormControlLabel
          control={<Checkbox checked={mine.letter_keys} onChange={(e) => keep({ letter_keys: e.target.checked })} />}
          label={t('Keys of one letter do something at the bench and where names are read')}
        />
        <Typography color="textSecondary">
          {t(
            'Switch them off where you speak to the computer, or a slip of the hand does too much. Arrows, Enter, Escape and keys with ctrl stay.',
          )}
        </Typography>
      </Section>
      <Section title={t('Account')}>
        <AccountFields demo={demo} />
      </Section>
      <Section title={t('The tour')}>
        <Button variant="outlined" disabled={!mine.toured} onClick={() => keep({ toured: false })}>
          {t('Show it again at the bench')}
        </Button>
      </Section>
    </Box>
  );
}
