import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import ButtonGroup from '@mui/material/ButtonGroup';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';

import { asApiError, type Check } from '../../shared/api';
import { formatCount, plural } from '../../shared/lib/format';
import { Age } from '../../shared/ui/Age';
import { CheckMenu, type Choices } from './CheckMenu';
import type { CheckControls } from './useCheck';

const BEST = 200;
const none = () => ({});

const listed = (extensions: readonly string[]) =>
  `${extensions
    .slice(0, 3)
    .map((e) => `.${e}`)
    .join(', ')}${extensions.length > 3 ? ` and ${formatCount(extensions.length - 3)} more` : ''}`;

/** How many are unsure, and why when asked. */
function Unsure({ check }: { check: Check }) {
  if (!check.unsure) return null;
  const why = check.troubles.map(({ reason, count }) => `${formatCount(count)}: ${reason}`).join(' ');
  return (
    <>
      {' '}
      ·{' '}
      <Tooltip describeChild title={why}>
        <ButtonBase sx={{ font: 'inherit', textDecoration: 'underline dotted', verticalAlign: 'baseline' }}>
          {formatCount(check.unsure)} unsure
        </ButtonBase>
      </Tooltip>
    </>
  );
}

function timeLeft(check: Check): string {
  if (check.asleep) return 'no worker has taken it up; it goes on by itself as soon as one is there';
  if (check.state === 'queued') return 'waiting for a worker';
  if (check.away.length)
    return `${listed(check.away)} ${check.away.length === 1 ? 'does' : 'do'} not answer just now; their names wait, and are asked by themselves for some minutes`;
  if (!check.rate) return 'asking';
  const seconds = Math.ceil(check.left / check.rate);
  return `${formatCount(Math.round(check.rate))} a second · ${seconds < 90 ? `${seconds} s` : `${Math.round(seconds / 60)} min`} left`;
}

/** How far the check is, and stopping it; nothing while none runs. */
export function CheckRunning({ controls: { check, active, stop } }: { controls: CheckControls }) {
  if (!check || !active) return null;
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flex: 1, minWidth: 0 }}>
      <Stack sx={{ flex: 1, minWidth: 0, gap: 0.5 }}>
        <LinearProgress
          variant="determinate"
          color="secondary"
          value={check.total ? (100 * check.done) / check.total : 0}
          aria-label="Names checked"
          sx={{ height: 5, borderRadius: 3 }}
        />
        <Typography
          variant="caption"
          role="status"
          color="textSecondary"
          sx={{ lineHeight: 1.3, overflowWrap: 'anywhere' }}>
          {formatCount(check.done)} of {formatCount(check.total)} answered · {timeLeft(check)}
          <Unsure check={check} />
        </Typography>
      </Stack>
      <Button variant="outlined" onClick={() => stop.mutate(check.id)} disabled={stop.isPending}>
        Stop
      </Button>
    </Stack>
  );
}

function Rested({ check }: { check: Check | null }) {
  if (!check) return <>Nothing has been asked yet.</>;
  const moment = check.ended_at ?? check.created_at;
  if (check.broken)
    return (
      <>
        The check failed again and again and was stopped after {plural(check.done, 'answer')}, <Age at={moment} />. Go
        on with it later.
      </>
    );
  if (check.state === 'stopped')
    return (
      <>
        Stopped after {plural(check.done, 'answer')}
        <Unsure check={check} />, <Age at={moment} />.
      </>
    );
  return (
    <>
      {plural(check.total, 'answer')}
      <Unsure check={check} />, <Age at={moment} />.
    </>
  );
}

interface Props {
  controls: CheckControls;
  /** How many names are listed. */
  names: number;
  /** What else can be checked from here. */
  choices?: () => Choices;
  /** What the button checks. */
  what?: 'best' | 'pasted';
  /** The note stands somewhere else. */
  noteElsewhere?: boolean;
}

/** What became of the last check, or why the next one was not begun. */
export function CheckNote({ controls }: { controls: CheckControls }) {
  const { check, active, start, goOn, watchError, known } = controls;
  const refused = asApiError(start.error ?? goOn.error);
  if (active || !known) return null;
  return (
    <Typography
      variant="caption"
      role="status"
      color={refused && refused.code !== 'fresh' ? 'error' : 'textSecondary'}
      sx={{ lineHeight: 1.3 }}>
      {refused?.message ?? watchError?.message ?? <Rested check={check} />}
    </Typography>
  );
}

/** One button to check the best names, a menu for the rest, and how far that is. */
export function CheckBar({ controls, names, choices, what = 'best', noteElsewhere = false }: Props) {
  const { check, active, start, goOn } = controls;
  if (active) return <CheckRunning controls={controls} />;
  const refused = asApiError(start.error ?? goOn.error);
  const all = refused?.code === 'fresh' && start.variables?.again !== 'unsure' && !start.variables?.labels;
  const canGoOn = check?.state === 'stopped' && check.left > 0;
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flex: 1, minWidth: 0, justifyContent: 'flex-end' }}>
      {!noteElsewhere && (
        <Box sx={{ textAlign: 'right', minWidth: 0 }}>
          <CheckNote controls={controls} />
        </Box>
      )}
      {all && <Button onClick={() => start.mutate({ ...start.variables, again: 'all' })}>Ask again</Button>}
      {canGoOn && !all && (
        <Button variant="outlined" sx={{ whiteSpace: 'nowrap', flex: 'none' }} onClick={() => goOn.mutate(check.id)}>
          Go on with {formatCount(check.left)}
        </Button>
      )}
      <ButtonGroup variant="contained" sx={{ flex: 'none' }}>
        <Button
          sx={{ whiteSpace: 'nowrap' }}
          disabled={!names || start.isPending}
          onClick={() => start.mutate({ what })}>
          {what === 'best' && names > BEST ? `Check the best ${BEST}` : `Check ${plural(names, 'name')}`}
        </Button>
        <CheckMenu
          choices={choices ?? none}
          what={what}
          disabled={!names || start.isPending}
          onStart={(request) => start.mutate(request)}
        />
      </ButtonGroup>
    </Stack>
  );
}
