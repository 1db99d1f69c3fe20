import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';

import { asApiError, type OwnedName } from '../../shared/api';
import { formatDay } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { Age } from '../../shared/ui/Age';
import { Leave, Leaving } from './Leaving';
import { MoveDialog } from './MoveDialog';
import { useOwnedActs } from './useOwned';

const yesNo = (value: unknown): string => {
  if (typeof value !== 'boolean') return '?';
  return value ? t('yes') : t('no');
};
const listed = (value: unknown): string => (Array.isArray(value) && value.length ? value.join(' ') : '–');
const day = (value: unknown): string => (typeof value === 'string' ? formatDay(value) : '?');

/** What we think, and what the registry says, where the two are not the same. */
function differencesOf({ differs, said, ...name }: OwnedName): string[] {
  const words: Record<string, () => string> = {
    nobody: () => t('The registry says that nobody has it.'),
    expires: () =>
      t('Runs out {ours} by the list, {theirs} by the registry.', {
        ours: day(name.expires_at),
        theirs: day(said.expires),
      }),
    seller: () =>
      t('At {ours} by the list, at {theirs} by the registry.', { ours: name.seller, theirs: String(said.registrar) }),
    locked: () =>
      t('Locked: {ours} by the list, {theirs} by the registry.', {
        ours: yesNo(name.locked),
        theirs: yesNo(said.locked),
      }),
    signed: () =>
      t('Signed (DNSSEC): {ours} by the list, {theirs} by the registry.', {
        ours: yesNo(name.signed),
        theirs: yesNo(said.signed),
      }),
    servers: () =>
      t('Name servers {ours} by the list, {theirs} by the registry.', {
        ours: listed(name.servers),
        theirs: listed(said.servers),
      }),
  };
  return differs.map((code) => words[code]?.() ?? code);
}

function LetGo({ name }: { name: OwnedName }) {
  const { letGo } = useOwnedActs();
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState('');
  if (!open)
    return (
      <Button size="small" color="error" onClick={() => setOpen(true)}>
        {t('Let it go …')}
      </Button>
    );
  return (
    <Alert severity="warning" sx={{ width: '100%' }}>
      <Typography sx={{ mb: 1 }}>
        {t(
          'It is deleted at its seller now. Within five days of registering it is free at once, and paid back where the registry does so; later it can be had back for a higher price for some weeks, and then anybody may register it. Sites and mail under it stop.',
        )}
      </Typography>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <TextField
          label={t('Type {name}', { name: name.shown })}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          error={Boolean(letGo.error)}
          helperText={letGo.error?.message}
        />
        <Button color="error" disabled={letGo.isPending || !typed} onClick={() => letGo.mutate({ id: name.id, typed })}>
          {t('Let it go')}
        </Button>
        <Button onClick={() => setOpen(false)}>{t('Keep it')}</Button>
      </Stack>
    </Alert>
  );
}

/** All that is known of one name, and what can be done with it. */
export function OwnedDetails({ name }: { name: OwnedName }) {
  const { takeOver, ask, lock, servers } = useOwnedActs();
  const [typed, setTyped] = useState(name.servers.join(' '));
  const [moving, setMoving] = useState(false);
  const failed = asApiError(servers.error);
  const differences = differencesOf(name);
  return (
    <Stack sx={{ gap: 1.2, py: 1 }}>
      {differences.length > 0 && (
        <Alert
          severity="warning"
          action={
            !name.differs.includes('nobody') && (
              <Button color="inherit" onClick={() => takeOver.mutate([name.id])}>
                {t('Take it over')}
              </Button>
            )
          }>
          {differences.join(' ')}
        </Alert>
      )}
      {name.phase === 'grace' && name.phase_until && (
        <Alert severity="warning">
          {t(
            'It has run out. By the rules of its extension it can be renewed as before until {day} at the latest; its seller may be sooner.',
            {
              day: formatDay(name.phase_until),
            },
          )}
        </Alert>
      )}
      {name.phase === 'redemption' && name.phase_until && (
        <Alert severity="error">
          {t('It was not renewed. It can be had back, for a higher price, until {day} at the latest.', {
            day: formatDay(name.phase_until),
          })}
        </Alert>
      )}
      <Leaving name={name} />
      <Typography variant="body2">
        {[
          t('locked against moving: {value}', { value: yesNo(name.locked) }),
          t('out of the public record: {value}', { value: yesNo(name.privacy) }),
          t('signed (DNSSEC): {value}', { value: yesNo(name.signed) }),
        ].join(' · ')}
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {name.asked_at ? (
          <>
            {t('The registry was asked')} <Age at={name.asked_at} />
          </>
        ) : (
          t('The registry was not asked yet.')
        )}
        {name.trouble && ` ${t('Nothing was found out the last time.')}`}
      </Typography>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <TextField
          label={t('Name servers')}
          placeholder={t('those of the seller')}
          slotProps={{ inputLabel: { shrink: true } }}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          error={Boolean(failed)}
          helperText={failed?.at('servers', true) ?? failed?.message}
          sx={{ minWidth: 260, flex: 1 }}
        />
        <Button
          variant="outlined"
          disabled={servers.isPending || typed.trim() === name.servers.join(' ')}
          onClick={() => servers.mutate({ ids: [name.id], servers: typed.split(/[\s,;]+/).filter(Boolean) })}>
          {t('Set them')}
        </Button>
      </Stack>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <Button size="small" component={Link} to={`/owned/${String(name.id)}/zone`}>
          {t('Records, and what the world sees')}
        </Button>
        <Button size="small" disabled={ask.isPending} onClick={() => ask.mutate([name.id])}>
          {t('Ask the registry now')}
        </Button>
        <Button
          size="small"
          disabled={lock.isPending}
          onClick={() => lock.mutate({ ids: [name.id], locked: !name.locked })}>
          {name.locked ? t('Open it for moving') : t('Lock it')}
        </Button>
        <Button size="small" onClick={() => setMoving(true)}>
          {t('Move it to another seller …')}
        </Button>
        <Leave name={name} />
        <LetGo name={name} />
      </Stack>
      {moving && <MoveDialog name={name} onClose={() => setMoving(false)} />}
    </Stack>
  );
}
