import Button from '@mui/material/Button';
import Box from '@mui/material/Box';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import type { Brief } from '../../shared/api';
import { useDebounced } from '../../shared/lib/useDebounced';
import { useExtensions, useProposals } from './useExtensions';
import { t } from '../../shared/texts';

type Owner = Brief['owner'];

interface Props {
  owner: Owner;
  onClose: () => void;
  /** Takes the owner, and the extensions when an order was chosen. */
  onTake: (owner: Owner, extensions?: string[]) => void;
}

const TAKEN = 6;

/** Who will own the name, for whom and for how much a year; and the extensions that suit, with why. */
export function ProposalDialog({ owner, onClose, onTake }: Props) {
  const about = useExtensions().data;
  const [draft, setDraft] = useState(owner);
  const settled = useDebounced(draft, 250);
  const proposals = useProposals(settled).data ?? [];
  const set = (part: Partial<Owner>) => {
    setDraft({ ...draft, ...part });
  };
  const first = proposals.slice(0, TAKEN);
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="proposal-title">
      <DialogTitle id="proposal-title" variant="h2">
        {t('Owner and extensions')}
      </DialogTitle>
      <DialogContent>
        <Stack
          direction="row"
          sx={{ gap: 1, pt: 1, mb: 2, flexWrap: 'wrap', '& > *': { flex: '1 1 30%', minWidth: 140 } }}>
          <TextField
            select
            fullWidth
            label={t('Country')}
            value={draft.country}
            onChange={(e) => set({ country: e.target.value })}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}>
            <MenuItem value="">{t('not said')}</MenuItem>
            {about?.countries.map((c) => (
              <MenuItem key={c.code} value={c.code}>
                {c.name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            fullWidth
            label={t('Owner is a')}
            value={draft.kind}
            onChange={(e) => set({ kind: e.target.value })}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}>
            <MenuItem value="">{t('not said')}</MenuItem>
            {about?.owner_kinds.map((k) => (
              <MenuItem key={k} value={k}>
                {k}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            fullWidth
            label={t('It is for')}
            value={draft.work}
            onChange={(e) => set({ work: e.target.value })}>
            {about?.works.map((w) => (
              <MenuItem key={w.code} value={w.code}>
                {w.name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            fullWidth
            label={t('At most, € a year')}
            value={draft.budget ?? ''}
            onChange={(e) => {
              const n = e.target.value.trim();
              if (/^\d{0,6}$/.test(n)) set({ budget: n ? Math.min(100_000, Math.max(1, Number(n))) : null });
            }}
            slotProps={{ htmlInput: { inputMode: 'numeric' } }}
          />
          <TextField
            select
            fullWidth
            label={t('Kept for, years')}
            value={draft.years}
            onChange={(e) => set({ years: Number(e.target.value) })}>
            {Array.from({ length: 10 }, (_, i) => i + 1).map((n) => (
              <MenuItem key={n} value={n}>
                {n}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            fullWidth
            label={t('At most, € in all')}
            title={t('Over all the years it is kept')}
            value={draft.budget_whole ?? ''}
            onChange={(e) => {
              const n = e.target.value.trim();
              if (/^\d{0,7}$/.test(n)) set({ budget_whole: n ? Math.min(1_000_000, Math.max(1, Number(n))) : null });
            }}
            slotProps={{ htmlInput: { inputMode: 'numeric' } }}
          />
        </Stack>
        <Typography variant="h3">{t('An order that suits')}</Typography>
        <Box component="ol" aria-label={t('Proposed extensions')} sx={{ m: 0, pl: 3 }}>
          {proposals.map((p) => (
            <Box component="li" key={p.extension} sx={{ py: 0.5 }}>
              <strong className="serif">.{p.extension}</strong>{' '}
              <Typography component="span" color="textSecondary">
                {p.reasons.join(' ')}
              </Typography>
            </Box>
          ))}
        </Box>
        {proposals.length === 0 && (
          <Typography color="textSecondary">
            {t('Nothing fits these: allow more a year, or leave the country out.')}
          </Typography>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t('Cancel')}</Button>
        <Button variant="outlined" onClick={() => onTake(draft)}>
          {t('Keep my extensions')}
        </Button>
        <Button
          variant="contained"
          disabled={first.length === 0}
          onClick={() => {
            onTake(
              draft,
              first.map((p) => p.extension),
            );
          }}>
          {first.length ? t('Take the first {first}', { first: first.length }) : t('Take them')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
