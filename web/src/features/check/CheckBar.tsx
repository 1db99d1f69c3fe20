import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import { asApiError, type Check } from '../../shared/api';
import { formatCount, plural } from '../../shared/lib/format';
import { Age } from '../../shared/ui/Age';
import type { CheckControls } from './useCheck';

const BEST = 200;

const unsureNote = (check: Check): string => (check.unsure ? ` · ${formatCount(check.unsure)} unsure` : '');

function timeLeft(check: Check): string {
  if (check.state === 'queued') return 'waiting for a worker';
  if (!check.rate) return 'asking';
  const seconds = Math.ceil((check.total - check.done) / check.rate);
  return `${formatCount(Math.round(check.rate))} a second · ${seconds < 90 ? `${seconds} s` : `${Math.round(seconds / 60)} min`} left`;
}

function Running({ check, onStop, stopping }: { check: Check; onStop: () => void; stopping: boolean }) {
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flex: 1, minWidth: 0 }}>
      <Stack sx={{ flex: 1, minWidth: 0, gap: 0.5 }}>
        <LinearProgress variant="determinate" color="secondary" value={check.total ? (100 * check.done) / check.total : 0} aria-label="Names checked" sx={{ height: 5, borderRadius: 3 }} />
        <Typography variant="caption" role="status" noWrap color="textSecondary">
          {formatCount(check.done)} of {formatCount(check.total)} answered · {timeLeft(check)}{unsureNote(check)}
        </Typography>
      </Stack>
      <Button variant="outlined" onClick={onStop} disabled={stopping}>Stop</Button>
    </Stack>
  );
}

function Rested({ check }: { check: Check | null }) {
  if (!check) return <>Nothing has been asked yet.</>;
  const moment = check.ended_at ?? check.created_at;
  if (check.state === 'stopped') return <>Stopped after {plural(check.done, 'answer')}{unsureNote(check)}, <Age at={moment} />.</>;
  return <>{plural(check.total, 'answer')}{unsureNote(check)}, <Age at={moment} />.</>;
}

/** One button to check the best names, and how far that is. */
export function CheckBar({ controls, names }: { controls: CheckControls; names: number }) {
  const { check, active, start, stop, watchError } = controls;
  if (check && active) return <Running check={check} onStop={() => { stop.mutate(check.id); }} stopping={stop.isPending} />;
  const refused = asApiError(start.error);
  const all = refused?.code === 'fresh' && !start.variables?.labels;
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flex: 1, minWidth: 0, justifyContent: 'flex-end' }}>
      <Typography variant="caption" role="status" color={refused && !all ? 'error' : 'textSecondary'} sx={{ textAlign: 'right', lineHeight: 1.3 }}>
        {refused?.message ?? watchError?.message ?? <Rested check={check} />}
      </Typography>
      {all && <Button onClick={() => { start.mutate({ again: true }); }}>Ask again</Button>}
      <Button variant="contained" sx={{ whiteSpace: 'nowrap', flex: 'none' }} disabled={!names || start.isPending} onClick={() => { start.mutate({}); }}>
        {names > BEST ? `Check the best ${BEST}` : `Check ${plural(names, 'name')}`}
      </Button>
    </Stack>
  );
}
