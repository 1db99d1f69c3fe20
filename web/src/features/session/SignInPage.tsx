import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Link from '@mui/material/Link';
import Paper from '@mui/material/Paper';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useState } from 'react';

import { asApiError } from '../../shared/api';
import { focusOnMount } from '../../shared/lib/focusOnMount';
import { SeamedName } from '../../shared/ui/SeamedName';
import { useSession } from './useSession';
import { t } from '../../shared/texts';

const EXAMPLES = [
  { label: 'inkpost', starts: [0, 3] },
  { label: 'quietsky', starts: [0, 5] },
  { label: 'paperguild', starts: [0, 5] },
];

/** Sign in, sign up, or enter the demo workspace. */
export function SignInPage() {
  const { session, signIn, signUp, enterDemo } = useSession();
  const [isNew, setNew] = useState(false);
  const [username, setUsername] = useState('');
  const [password, setPassword] = useState('');
  const action = isNew ? signUp : signIn;
  const error = asApiError(action.error ?? enterDemo.error);
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    action.mutate({ username, password });
  };
  return (
    <Box component="main" sx={{ minHeight: '100%', display: 'grid', placeItems: 'center', p: 3 }}>
      <Stack direction={{ xs: 'column', md: 'row' }} sx={{ gap: { xs: 4, md: 9 }, alignItems: 'center' }}>
        <Box sx={{ maxWidth: 430 }}>
          <Typography variant="h1" sx={{ fontSize: '2.7rem', color: 'primary.main' }}>
            {t('Vine Tag')}
          </Typography>
          <Typography sx={{ fontSize: '1.08rem', mt: 1, mb: 4, color: 'text.secondary' }}>
            {t(
              'Grow names from your own words, see why each is good, and find out which are free, before you pay for any.',
            )}
          </Typography>
          <Stack direction="row" aria-hidden sx={{ borderTop: 2, borderColor: 'wire', gap: 2.5, pl: 2 }}>
            {EXAMPLES.map((example, i) => (
              <Box
                key={example.label}
                sx={{
                  mt: `${8 + i * 7}px`,
                  position: 'relative',
                  bgcolor: 'background.paper',
                  border: 1,
                  borderColor: 'divider',
                  borderRadius: '4px 4px 14px 14px',
                  px: 2,
                  pt: 2.2,
                  pb: 1.6,
                  '&::before': {
                    content: '""',
                    position: 'absolute',
                    left: '50%',
                    top: `${-(8 + i * 7)}px`,
                    height: `${16 + i * 7}px`,
                    borderLeft: 1,
                    borderColor: 'wire',
                  },
                }}>
                <Box component="span" sx={{ fontSize: '1.15rem' }}>
                  <SeamedName {...example} />
                </Box>
              </Box>
            ))}
          </Stack>
        </Box>
        <Paper component="form" variant="outlined" onSubmit={submit} noValidate sx={{ p: 3.5, width: 350 }}>
          <Stack sx={{ gap: 2 }}>
            <Typography variant="h2">{isNew ? t('Make an account') : t('Sign in')}</Typography>
            {error && error.problems.length === 0 && <Alert severity="error">{error.message}</Alert>}
            <TextField
              label={t('Name')}
              value={username}
              autoComplete="username"
              inputRef={focusOnMount}
              onChange={(e) => setUsername(e.target.value)}
              error={Boolean(error?.at('username'))}
              helperText={error?.at('username')}
            />
            <TextField
              label={t('Password')}
              type="password"
              value={password}
              autoComplete={isNew ? 'new-password' : 'current-password'}
              onChange={(e) => setPassword(e.target.value)}
              error={Boolean(error?.at('password'))}
              helperText={
                error?.at('password') ?? (isNew ? t('At least 8 characters, and not a common one.') : undefined)
              }
            />
            <Button type="submit" variant="contained" size="medium" disabled={action.isPending}>
              {isNew ? t('Make the account') : t('Sign in')}
            </Button>
            <Typography variant="body2" color="textSecondary">
              {isNew ? t('You have an account?') : t('You are new here?')}{' '}
              <Link
                component="button"
                type="button"
                onClick={() => {
                  setNew(!isNew);
                  signIn.reset();
                  signUp.reset();
                }}>
                {isNew ? t('Sign in') : t('Make an account')}
              </Link>
            </Typography>
            {session.data?.demo && (
              <Stack sx={{ borderTop: 1, borderColor: 'divider', pt: 2, gap: 1 }}>
                <Button
                  variant="outlined"
                  color="secondary"
                  size="medium"
                  onClick={() => enterDemo.mutate()}
                  disabled={enterDemo.isPending}>
                  {t('Enter the demo workspace')}
                </Button>
                <Typography variant="body2" color="textSecondary">
                  {t('Three made-up projects, and a simulated world to check names in.')}
                </Typography>
              </Stack>
            )}
          </Stack>
        </Paper>
      </Stack>
    </Box>
  );
}
