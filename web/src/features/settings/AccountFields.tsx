import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useState } from 'react';

import { asApiError } from '../../shared/api';
import { useAccount } from './useAccount';
import { t } from '../../shared/texts';

/** Another password, signing out everywhere, and leaving; the demo's account, which is everybody's, has none of it. */
export function AccountFields({ demo }: { demo: boolean }) {
  const { change, endAll, leave } = useAccount();
  const [password, setPassword] = useState('');
  const [fresh, setFresh] = useState('');
  const [leaving, setLeaving] = useState(false);
  const [last, setLast] = useState('');
  const refused = asApiError(change.error);
  const kept = asApiError(leave.error);
  if (demo)
    return (
      <Typography color="textSecondary">
        {t(
          'This is the demo workspace: anybody may enter it, and it has no password. Make an account to have projects of your own.',
        )}
      </Typography>
    );
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    change.mutate(
      { password, new: fresh },
      {
        onSuccess: () => {
          setPassword('');
          setFresh('');
        },
      },
    );
  };
  return (
    <Stack sx={{ gap: 2, alignItems: 'flex-start' }}>
      <Stack component="form" noValidate onSubmit={submit} sx={{ gap: 1.5, width: 1, maxWidth: 360 }}>
        <TextField
          type="password"
          label={t('Password now')}
          value={password}
          onChange={(e) => setPassword(e.target.value)}
          error={Boolean(refused?.at('password'))}
          helperText={refused?.at('password')}
          slotProps={{ htmlInput: { autoComplete: 'current-password' } }}
        />
        <TextField
          type="password"
          label={t('New password')}
          value={fresh}
          onChange={(e) => setFresh(e.target.value)}
          error={Boolean(refused?.at('new'))}
          helperText={refused?.at('new') ?? t('At least 8 characters, and not a common one.')}
          slotProps={{ htmlInput: { autoComplete: 'new-password' } }}
        />
        {refused && refused.problems.length === 0 && <Alert severity="error">{refused.message}</Alert>}
        {change.isSuccess && !password && (
          <Alert severity="success">{t('The password is changed. You are signed out everywhere else.')}</Alert>
        )}
        <Button
          type="submit"
          variant="outlined"
          disabled={!password || !fresh || change.isPending}
          sx={{ alignSelf: 'flex-start' }}>
          {t('Change the password')}
        </Button>
      </Stack>
      <Button variant="outlined" disabled={endAll.isPending} onClick={() => endAll.mutate()}>
        {t('Sign out everywhere, here too')}
      </Button>
      {!leaving ? (
        <Button color="error" onClick={() => setLeaving(true)}>
          {t('Delete this account…')}
        </Button>
      ) : (
        <Stack
          component="form"
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            leave.mutate(last);
          }}
          sx={{ gap: 1.5, width: 1, maxWidth: 360 }}>
          <Typography>
            {t(
              'All projects, shortlists and shared links of this account are deleted, and cannot be brought back. Take away as files what you want to keep.',
            )}
          </Typography>
          <TextField
            type="password"
            label={t('Password, to be sure it is you')}
            value={last}
            onChange={(e) => setLast(e.target.value)}
            error={Boolean(kept)}
            helperText={kept?.at('password') ?? kept?.message}
            slotProps={{ htmlInput: { autoComplete: 'current-password' } }}
          />
          <Stack direction="row" sx={{ gap: 1 }}>
            <Button onClick={() => setLeaving(false)}>{t('Keep the account')}</Button>
            <Button type="submit" variant="contained" color="error" disabled={!last || leave.isPending}>
              {t('Delete it for good')}
            </Button>
          </Stack>
        </Stack>
      )}
    </Stack>
  );
}
