import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import { asApiError, type VettingRun } from '../../shared/api';
import { t } from '../../shared/texts';
import { isRunning, type useVettingActs } from './useVetting';

interface Props {
  run: VettingRun | null;
  acts: ReturnType<typeof useVettingActs>;
  /** How many names there are. */
  names: number;
}

/** Vetting all of the shortlist, how far that is, and stopping it. */
export function RunBar({ run, acts: { start, stop, goOn }, names }: Props) {
  const refused = asApiError(start.error ?? goOn.error ?? stop.error);
  if (run && isRunning(run))
    return (
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flex: 1, minWidth: 240 }}>
        <Stack sx={{ flex: 1, gap: 0.5, minWidth: 0 }}>
          <LinearProgress
            variant="determinate"
            color="secondary"
            aria-label={t('Vetted')}
            value={run.total ? (100 * run.done) / run.total : 0}
            sx={{ height: 5, borderRadius: 3 }}
          />
          <Typography variant="caption" role="status" color="textSecondary">
            {t('{done, number} of {total, number} steps', { done: run.done, total: run.total })}
            {run.asleep && ` · ${t('no worker has taken it up; it goes on by itself as soon as one is there')}`}
          </Typography>
        </Stack>
        <Button variant="outlined" onClick={() => stop.mutate(run.id)} disabled={stop.isPending}>
          {t('Stop')}
        </Button>
      </Stack>
    );
  const canGoOn = run?.state === 'stopped' && run.left > 0;
  const fresh = refused?.code === 'fresh';
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
      {(refused ?? (run?.broken && canGoOn)) && (
        <Typography variant="caption" role="status" color={refused && !fresh ? 'error' : 'textSecondary'}>
          {refused
            ? (refused.problems[0]?.message ?? refused.message)
            : t('Vetting failed again and again and was stopped. Go on with it later.')}
        </Typography>
      )}
      {canGoOn && (
        <Button variant="outlined" onClick={() => goOn.mutate(run.id)} disabled={goOn.isPending}>
          {t('Go on with {left, number}', { left: run.left })}
        </Button>
      )}
      {fresh && (
        <Button variant="outlined" onClick={() => start.mutate({ ...start.variables, again: 'all' })}>
          {t('Vet all of it again')}
        </Button>
      )}
      <Button variant="contained" disabled={!names || start.isPending} onClick={() => start.mutate({})}>
        {t('Vet {names, plural, one {the name} other {# names}}', { names })}
      </Button>
    </Stack>
  );
}
