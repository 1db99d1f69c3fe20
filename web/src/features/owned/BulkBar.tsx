import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import { asApiError } from '../../shared/api';
import { usePreferences } from '../../shared/lib/preferences';
import { useProjectNames } from '../../shared/lib/useProjectNames';
import { t } from '../../shared/texts';
import { useOwnedActs } from './useOwned';

interface Props {
  ids: number[];
  onRenew: () => void;
  onDone: () => void;
}

/** What is done with the chosen names at once. */
export function BulkBar({ ids, onRenew, onDone }: Props) {
  const { change, off, ask, find, lock } = useOwnedActs();
  const { preferences } = usePreferences();
  const projects = useProjectNames();
  const currency = preferences?.currency ?? 'EUR';
  const [tag, setTag] = useState('');
  const [ceiling, setCeiling] = useState<string | null>(null);
  const failed = asApiError(change.error);
  const itself = () => {
    change.mutate({ ids, renewal: 'itself', ceiling, currency }, { onSuccess: () => setCeiling(null) });
  };
  return (
    <Stack
      role="toolbar"
      aria-label={t('With the chosen names')}
      sx={{ gap: 1, p: 1.2, my: 1, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
        <Typography sx={{ fontWeight: 600 }}>
          {t('{count, plural, one {One name} other {# names}} chosen', { count: ids.length })}
        </Typography>
        <Button variant="contained" size="small" onClick={onRenew}>
          {t('Renew …')}
        </Button>
        <TextField
          select
          label={t('Renewal')}
          value=""
          onChange={(e) =>
            e.target.value === 'itself' ? setCeiling('') : change.mutate({ ids, renewal: 'ask', ceiling: null })
          }
          sx={{ width: 115 }}>
          <MenuItem value="ask">{t('ask me first')}</MenuItem>
          <MenuItem value="itself">{t('by itself …')}</MenuItem>
        </TextField>
        <TextField
          select
          label={t('Project')}
          value=""
          onChange={(e) => change.mutate({ ids, project: e.target.value === 'none' ? null : Number(e.target.value) })}
          sx={{ width: 105 }}>
          <MenuItem value="none">{t('none')}</MenuItem>
          {projects.data?.map((one) => (
            <MenuItem key={one.id} value={one.id}>
              {one.name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label={t('Tag')}
          value={tag}
          onChange={(e) => setTag(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter' && tag.trim()) change.mutate({ ids, tag }, { onSuccess: () => setTag('') });
          }}
          sx={{ width: 95 }}
        />
        <Button
          size="small"
          disabled={!tag.trim()}
          onClick={() => change.mutate({ ids, tag }, { onSuccess: () => setTag('') })}>
          {t('Put it on')}
        </Button>
        <Button size="small" disabled={!tag.trim()} onClick={() => change.mutate({ ids, untag: tag })}>
          {t('Take it away')}
        </Button>
        <Button size="small" disabled={ask.isPending} onClick={() => ask.mutate(ids)}>
          {t('Ask the registry')}
        </Button>
        <Button size="small" disabled={find.isPending} onClick={() => find.mutate(ids)}>
          {t('Find at our sellers')}
        </Button>
        <Button size="small" disabled={lock.isPending} onClick={() => lock.mutate({ ids, locked: true })}>
          {t('Lock')}
        </Button>
        <Button size="small" onClick={() => off.mutate(ids, { onSuccess: onDone })}>
          {t('Off the list')}
        </Button>
        <Button size="small" onClick={onDone}>
          {t('Choose none')}
        </Button>
      </Stack>
      {ceiling !== null && (
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}>
          <TextField
            label={t('For up to, a year and name, in {currency}', { currency })}
            value={ceiling}
            onChange={(e) => setCeiling(e.target.value)}
            error={Boolean(failed?.at('ceiling'))}
            helperText={failed?.at('ceiling')}
            sx={{ width: 260 }}
          />
          <Button variant="outlined" onClick={itself}>
            {t('Agree')}
          </Button>
          <Button onClick={() => setCeiling(null)}>{t('Cancel')}</Button>
          <Typography variant="body2" color="textSecondary" sx={{ maxWidth: 420 }}>
            {t(
              'From thirty days before it runs out, each is renewed for a year from the credit with its seller, as long as it costs no more than that. Otherwise you are told.',
            )}
          </Typography>
        </Stack>
      )}
      {change.error && !failed?.at('ceiling') && <Alert severity="error">{change.error.message}</Alert>}
    </Stack>
  );
}
