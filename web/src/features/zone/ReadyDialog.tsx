import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useState } from 'react';

import { asApiError, type ReadySet, type ZoneRecord } from '../../shared/api';
import { focusOnMount } from '../../shared/lib/focusOnMount';
import { t } from '../../shared/texts';
import { useZoneActs } from './useZone';

interface Props {
  id: number;
  set: ReadySet;
  records: ZoneRecord[];
  onPut: (records: ZoneRecord[], gone: ZoneRecord[]) => void;
  onClose: () => void;
}

/** What a ready-made set has to know, before its records are put in. */
export function ReadyDialog({ id, set, records, onPut, onClose }: Props) {
  const narrow = useMediaQuery('(max-width: 600px)');
  const [given, setGiven] = useState<Record<string, string>>({});
  const { ready } = useZoneActs(id);
  const failed = asApiError(ready.error);
  const elsewhere = ready.error && !set.asks.some((one) => failed?.at(`given.${one.code}`));
  const put = () => {
    ready.mutate({ set: set.code, given, records }, { onSuccess: (done) => onPut(done.records, done.gone) });
  };
  return (
    <Dialog open onClose={onClose} fullScreen={narrow} maxWidth="sm" fullWidth aria-labelledby="ready-set">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          put();
        }}>
        <DialogTitle id="ready-set">{set.title}</DialogTitle>
        <DialogContent>
          <Stack sx={{ gap: 1.6, pt: 1 }}>
            <Typography>{set.about}</Typography>
            {set.asks.map((one, place) => (
              <TextField
                key={one.code}
                label={one.needed ? one.title : t('{title} (if any)', { title: one.title })}
                placeholder={one.example}
                {...(place === 0 && { inputRef: focusOnMount })}
                value={given[one.code] ?? ''}
                onChange={(e) => setGiven({ ...given, [one.code]: e.target.value })}
                error={Boolean(failed?.at(`given.${one.code}`))}
                helperText={failed?.at(`given.${one.code}`)}
                slotProps={{ inputLabel: { shrink: true } }}
              />
            ))}
            {elsewhere && <Alert severity="error">{failed?.problems[0]?.message ?? ready.error.message}</Alert>}
          </Stack>
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>{t('Cancel')}</Button>
          <Button type="submit" variant="contained" disabled={ready.isPending}>
            {t('Put the records in')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
