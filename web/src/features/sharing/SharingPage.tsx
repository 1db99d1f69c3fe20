import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useState } from 'react';
import { Link } from 'react-router';

import { asApiError, type Share } from '../../shared/api';
import { formatDay } from '../../shared/lib/format';
import { useOpenProject } from '../../shared/lib/projectContext';
import { EmptyState } from '../../shared/ui/EmptyState';
import { useNotify } from '../../shared/ui/Notices';
import { Results } from './Results';
import { useShares } from './useShares';
import { t } from '../../shared/texts';

const DAY = 86_400_000;
const USUAL_DAYS = 14;
const FIRST = 12;
const isoDay = (moment: Date): string => moment.toISOString().slice(0, 10);

type Shares = ReturnType<typeof useShares>;

function MakeLink({
  kept,
  make,
  project,
}: {
  kept: readonly { label: string; shown: string }[];
  make: Shares['make'];
  project: string;
}) {
  const [title, setTitle] = useState(t('Names for {project}', { project }));
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set(kept.slice(0, FIRST).map((k) => k.label)));
  const [end, setEnd] = useState(() => isoDay(new Date(Date.now() + USUAL_DAYS * DAY)));
  const [vetted, setVetted] = useState(false);
  const failed = asApiError(make.error);
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    make.mutate({
      title,
      labels: kept.filter((k) => chosen.has(k.label)).map((k) => k.label),
      ends_at: `${end}T23:59:00Z`,
      vetted,
    });
  };
  return (
    <Stack
      component="form"
      noValidate
      onSubmit={submit}
      sx={{ gap: 1.5, bgcolor: 'background.paper', border: 1, borderColor: 'divider', borderRadius: 1, p: 2 }}>
      <Typography variant="h2">{t('A new link')}</Typography>
      {failed && failed.problems.length === 0 && <Alert severity="error">{failed.message}</Alert>}
      <TextField
        label={t('What people see above the names')}
        value={title}
        onChange={(e) => setTitle(e.target.value)}
        error={Boolean(failed?.at('title'))}
        helperText={failed?.at('title')}
      />
      <Box component="fieldset" sx={{ border: 0, p: 0, m: 0, minWidth: 0 }}>
        <Typography component="legend" variant="body2" color={failed?.at('labels', true) ? 'error' : 'textSecondary'}>
          {failed?.at('labels', true) ??
            t('{chosen, plural, one {# name} other {# names}} of {kept} shown to them', {
              chosen: chosen.size,
              kept: kept.length,
            })}
        </Typography>
        <Stack direction="row" sx={{ flexWrap: 'wrap', columnGap: 1, maxHeight: 220, overflowY: 'auto' }}>
          {kept.map((k) => (
            <FormControlLabel
              key={k.label}
              sx={{ mr: 1 }}
              label={<span className="serif">{k.shown}</span>}
              control={
                <Checkbox
                  size="small"
                  checked={chosen.has(k.label)}
                  onChange={() => {
                    const next = new Set(chosen);
                    if (!next.delete(k.label)) next.add(k.label);
                    setChosen(next);
                  }}
                />
              }
            />
          ))}
        </Stack>
      </Box>
      <FormControlLabel
        control={<Checkbox size="small" checked={vetted} onChange={(e) => setVetted(e.target.checked)} />}
        label={t('With what vetting found of them')}
      />
      <Stack direction="row" sx={{ gap: 1.5, alignItems: 'flex-start' }}>
        <TextField
          type="date"
          label={t('Ends on')}
          value={end}
          onChange={(e) => setEnd(e.target.value)}
          error={Boolean(failed?.at('ends_at'))}
          helperText={failed?.at('ends_at')}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <Button type="submit" variant="contained" disabled={make.isPending} sx={{ minHeight: 38 }}>
          {t('Make the link')}
        </Button>
      </Stack>
      <Typography variant="caption" color="textSecondary">
        {t(
          'Whoever has the link sees these names, each with the first of your extensions not known to be taken, and what others said, and nothing else of yours. They need no account; they may give a first name.',
        )}
      </Typography>
    </Stack>
  );
}

function OneLink({
  share,
  projectId,
  revoke,
  remove,
}: {
  share: Share;
  projectId: number;
  revoke: Shares['revoke'];
  remove: Shares['remove'];
}) {
  const notify = useNotify();
  const [open, setOpen] = useState(false);
  const [sure, setSure] = useState(false);
  const address = `${window.location.origin}/s/${share.token}`;
  const copy = () => {
    navigator.clipboard.writeText(address).then(
      () => {
        notify(t('The link was copied.'));
      },
      () => {
        notify(t('Copying was not allowed. Mark the link and copy it.'));
      },
    );
  };
  const standing = {
    open: t('open until {endsAt}', { endsAt: formatDay(share.ends_at) }),
    ended: t('ended {endsAt}', { endsAt: formatDay(share.ends_at) }),
    revoked: t('closed by you'),
  }[share.state];
  return (
    <Box
      component="li"
      sx={{
        bgcolor: 'background.paper',
        border: 1,
        borderColor: 'divider',
        borderLeft: 5,
        borderLeftColor: share.state === 'open' ? 'secondary.main' : 'divider',
        borderRadius: 1,
        p: 2,
      }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', gap: 1, flexWrap: 'wrap' }}>
        <Typography variant="h3" component="h2">
          {share.title}
        </Typography>
        <Typography color="textSecondary">
          {t('{labels, plural, one {# name} other {# names}}', { labels: share.labels.length })} ·{' '}
          {t('{people, plural, one {# person} other {# people}}', { people: share.people })} · {standing}
        </Typography>
      </Stack>
      <TextField
        fullWidth
        value={address}
        onFocus={(e) => e.target.select()}
        sx={{ my: 1 }}
        slotProps={{ htmlInput: { readOnly: true, 'aria-label': t('Link of {title}', { title: share.title }) } }}
      />
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <Button variant="contained" onClick={copy} disabled={share.state !== 'open'}>
          {t('Copy the link')}
        </Button>
        <Button variant="outlined" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? t('Hide the answers') : t('See the answers')}
        </Button>
        {share.state === 'revoked' ? (
          <Button variant="outlined" onClick={() => revoke.mutate({ id: share.id, revoked: false })}>
            {t('Open it again')}
          </Button>
        ) : (
          <Button
            variant="outlined"
            disabled={share.state === 'ended'}
            onClick={() => revoke.mutate({ id: share.id, revoked: true })}>
            {t('Close the link')}
          </Button>
        )}
        {sure ? (
          <>
            <Button color="error" onClick={() => remove.mutate(share.id)}>
              {t('Delete it with all answers')}
            </Button>
            <Button onClick={() => setSure(false)}>{t('Leave it')}</Button>
          </>
        ) : (
          <Button onClick={() => setSure(true)}>{t('Delete')}</Button>
        )}
      </Stack>
      {open && (
        <Box sx={{ mt: 2 }}>
          <Results projectId={projectId} shareId={share.id} />
        </Box>
      )}
    </Box>
  );
}

/** Links for people without an account, and what they answered. */
export function SharingPage() {
  const project = useOpenProject();
  const { kept, shares, make, revoke, remove } = useShares(project.id);
  const failed = asApiError(kept.error ?? shares.error);
  return (
    <Box component="main" sx={{ maxWidth: 980, mx: 'auto', px: 2, py: 3 }}>
      <Typography variant="h1">{t('Ask others')}</Typography>
      <Typography color="textSecondary" sx={{ mb: 2 }}>
        {t(
          'They vote, comment, and may take two small tests: writing a name they hear, and remembering names they saw.',
        )}
      </Typography>
      {failed && (
        <EmptyState alert title={t('The links could not be loaded')}>
          {failed.message}
        </EmptyState>
      )}
      {kept.data?.length === 0 && (
        <EmptyState
          title={t('Nothing to show yet')}
          action={
            <Button component={Link} to={`/projects/${project.id}`} variant="contained">
              {t('To the bench')}
            </Button>
          }>
          {t('Keep some names first; then choose here which of them others see.')}
        </EmptyState>
      )}
      {kept.data && kept.data.length > 0 && <MakeLink kept={kept.data} make={make} project={project.name} />}
      <Stack component="ul" aria-label={t('Links')} sx={{ listStyle: 'none', m: 0, mt: 2, p: 0, gap: 1.5 }}>
        {shares.data?.map((share) => (
          <OneLink key={share.id} share={share} projectId={project.id} revoke={revoke} remove={remove} />
        ))}
      </Stack>
    </Box>
  );
}
