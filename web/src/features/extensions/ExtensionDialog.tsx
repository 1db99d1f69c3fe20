import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { useState } from 'react';

import { asApiError, elsewhereOf, type Extension, type Extensions } from '../../shared/api';
import { type Difference, Elsewhere } from '../../shared/ui/Elsewhere';
import { useCatalogueChanges } from './useExtensions';
import { t } from '../../shared/texts';

interface Props {
  /** The entry to change; a new one has no extension yet. */
  entry: Extension;
  about: Extensions;
  onClose: () => void;
}

const WORDS: Partial<Record<keyof Extension, string>> = {
  use: t('What it is used for'),
  kind: t('Kind'),
  country: t('Country'),
  works: t('Suits'),
  eligibility: t('Who may register'),
  letters_min: t('Characters, at least'),
  letters_max: t('at most'),
  yearly: t('About € a year'),
  rdap: 'RDAP',
  whois: 'WHOIS',
  whois_query: t('its question'),
  whois_absent: t('its line for an open name'),
  idn: t('Letters beyond a to z'),
};
const inWords = (value: Extension[keyof Extension]): string =>
  typeof value === 'boolean' ? (value ? t('allowed') : t('not allowed')) : String(value ?? '') || t('none');
const entryParts = (mine: Extension, theirs: Extension): Difference[] =>
  Object.entries(WORDS).map(([key, word]) => ({
    word,
    here: inWords(mine[key as keyof Extension]),
    there: inWords(theirs[key as keyof Extension]),
  }));

/** One entry of the catalogue, as an administrator changes it. */
export function ExtensionDialog({ entry, about, onClose }: Props) {
  const { put } = useCatalogueChanges();
  const [draft, setDraft] = useState(entry);
  const [seen, setSeen] = useState(entry);
  const isNew = entry.extension === '';
  const set = (part: Partial<Extension>) => {
    setDraft({ ...draft, ...part });
  };
  const theirs = elsewhereOf<Extension>(put.error);
  const error = theirs ? null : asApiError(put.error);
  const save = (seen: Extension) => {
    put.mutate({ entry: draft, seen }, { onSuccess: onClose });
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="extension-title">
      <DialogTitle id="extension-title" variant="h2">
        {isNew ? t('A new extension') : `.${entry.extension}`}
      </DialogTitle>
      <DialogContent>
        <Stack sx={{ gap: 1.6, pt: 1 }}>
          {theirs && (
            <Elsewhere
              what={`.${draft.extension}`}
              parts={entryParts(draft, theirs)}
              onMine={() => save(theirs)}
              onTheirs={() => {
                setDraft(theirs);
                setSeen(theirs);
                put.reset();
              }}
            />
          )}
          {error && <Alert severity="error">{error.problems.map((p) => p.message).join(' ') || error.message}</Alert>}
          {isNew && (
            <TextField
              label={t('Extension')}
              value={draft.extension}
              onChange={(e) => set({ extension: e.target.value.toLowerCase().replace(/^\./, '') })}
            />
          )}
          <TextField
            label={t('What it is used for')}
            value={draft.use}
            onChange={(e) => set({ use: e.target.value.slice(0, 200) })}
          />
          <Stack direction="row" sx={{ gap: 1 }}>
            <TextField
              select
              fullWidth
              label={t('Kind')}
              value={draft.kind}
              onChange={(e) => set({ kind: e.target.value })}>
              {about.kinds.map((k) => (
                <MenuItem key={k} value={k}>
                  {k}
                </MenuItem>
              ))}
            </TextField>
            <TextField
              select
              fullWidth
              label={t('Country')}
              value={draft.country}
              onChange={(e) => set({ country: e.target.value })}>
              <MenuItem value="">{t('none')}</MenuItem>
              {about.countries.map((c) => (
                <MenuItem key={c.code} value={c.code}>
                  {c.name}
                </MenuItem>
              ))}
            </TextField>
          </Stack>
          <TextField
            select
            label={t('Suits')}
            value={draft.works}
            slotProps={{ select: { multiple: true } }}
            onChange={(e) => set({ works: e.target.value as unknown as string[] })}>
            {about.works.map((w) => (
              <MenuItem key={w.code} value={w.code}>
                {w.name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label={t('Who may register')}
            value={draft.eligibility}
            onChange={(e) => set({ eligibility: e.target.value })}>
            {about.rules.map((r) => (
              <MenuItem key={r.code} value={r.code}>
                {r.name}
              </MenuItem>
            ))}
          </TextField>
          <Stack direction="row" sx={{ gap: 1 }}>
            <TextField
              label={t('Characters, at least')}
              value={draft.letters_min}
              onChange={(e) => set({ letters_min: Number(e.target.value) || 0 })}
            />
            <TextField
              label={t('at most')}
              value={draft.letters_max}
              onChange={(e) => set({ letters_max: Number(e.target.value) || 0 })}
            />
            <TextField
              label={t('About € a year')}
              value={draft.yearly ?? ''}
              onChange={(e) => {
                const typed = e.target.value.trim();
                if (/^\d*(\.\d{0,3})?$/.test(typed)) set({ yearly: typed || null });
              }}
            />
          </Stack>
          <TextField
            label={t('RDAP, where the bootstrap has none')}
            value={draft.rdap}
            onChange={(e) => set({ rdap: e.target.value })}
          />
          <Stack direction="row" sx={{ gap: 1 }}>
            <TextField
              fullWidth
              label={t('WHOIS, where there is no RDAP')}
              placeholder={t('whois.nic.example')}
              value={draft.whois}
              onChange={(e) => set({ whois: e.target.value.trim().toLowerCase() })}
            />
            <TextField
              fullWidth
              label={t('its question')}
              placeholder={t("'{'name'}'")}
              value={draft.whois_query}
              onChange={(e) => set({ whois_query: e.target.value.slice(0, 60) })}
            />
          </Stack>
          <TextField
            label={t('Line of WHOIS that says that a name is open')}
            value={draft.whois_absent}
            onChange={(e) => set({ whois_absent: e.target.value.slice(0, 120) })}
            helperText={t("The whole line, with '{'name'}' for the name. Nothing else makes a name open.")}
          />
          <FormControlLabel
            control={<Switch checked={draft.idn} onChange={(e) => set({ idn: e.target.checked })} />}
            label={t('Letters beyond a to z are allowed')}
          />
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t('Cancel')}</Button>
        <Button
          variant="contained"
          disabled={put.isPending || theirs !== null || !draft.extension}
          onClick={() => save(seen)}>
          {t('Save')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
