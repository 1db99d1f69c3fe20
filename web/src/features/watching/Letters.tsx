import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useState } from 'react';

import { asApiError, type Telling } from '../../shared/api';
import { Age } from '../../shared/ui/Age';
import { rich, t } from '../../shared/texts';
import { useTelling } from './useTelling';

const HOW: readonly (readonly [Telling['how'], string])[] = [
  ['off', t('no letters')],
  ['at_once', t('at once')],
  ['daily', t('once a day')],
];
const STATE: Readonly<Record<Telling['letters'][number]['state'], string>> = {
  waiting: t('waits'),
  sending: t('is being sent'),
  sent: t('sent'),
  unsure: t('may have arrived: the connection broke off'),
  refused: t('refused'),
  failed: t('given up'),
};
const HOURS = Array.from({ length: 24 }, (_, hour) => hour);

/** The last letters, and what became of them. */
function Sent({ letters }: { letters: Telling['letters'] }) {
  if (!letters.length) return null;
  return (
    <Box component="details">
      <summary>{t('The last letters')}</summary>
      <Box component="ul" aria-label={t('The last letters')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {letters.map((one) => (
          <Box
            component="li"
            key={`${one.made_at}${one.subject}`}
            sx={{ py: 0.4, borderBottom: 1, borderColor: 'divider' }}>
            <Typography variant="body2" sx={{ overflowWrap: 'anywhere' }}>
              {one.subject}
            </Typography>
            <Typography variant="caption" color="textSecondary">
              {rich('{state}, {age}', { state: STATE[one.state], age: <Age at={one.sent_at ?? one.made_at} /> })}
              {one.trouble && ` · ${one.trouble}`}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

function Form({ telling, change }: { telling: Telling; change: ReturnType<typeof useTelling>['change'] }) {
  const [address, setAddress] = useState(telling.address);
  const failed = asApiError(change.error);
  const at = failed?.at('address');
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    change.mutate({ address, ...(telling.how === 'off' && address && { how: 'at_once' as const }) });
  };
  return (
    <>
      <Stack component="form" noValidate direction="row" onSubmit={submit} sx={{ gap: 1, alignItems: 'flex-start' }}>
        <TextField
          type="email"
          label={t('Mail address')}
          value={address}
          onChange={(e) => setAddress(e.target.value)}
          error={Boolean(at)}
          helperText={at}
          sx={{ flex: 1 }}
          slotProps={{ htmlInput: { autoComplete: 'email' } }}
        />
        <Button
          type="submit"
          variant="outlined"
          disabled={change.isPending || (address === telling.address && !telling.trouble)}
          sx={{ minHeight: 38 }}>
          {address || !telling.address ? t('Use it') : t('Take it away')}
        </Button>
      </Stack>
      {failed && !at && <Alert severity="error">{failed.problems[0]?.message ?? failed.message}</Alert>}
      {telling.address && !telling.trouble && !telling.confirmed && (
        <Alert severity="info">
          {t('A letter is on its way to {address}. Open the address in it, and letters will come.', {
            address: telling.address,
          })}
        </Alert>
      )}
      {telling.trouble && (
        <Alert severity="warning">
          {t('Letters are held back: the other side said “{trouble}”. Give the address again, or another.', {
            trouble: telling.trouble,
          })}
        </Alert>
      )}
      {telling.address && (
        <Stack direction="row" sx={{ gap: 1 }}>
          <TextField
            select
            label={t('When')}
            value={telling.how}
            onChange={(e) => change.mutate({ how: e.target.value as Telling['how'] })}
            sx={{ flex: 1 }}>
            {HOW.map(([value, word]) => (
              <MenuItem key={value} value={value}>
                {word}
              </MenuItem>
            ))}
          </TextField>
          {telling.how === 'daily' && (
            <TextField
              select
              label={t('From')}
              value={telling.hour}
              onChange={(e) => change.mutate({ hour: Number(e.target.value) })}
              sx={{ width: 110 }}>
              {HOURS.map((hour) => (
                <MenuItem key={hour} value={hour}>
                  {`${String(hour).padStart(2, '0')}:00`}
                </MenuItem>
              ))}
            </TextField>
          )}
        </Stack>
      )}
      {telling.address && (
        <Typography variant="caption" color="textSecondary">
          {t('In the zone {zone}.', { zone: telling.zone })}
        </Typography>
      )}
    </>
  );
}

/** Being written to, at once or once a day. */
export function Letters({ code }: { code: string }) {
  const { telling, change, confirm } = useTelling();
  if (!telling.data) return null;
  if (!telling.data.can_mail)
    return <Typography color="textSecondary">{t('This installation sends no letters.')}</Typography>;
  return (
    <Stack sx={{ gap: 1.4, pt: 0.6 }}>
      {code && !telling.data.confirmed && (
        <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
          <Button variant="contained" disabled={confirm.isPending} onClick={() => confirm.mutate(code)}>
            {t('Yes, write to {address}', { address: telling.data.address })}
          </Button>
        </Stack>
      )}
      {confirm.isError && (
        <Alert severity="error">{asApiError(confirm.error)?.problems[0]?.message ?? confirm.error.message}</Alert>
      )}
      {code && telling.data.confirmed && (
        <Alert severity="success">
          {t('Letters come to {address} from now on.', { address: telling.data.address })}
        </Alert>
      )}
      <Form key={telling.data.address} telling={telling.data} change={change} />
      <Sent letters={telling.data.letters} />
      {telling.data.reader && (
        <Button href={telling.data.reader} target="_blank" rel="noopener" sx={{ alignSelf: 'flex-start' }}>
          {t('Read what the simulated mail server got')}
        </Button>
      )}
    </Stack>
  );
}
