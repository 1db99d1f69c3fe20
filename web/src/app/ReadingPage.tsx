import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useCallback, useEffect, useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';

import { Measures } from '../features/reasons/Measures';
import { Origin } from '../features/reasons/ReasonsPanel';
import { Misspellings, Warnings } from '../features/reasons/Warnings';
import { activeFilters } from '../features/sheet/activeFilters';
import { useQuestion } from '../features/sheet/useQuestion';
import { asApiError } from '../shared/api';
import type { Doing } from '../shared/lib/acts';
import { formatCount } from '../shared/lib/format';
import { useCommands } from '../shared/lib/keymap';
import { useOpenProject } from '../shared/lib/projectContext';
import { say } from '../shared/lib/speech';
import { useActs } from '../shared/lib/useActs';
import { useName } from '../shared/lib/useName';
import { usePrefetch, useLabels } from './useReading';
import { EmptyState } from '../shared/ui/EmptyState';
import { Key } from '../shared/ui/Key';
import { SayButton } from '../shared/ui/SayButton';
import { SeamedName } from '../shared/ui/SeamedName';
import { shownStatus } from '../shared/ui/status';
import { StatusMark } from '../shared/ui/StatusMark';
import { LoadFailed } from '../shared/ui/LoadFailed';
import { rich, t } from '../shared/texts';

const AHEAD = 4;

/** Where one was in a list, for next time. */
const place = {
  key: (projectId: number, search: string) => `vinetag.reading.${projectId}.${search}`,
  read: (projectId: number, search: string): string | null => {
    try {
      return localStorage.getItem(place.key(projectId, search));
    } catch {
      return null;
    }
  },
  write: (projectId: number, search: string, label: string) => {
    try {
      localStorage.setItem(place.key(projectId, search), label);
    } catch {
      /* storage is closed: the next visit begins at the top */
    }
  },
};

type Verdict = Extract<Doing, 'keep' | 'dismiss' | 'later'>;
const SAID: Record<Verdict, string> = { keep: 'kept', dismiss: 'dropped', later: 'later' };

/** One name at a time, large; a key keeps it, drops it or puts it by, and the next one comes. */
export function ReadingPage() {
  const project = useOpenProject();
  const navigate = useNavigate();
  const { search, state } = useLocation() as { search: string; state: { from?: string | null } | null };
  const from = state?.from ?? null;
  const [question] = useQuestion();
  const { act, undo } = useActs(project.id);
  const { data: labels, error, refetch } = useLabels(project.id, question, search);
  const [at, setAt] = useState<number | null>(null);
  const [judged, setJudged] = useState<readonly (readonly [number, Verdict])[]>([]);
  const [why, setWhy] = useState(false);
  // From the name one comes from, else from where one was last time.
  const begun = labels
    ? [from, place.read(project.id, search)]
        .map((one) => (one === null ? -1 : labels.indexOf(one)))
        .find((index) => index >= 0)
    : undefined;
  const here = at ?? begun ?? 0;
  const label = labels?.[here] ?? null;
  const { data, isPlaceholderData } = useName(project.id, label);
  const name = isPlaceholderData ? undefined : data;
  useEffect(() => {
    if (!labels || label === null) return;
    place.write(project.id, search, label);
  }, [labels, label, project.id, search]);
  usePrefetch(project.id, labels, here + 1, AHEAD);
  const go = useCallback(
    (to: number) => {
      setAt(Math.max(0, Math.min(labels?.length ?? 0, to)));
    },
    [labels],
  );
  const judge = useCallback(
    (verdict: Verdict) => {
      if (label === null) return;
      void act(verdict, [label], name ? [name] : []);
      setJudged((all) => [...all, [here, verdict]]);
      go(here + 1);
    },
    [act, go, here, label, name],
  );
  const pass = useCallback(() => {
    if (label !== null && name?.verdict === '') void act('seen', [label]);
    go(here + 1);
  }, [act, go, here, label, name]);
  const takeBack = useCallback(() => {
    const last = judged.at(-1);
    if (!last) return;
    setJudged((all) => all.slice(0, -1));
    go(last[0]);
    void undo();
  }, [go, judged, undo]);
  const bench = `/projects/${project.id}${search}`;
  useCommands('reading', (command, event) => {
    // A button that has the focus is pressed by these itself.
    const onButton = event.target instanceof HTMLElement && ['BUTTON', 'A'].includes(event.target.tagName);
    if (onButton && (event.key === ' ' || event.key === 'Enter')) return false;
    if (command === 'pass') pass();
    else if (command === 'back') go(here - 1);
    else if (command === 'takeBack') takeBack();
    else if (command === 'why') setWhy((on) => !on);
    else if (command === 'say') {
      if (label) say(label);
    } else if (command === 'leave') void navigate(bench);
    else judge(command);
    return true;
  });
  const failed = asApiError(error);
  if (failed) return <LoadFailed title={t('The names could not be loaded')} error={failed} onRetry={refetch} />;
  if (!labels) return <LinearProgress aria-label={t('Loading the names')} />;
  const back = (
    <Button component={Link} to={bench}>
      {t('Back to the bench')}
    </Button>
  );
  if (labels.length === 0)
    return (
      <EmptyState title={t('No name to read')} action={back}>
        {t('The filters leave none. Take some away at the bench.')}
      </EmptyState>
    );
  const counts = (['keep', 'later', 'dismiss'] as const)
    .map((v) => `${formatCount(judged.filter(([, one]) => one === v).length)} ${SAID[v]}`)
    .join(' · ');
  const filters = activeFilters(question)
    .map((f) => f.word)
    .join(', ');
  return (
    <Box
      component="main"
      sx={{
        maxWidth: 900,
        mx: 'auto',
        px: 2,
        py: 2,
        minHeight: '100%',
        display: 'grid',
        gridTemplateRows: 'auto 1fr auto',
        gap: 2,
      }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'baseline', flexWrap: 'wrap', gap: 1 }}>
        {back}
        <Typography color="textSecondary" role="status">
          {label === null
            ? t('done')
            : t('{here, number} of {labels, plural, one {# name} other {# names}}', {
                here: here + 1,
                labels: labels.length,
              })}
          {filters && ` · ${filters}`} · {counts}
        </Typography>
      </Stack>
      {label === null ? (
        <EmptyState
          title={t('That was the last of them')}
          action={
            <Stack direction="row" sx={{ gap: 1 }}>
              <Button variant="contained" component={Link} to={`/projects/${project.id}/shortlist`}>
                {t('To the shortlist')}
              </Button>
              <Button variant="outlined" onClick={() => go(0)}>
                {t('From the top again')}
              </Button>
            </Stack>
          }>
          {counts}
        </EmptyState>
      ) : (
        <Box sx={{ alignSelf: why ? 'start' : 'center', textAlign: 'center', minWidth: 0 }}>
          <Typography
            component="h1"
            aria-live="polite"
            sx={{ fontSize: { xs: '2.4rem', sm: '4.4rem' }, lineHeight: 1.15, overflowWrap: 'anywhere' }}>
            {name ? (
              <SeamedName label={label} starts={name.parts.map((p) => p.start)} />
            ) : (
              <span className="serif">{label}</span>
            )}
            {project.brief.extensions[0] && (
              <Box component="span" className="serif" sx={{ color: 'text.secondary', fontSize: '0.45em' }}>
                .{project.brief.extensions[0]}
              </Box>
            )}
          </Typography>
          <Stack
            direction="row"
            component="ul"
            aria-label={t('Statuses')}
            sx={{
              m: 0,
              mt: 1.5,
              p: 0,
              listStyle: 'none',
              gap: 2.5,
              justifyContent: 'center',
              flexWrap: 'wrap',
              minHeight: 24,
            }}>
            {name && (
              <li>
                {rich('grade {strong}', {
                  strong: <strong>{name.grade === null ? '–' : Math.round(name.grade)}</strong>,
                })}
              </li>
            )}
            {name &&
              project.brief.extensions.slice(0, 5).map((extension) => {
                const cell = name.cells.find((c) => c.extension === extension);
                return (
                  <li key={extension}>
                    .{extension} <StatusMark status={shownStatus(cell)} likely={cell?.likely ?? false} />
                  </li>
                );
              })}
            {name && project.brief.extensions.length > 5 && (
              <li
                title={project.brief.extensions
                  .slice(5)
                  .map((e) => `.${e}`)
                  .join(' ')}>
                +{project.brief.extensions.length - 5}
              </li>
            )}
          </Stack>
          {why && name && (
            <Stack sx={{ textAlign: 'left', maxWidth: 520, mx: 'auto', mt: 3, gap: 1.5 }}>
              <Origin name={name} />
              <Warnings name={name} />
              <Measures name={name} />
              <Misspellings name={name} onSelect={(other) => void navigate(`/projects/${project.id}/names/${other}`)} />
            </Stack>
          )}
        </Box>
      )}
      {label !== null && (
        <Stack
          sx={{
            gap: 1,
            position: 'sticky',
            bottom: 0,
            bgcolor: 'background.default',
            py: 1.5,
            borderTop: 1,
            borderColor: 'divider',
          }}>
          <Stack direction="row" sx={{ gap: 1, justifyContent: 'center', flexWrap: 'wrap' }}>
            <Button size="large" variant="outlined" onClick={() => judge('dismiss')}>
              {rich('Drop {key}', { key: <Key place="reading" of="dismiss" /> })}
            </Button>
            <Button size="large" variant="outlined" onClick={() => judge('later')}>
              {rich('Later {key}', { key: <Key place="reading" of="later" /> })}
            </Button>
            <Button size="large" variant="contained" color="secondary" onClick={() => judge('keep')}>
              {rich('Keep {key}', { key: <Key place="reading" of="keep" /> })}
            </Button>
          </Stack>
          <Stack direction="row" sx={{ gap: 1, justifyContent: 'center', flexWrap: 'wrap' }}>
            <Button disabled={here === 0} onClick={() => go(here - 1)}>
              {rich('Back {key}', { key: <Key place="reading" of="back" /> })}
            </Button>
            <Button disabled={!judged.length} onClick={takeBack}>
              {rich('Undo {key}', { key: <Key place="reading" of="takeBack" /> })}
            </Button>
            <Button aria-expanded={why} onClick={() => setWhy(!why)}>
              {rich('Why {key}', { key: <Key place="reading" of="why" /> })}
            </Button>
            <SayButton text={label} />
            <Button onClick={pass}>{rich('Next {key}', { key: <Key place="reading" of="pass" /> })}</Button>
          </Stack>
        </Stack>
      )}
    </Box>
  );
}
