import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useState } from 'react';

import { asApiError } from '../../shared/api';
import { focusOnMount } from '../../shared/lib/focusOnMount';
import { useSession } from './useSession';
import { t } from '../../shared/texts';

/** A session that ended is said over the page, which keeps what was typed. */
export function SignInAgain({ username, asDemo, onLeave }: { username: string; asDemo: boolean; onLeave: () => void }) {
  const { goOn, demoAgain } = useSession();
  const [password, setPassword] = useState('');
  const failed = asApiError(goOn.error ?? demoAgain.error);
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    if (asDemo) demoAgain.mutate();
    else goOn.mutate({ username, password });
  };
  return (
    <Dialog
      open
      slotProps={{ paper: { component: 'form', onSubmit: submit, noValidate: true } as object }}
      aria-labelledby="again-title">
      <DialogTitle id="again-title">{t('Your session has ended')}</DialogTitle>
      <DialogContent>
        <Stack sx={{ gap: 2 }}>
          <Typography>
            {t('Sign in as {username} to go on. What you typed is still on the page behind this.', { username })}
          </Typography>
          {!asDemo && (
            <TextField
              type="password"
              label={t('Password')}
              value={password}
              inputRef={focusOnMount}
              onChange={(e) => setPassword(e.target.value)}
              error={Boolean(failed)}
              helperText={failed ? (failed.at('password') ?? failed.message) : undefined}
              slotProps={{ htmlInput: { autoComplete: 'current-password' } }}
            />
          )}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onLeave}>{t('Leave the page')}</Button>
        <Button type="submit" variant="contained" disabled={goOn.isPending || demoAgain.isPending}>
          {t('Go on')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
