import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useState } from 'react';

import type { OwnedName } from '../../shared/api';
import { formatMoney } from '../../shared/lib/format';
import { useDebounced } from '../../shared/lib/useDebounced';
import { t } from '../../shared/texts';
import { Traps } from './Traps';
import { useMove, useOwnedActs } from './useOwned';

const PAUSE = 500;

/** Moving a name to another seller: where to, by which code, for how much, and what stands against it. */
export function MoveDialog({ name, onClose }: { name: OwnedName; onClose: () => void }) {
  const narrow = useMediaQuery('(max-width: 600px)');
  const [to, setTo] = useState('');
  const [code, setCode] = useState('');
  const settled = useDebounced(code, PAUSE);
  const { data, error, isFetching } = useMove(name.id, to, settled);
  const { move } = useOwnedActs();
  const barred = data?.traps.some((one) => one.bars) ?? false;
  const ready = data && !data.why_not && !isFetching && settled === code;
  return (
    <Dialog open onClose={onClose} fullScreen={narrow} maxWidth="sm" fullWidth aria-labelledby="move-owned">
      <DialogTitle id="move-owned">{t('Move {name} to another seller', { name: name.shown })}</DialogTitle>
      <DialogContent>
        <Stack sx={{ gap: 1.4, pt: 1 }}>
          {isFetching && <LinearProgress aria-label={t('Asking the sellers')} />}
          {error && <Alert severity="error">{error.message}</Alert>}
          {data && (
            <>
              <Traps traps={data.traps} />
              {data.sellers.length > 0 && !barred && (
                <TextField select label={t('To')} value={to || data.to} onChange={(e) => setTo(e.target.value)}>
                  {data.sellers.map((one) => (
                    <MenuItem key={one.code} value={one.code}>
                      {one.name}
                    </MenuItem>
                  ))}
                </TextField>
              )}
              {!data.at_home && !barred && (
                <TextField
                  label={t('Its code')}
                  value={code}
                  autoComplete="off"
                  onChange={(e) => setCode(e.target.value)}
                  helperText={t(
                    'Its present seller tells it to you, often under the name of transfer code. It is sealed here, and forgotten once the name has moved.',
                  )}
                />
              )}
              {data.at_home && !barred && (
                <Typography color="textSecondary">
                  {t('It was registered here: it is opened, and its present seller lets it go, by themselves.')}
                </Typography>
              )}
              {data.amount !== null && (
                <Typography sx={{ fontWeight: 600, fontVariantNumeric: 'tabular-nums' }}>
                  {t('{money} with tax; a year more comes with it', { money: formatMoney(data.amount, data.currency) })}
                </Typography>
              )}
              {data.why_not && !barred && <Alert severity="warning">{data.why_not}</Alert>}
            </>
          )}
          {move.error && <Alert severity="error">{move.error.message}</Alert>}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t('Cancel')}</Button>
        <Button
          variant="contained"
          disabled={!ready || move.isPending}
          onClick={() =>
            data && move.mutate({ id: name.id, to: data.to, code, sign: data.sign }, { onSuccess: onClose })
          }>
          {t('Order the move')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
