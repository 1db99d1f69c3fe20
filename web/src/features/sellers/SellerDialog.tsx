import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import { asApiError, elsewhereOf, type SellerKind } from '../../shared/api';
import { type Difference, Elsewhere } from '../../shared/ui/Elsewhere';
import { beside } from '../../shared/ui/beside';
import { t } from '../../shared/texts';
import { type Terms, useCountries, type useSellerActs } from './useSellers';

interface Extra {
  name: string;
  yearly: string;
  about: string;
  needed: boolean;
}

const USUAL = {
  code: '',
  name: '',
  country: '',
  currency: 'EUR',
  years_min: '1',
  years_max: '10',
  years_chosen: '1',
  privacy: 'included',
  tax: 'added',
  rounding: '0.01',
  top_up: '0',
};
type Draft = typeof USUAL;
const NUMBERS: readonly (keyof Draft)[] = ['years_min', 'years_max', 'years_chosen'];

interface Props {
  /** The one to change; none for a new one. */
  seller: SellerKind | null;
  everybody: boolean;
  acts: ReturnType<typeof useSellerActs>;
  onClose: () => void;
}

function draftOf(terms: Terms): Draft {
  const kept = Object.entries(USUAL).map(([key, usual]) => {
    const value = terms[key];
    return [key, typeof value === 'string' || typeof value === 'number' ? String(value) : usual];
  });
  return Object.fromEntries(kept) as Draft;
}

const extrasOf = (terms: Terms): readonly Extra[] => (terms as { extras?: Extra[] }).extras ?? [];

const WORDS: Readonly<Record<keyof Draft, string>> = {
  code: t('Code'),
  name: t('Name'),
  country: t('Home country'),
  currency: t('Currency'),
  years_min: t('Years, from'),
  years_max: t('Years, to'),
  years_chosen: t('Years chosen in advance'),
  privacy: t('Keeping the holder private is'),
  tax: t('Prices are'),
  rounding: t('Rounded to'),
  top_up: t('Least top-up'),
};
const ticked = (extras: readonly Extra[]) => extras.map((e) => `${e.name} ${e.yearly}`).join(', ') || t('none');

/** The terms part by part, as they stand here and by now. */
const termParts = (draft: Draft, extras: readonly Extra[], theirs: Terms): Difference[] => [
  ...Object.entries(draftOf(theirs)).map(([key, there]) => ({
    word: WORDS[key as keyof Draft],
    here: draft[key as keyof Draft],
    there,
  })),
  { word: t('Ticked in advance'), here: ticked(extras), there: ticked(extrasOf(theirs)) },
];

/** A seller's terms. */
export function SellerDialog({ seller, everybody, acts, onClose }: Props) {
  const { save } = acts;
  const countries = useCountries();
  const [seen, setSeen] = useState<Terms>((seller?.terms ?? {}) as Terms);
  const [draft, setDraft] = useState(() => draftOf(seen));
  const [extras, setExtras] = useState(() => extrasOf(seen));
  const theirs = elsewhereOf<Terms>(save.error);
  const error = theirs ? null : asApiError(save.error);
  const set = (part: Partial<Draft>) => setDraft({ ...draft, ...part });
  const close = () => {
    save.reset();
    onClose();
  };
  const field = (name: keyof Draft, label: string, more: object = {}) => (
    <TextField
      fullWidth
      label={label}
      value={draft[name]}
      onChange={(e) => set({ [name]: e.target.value.slice(0, 80) })}
      error={Boolean(error?.at(name))}
      helperText={error?.at(name)}
      {...more}
    />
  );
  const choice = (name: 'privacy' | 'tax', label: string, words: readonly (readonly [string, string])[]) => (
    <TextField select fullWidth label={label} value={draft[name]} onChange={(e) => set({ [name]: e.target.value })}>
      {words.map(([value, word]) => (
        <MenuItem key={value} value={value}>
          {word}
        </MenuItem>
      ))}
    </TextField>
  );
  const send = (before: Terms) => {
    const terms: Record<string, unknown> = { ...draft, currency: draft.currency.toUpperCase(), extras };
    for (const name of NUMBERS) terms[name] = /^\d+$/.test(draft[name]) ? Number(draft[name]) : draft[name];
    save.mutate({ code: seller?.code ?? null, terms, everybody, seen: before }, { onSuccess: close });
  };
  const elsewhere = error?.problems.filter((p) => !(p.path in USUAL)) ?? [];
  return (
    <Dialog open onClose={close} fullWidth maxWidth="sm" aria-labelledby="seller-title">
      <DialogTitle id="seller-title" variant="h2">
        {seller ? seller.name : everybody ? t('A seller for everybody') : t('A seller of my own')}
      </DialogTitle>
      <DialogContent>
        <Stack sx={{ gap: 1.6, pt: 1 }}>
          {theirs && (
            <Elsewhere
              what={draft.name}
              parts={termParts(draft, extras, theirs)}
              onMine={() => send(theirs)}
              onTheirs={() => {
                setSeen(theirs);
                setDraft(draftOf(theirs));
                setExtras(extrasOf(theirs));
                save.reset();
              }}
            />
          )}
          {error && (error.problems.length === 0 || elsewhere.length > 0) && (
            <Alert severity="error">
              {elsewhere.map((p) => t('{where}: {what}', { where: p.path, what: p.message })).join(' ') ||
                error.message}
            </Alert>
          )}
          <Stack direction="row" sx={beside(160)}>
            {field('name', t('Name'), { autoFocus: true })}
            {everybody && !seller && field('code', t('Code, in addresses: small letters'))}
          </Stack>
          <Stack direction="row" sx={beside(160)}>
            <TextField
              select
              fullWidth
              label={t('Home country')}
              value={draft.country}
              onChange={(e) => set({ country: e.target.value })}
              error={Boolean(error?.at('country'))}
              helperText={error?.at('country')}>
              {countries.map((c) => (
                <MenuItem key={c.code} value={c.code}>
                  {c.name}
                </MenuItem>
              ))}
            </TextField>
            {field('currency', t('Currency, such as EUR'))}
          </Stack>
          <Stack direction="row" sx={beside(160)}>
            {choice('tax', t('Prices are'), [
              ['added', t('without tax')],
              ['included', t('with tax')],
            ])}
            {choice('privacy', t('Keeping the holder private is'), [
              ['included', t('in the price')],
              ['charged', t('charged, as the list says')],
              ['none', t('not offered')],
            ])}
          </Stack>
          <Stack direction="row" sx={beside(160)}>
            {field('years_min', t('Years, from'))}
            {field('years_max', t('to'))}
            {field('years_chosen', t('chosen in advance'))}
          </Stack>
          <Stack direction="row" sx={beside(160)}>
            {field('rounding', t('Rounded to'))}
            {field('top_up', t('Paid from an account: least top-up, 0 if not'))}
          </Stack>
          <Typography variant="h3">{t('Ticked in advance')}</Typography>
          {extras.map((extra, i) => {
            const change = (part: Partial<Extra>) =>
              setExtras(extras.map((one, at) => (at === i ? { ...one, ...part } : one)));
            return (
              <Stack
                key={i}
                direction="row"
                sx={{ gap: 1, flexWrap: { xs: 'wrap', sm: 'nowrap' }, alignItems: 'center' }}>
                <TextField label={t('What')} value={extra.name} onChange={(e) => change({ name: e.target.value })} />
                <TextField
                  label={t('A year')}
                  value={extra.yearly}
                  onChange={(e) => change({ yearly: e.target.value })}
                  sx={{ width: 110, flex: 'none' }}
                />
                <TextField
                  fullWidth
                  label={t('What it does')}
                  value={extra.about}
                  onChange={(e) => change({ about: e.target.value })}
                />
                <IconButton
                  aria-label={t('Take {name} away', { name: extra.name })}
                  onClick={() => setExtras(extras.filter((_, at) => at !== i))}>
                  ×
                </IconButton>
              </Stack>
            );
          })}
          <Button
            sx={{ alignSelf: 'flex-start' }}
            disabled={extras.length >= 20}
            onClick={() => setExtras([...extras, { name: '', yearly: '0', about: '', needed: false }])}>
            {t('Something ticked in advance')}
          </Button>
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={close}>{t('Cancel')}</Button>
        <Button variant="contained" disabled={!draft.name.trim() || save.isPending} onClick={() => send(seen)}>
          {t('Keep it')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
