import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import ButtonGroup from '@mui/material/ButtonGroup';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';

import { asApiError, type Check } from '../../shared/api';
import { formatCount } from '../../shared/lib/format';
import { Age } from '../../shared/ui/Age';
import { CheckMenu, type Choices } from './CheckMenu';
import type { CheckControls } from './useCheck';
import { rich, t } from '../../shared/texts';

const BEST = 200;
const none = () => ({});

const listed = (extensions: readonly string[]) => {
  const first = extensions
    .slice(0, 3)
    .map((e) => `.${e}`)
    .join(', ');
  return extensions.length > 3 ? t('{first} and {more, number} more', { first, more: extensions.length - 3 }) : first;
};

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
          {t('{unsure, number} unsure', { unsure: check.unsure })}
        </ButtonBase>
      </Tooltip>
    </>
  );
}

function timeLeft(check: Check): string {
  if (check.asleep) return t('no worker has taken it up; it goes on by itself as soon as one is there');
  if (check.state === 'queued') return t('waiting for a worker');
  if (check.away.length)
    return t(
      '{extensions} {n, plural, one {does} other {do}} not answer just now; their names wait, and are asked by themselves for some minutes',
      { extensions: listed(check.away), n: check.away.length },
    );
  if (!check.rate) return t('asking');
  const seconds = Math.ceil(check.left / check.rate);
  const rate = Math.round(check.rate);
  return seconds < 90
    ? t('{rate, number} a second · {seconds, number} s left', { rate, seconds })
    : t('{rate, number} a second · {minutes, number} min left', { rate, minutes: Math.round(seconds / 60) });
}

/** How far the check is, and stopping it; nothing while none runs. */
export function CheckRunning({ controls: { check, active, stop } }: { controls: CheckControls }) {
  if (!check || !active) return null;
  const notStopped = asApiError(stop.error);
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flex: 1, minWidth: 0 }}>
      <Stack sx={{ flex: 1, minWidth: 0, gap: 0.5 }}>
        <LinearProgress
          variant="determinate"
          color="secondary"
          value={check.total ? (100 * check.done) / check.total : 0}
          aria-label={t('Names checked')}
          sx={{ height: 5, borderRadius: 3 }}
        />
        <Typography
          variant="caption"
          role="status"
          color="textSecondary"
          sx={{ lineHeight: 1.3, overflowWrap: 'anywhere' }}>
          {t('{done, number} of {total, number} answered', { done: check.done, total: check.total })} ·{' '}
          {timeLeft(check)}
          <Unsure check={check} />
        </Typography>
        {notStopped && (
          <Typography variant="caption" role="alert" color="error">
            {notStopped.message}
          </Typography>
        )}
      </Stack>
      <Button variant="outlined" onClick={() => stop.mutate(check.id)} disabled={stop.isPending}>
        {t('Stop')}
      </Button>
    </Stack>
  );
}

function Rested({ check }: { check: Check | null }) {
  if (!check) return <>{t('Nothing has been asked yet.')}</>;
  const moment = check.ended_at ?? check.created_at;
  if (check.broken)
    return (
      <>
        {rich(
          'The check failed again and again and was stopped after {done, plural, one {# answer} other {# answers}}, {age}. Go on with it later.',
          { done: check.done, age: <Age at={moment} /> },
        )}
      </>
    );
  if (check.state === 'stopped')
    return (
      <>
        {rich('Stopped after {done, plural, one {# answer} other {# answers}}{unsure}, {age}.', {
          done: check.done,
          unsure: <Unsure check={check} />,
          age: <Age at={moment} />,
        })}
      </>
    );
  return (
    <>
      {t('{total, plural, one {# answer} other {# answers}}', { total: check.total })}
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
      {all && <Button onClick={() => start.mutate({ ...start.variables, again: 'all' })}>{t('Ask again')}</Button>}
      {canGoOn && !all && (
        <Button variant="outlined" sx={{ whiteSpace: 'nowrap', flex: 'none' }} onClick={() => goOn.mutate(check.id)}>
          {t('Go on with {left, number}', { left: check.left })}
        </Button>
      )}
      <ButtonGroup variant="contained" sx={{ flex: 'none' }}>
        <Button
          sx={{ whiteSpace: 'nowrap' }}
          disabled={!names || start.isPending}
          onClick={() => start.mutate({ what })}>
          {what === 'best' && names > BEST
            ? t('Check the best {best}', { best: BEST })
            : t('Check {names, plural, one {# name} other {# names}}', { names })}
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
