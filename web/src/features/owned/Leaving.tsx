import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import type { OwnedName } from '../../shared/api';
import { t } from '../../shared/texts';
import { Traps } from './Traps';
import { useOwnedActs } from './useOwned';

/** Somebody asks to move the name away: it goes, or stays. */
export function Leaving({ name }: { name: OwnedName }) {
  const { leaving } = useOwnedActs();
  const statuses = Array.isArray(name.said.statuses) ? (name.said.statuses as unknown[]) : [];
  if (name.said.by !== 'seller' || !statuses.includes('pendingTransfer')) return null;
  return (
    <Alert
      severity="warning"
      action={
        <>
          <Button
            color="inherit"
            disabled={leaving.isPending}
            onClick={() => leaving.mutate({ id: name.id, allow: false })}>
            {t('Keep it here')}
          </Button>
          <Button
            color="inherit"
            disabled={leaving.isPending}
            onClick={() => leaving.mutate({ id: name.id, allow: true })}>
            {t('Let it move')}
          </Button>
        </>
      }>
      {t('Somebody asks to move it to another seller. If nobody answers within five days, it goes.')}
    </Alert>
  );
}

/** The code by which the name can be moved away, once it is asked for. */
export function Leave({ name }: { name: OwnedName }) {
  const { code } = useOwnedActs();
  if (!code.data)
    return (
      <Button size="small" disabled={code.isPending} onClick={() => code.mutate(name.id)}>
        {t('Its code for moving away')}
      </Button>
    );
  return (
    <Stack sx={{ gap: 1, width: '100%' }}>
      <Traps traps={code.data.traps} />
      <Typography variant="body2" sx={{ overflowWrap: 'anywhere' }}>
        {t('Whoever has this code can ask for the name. Give it to the new seller alone:')}{' '}
        <code>{code.data.code}</code>
      </Typography>
      <Button size="small" sx={{ alignSelf: 'start' }} onClick={() => code.reset()}>
        {t('Hide it')}
      </Button>
    </Stack>
  );
}
