import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { type SubmitEvent, useState } from 'react';

import { asApiError, type SellerKind } from '../../shared/api';
import { beside } from '../../shared/ui/beside';
import { t } from '../../shared/texts';
import type { useCouponActs } from './usePlan';

const EMPTY = {
  code: '',
  takes: 'percent',
  value: '',
  extensions: '',
  actions: 'register',
  years_from: '',
  years_to: '',
  least_names: '',
  least_sum: '',
  new_customers: '',
  combines: '',
  on_promotions: '',
  starts: '',
  ends: '',
};
type Draft = typeof EMPTY;

/** A line of the open format with its heading, every cell quoted. */
export const asLine = (draft: Draft): string => {
  const quoted = (cells: string[]) => cells.map((cell) => `"${cell.replaceAll('"', '""')}"`).join(',');
  return `${Object.keys(draft).join(',')}\n${quoted(Object.values(draft))}\n`;
};

interface Props {
  sellers: readonly SellerKind[];
  mayEdit: boolean;
  acts: ReturnType<typeof useCouponActs>;
  onClose: () => void;
}

/** A coupon one has come by. */
export function CouponDialog({ sellers, mayEdit, acts, onClose }: Props) {
  const [seller, setSeller] = useState(sellers[0]?.code ?? '');
  const [draft, setDraft] = useState<Draft>(EMPTY);
  const [everybody, setEverybody] = useState(false);
  const { hold } = acts;
  const error = asApiError(hold.error);
  const currency = sellers.find((s) => s.code === seller)?.currency ?? '';
  const set = (part: Partial<Draft>) => setDraft({ ...draft, ...part });
  const field = (name: keyof Draft, label: string, more: object = {}) => (
    <TextField
      fullWidth
      label={label}
      value={draft[name]}
      onChange={(e) => set({ [name]: e.target.value.slice(0, 200) })}
      error={Boolean(error?.at(name))}
      helperText={error?.at(name)}
      {...more}
    />
  );
  const day = { type: 'date', slotProps: { inputLabel: { shrink: true } } };
  const yes = (name: 'new_customers' | 'combines' | 'on_promotions', label: string) => (
    <FormControlLabel
      control={
        <Checkbox
          size="small"
          checked={draft[name] === 'yes'}
          onChange={(e) => set({ [name]: e.target.checked ? 'yes' : '' })}
        />
      }
      label={label}
    />
  );
  const save = (e: SubmitEvent) => {
    e.preventDefault();
    hold.mutate({ seller, text: asLine(draft), everybody }, { onSuccess: onClose });
  };
  const elsewhere = error?.problems.filter((p) => !(p.path in EMPTY)) ?? [];
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="coupon-title">
      <form onSubmit={save}>
        <DialogTitle id="coupon-title" variant="h2">
          {t('A coupon')}
        </DialogTitle>
        <DialogContent>
          <Stack sx={{ gap: 1.6, pt: 1 }}>
            {error && (error.problems.length === 0 || elsewhere.length > 0) && (
              <Alert severity="error">{elsewhere.map((p) => p.message).join(' ') || error.message}</Alert>
            )}
            <Stack direction="row" sx={beside(160)}>
              <TextField
                select
                fullWidth
                label={t('Seller')}
                value={seller}
                onChange={(e) => setSeller(e.target.value)}>
                {sellers.map((s) => (
                  <MenuItem key={s.code} value={s.code}>
                    {s.name}
                  </MenuItem>
                ))}
              </TextField>
              {field('code', t('Code'), { autoFocus: true })}
            </Stack>
            <Stack direction="row" sx={beside(160)}>
              <TextField
                select
                fullWidth
                label={t('Takes off')}
                value={draft.takes}
                onChange={(e) => set({ takes: e.target.value })}>
                <MenuItem value="percent">{t('a share of the order')}</MenuItem>
                <MenuItem value="amount">{t('an amount')}</MenuItem>
                <MenuItem value="price">{t('so that the first year costs')}</MenuItem>
              </TextField>
              {field('value', draft.takes === 'percent' ? '%' : currency || t('Amount'), {
                slotProps: { htmlInput: { inputMode: 'decimal' } },
              })}
            </Stack>
            <Stack direction="row" sx={beside(160)}>
              {field('extensions', t('Extensions, with spaces; all if empty'))}
              {field('actions', t('For: register, renew, move'))}
            </Stack>
            <Stack direction="row" sx={beside(118)}>
              {field('years_from', t('Years, from'))}
              {field('years_to', t('Years, to'))}
              {field('least_names', t('Names, at least'))}
              {field('least_sum', t('Sum, at least'))}
            </Stack>
            <Stack direction="row" sx={beside(160)}>
              {field('starts', t('From'), day)}
              {field('ends', t('Until'), day)}
            </Stack>
            <Stack direction="row" sx={{ flexWrap: 'wrap' }}>
              {yes('new_customers', t('new customers only'))}
              {yes('combines', t('with other coupons'))}
              {yes('on_promotions', t('on promotional prices, too'))}
              {mayEdit && (
                <FormControlLabel
                  control={
                    <Checkbox size="small" checked={everybody} onChange={(e) => setEverybody(e.target.checked)} />
                  }
                  label={t('for everybody')}
                />
              )}
            </Stack>
          </Stack>
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>{t('Cancel')}</Button>
          <Button
            type="submit"
            variant="contained"
            disabled={hold.isPending || !draft.code.trim() || !draft.value.trim()}>
            {t('Add it')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
