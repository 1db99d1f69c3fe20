import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useEffect, useState } from 'react';

import { asApiError, type Shared } from '../../shared/api';
import { canSpeak, say } from '../../shared/lib/speech';
import { SpeakIcon } from '../../shared/ui/icons';
import type { Under } from './useShared';
import { t } from '../../shared/texts';

const HEARD = 5;
const SHOWN = 6;
const EACH_MS = 1_800;
const LATER_MS = 20_000;

/** The same mixing for the same guest, so that a reload changes nothing. */
export function mixed<T>(items: readonly T[], seed: number): T[] {
  const next = [...items];
  let state = (seed * 2_654_435_761 + 12_345) >>> 0;
  for (let i = next.length - 1; i > 0; i -= 1) {
    state = (state * 1_664_525 + 1_013_904_223) >>> 0;
    const j = state % (i + 1);
    const [a, b] = [next[i], next[j]];
    if (a !== undefined && b !== undefined) [next[i], next[j]] = [b, a];
  }
  return next;
}

interface Props {
  page: Shared;
  under: Under;
  onDone: () => void;
}

/** The browser says a name, the guest writes what they heard. */
export function HearTest({ page, under, onDone }: Props) {
  const [order] = useState(() =>
    mixed(page.names, page.guest ?? 1)
      .filter((n) => !page.heard.includes(n.label))
      .slice(0, HEARD),
  );
  const [at, setAt] = useState(0);
  const [typed, setTyped] = useState('');
  const name = order[at];
  const failed = asApiError(under.hear.error);
  if (!canSpeak())
    return (
      <Alert
        severity="info"
        action={
          <Button color="inherit" onClick={onDone}>
            {t('Go on')}
          </Button>
        }>
        {t('This browser has no voice, so this test is left out.')}
      </Alert>
    );
  if (!name)
    return (
      <Alert
        severity="success"
        action={
          <Button color="inherit" onClick={onDone}>
            {t('Go on')}
          </Button>
        }>
        {t('Thank you. That was the last one.')}
      </Alert>
    );
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    under.hear.mutate(
      { label: name.label, typed },
      {
        onSuccess: () => {
          setTyped('');
          setAt(at + 1);
        },
      },
    );
  };
  return (
    <Stack component="form" noValidate onSubmit={submit} sx={{ gap: 1.5 }}>
      <Typography>
        {t(
          'Name {at} of {order}. Press to hear it, as often as you like, then write it as you would type it into a browser.',
          { at: at + 1, order: order.length },
        )}
      </Typography>
      <Stack direction="row" sx={{ gap: 1, alignItems: 'flex-start', flexWrap: 'wrap' }}>
        <Button variant="outlined" startIcon={<SpeakIcon />} onClick={() => say(name.shown)} sx={{ minHeight: 40 }}>
          {t('Hear the name')}
        </Button>
        <TextField
          label={t('What you heard')}
          value={typed}
          onChange={(e) => setTyped(e.target.value.slice(0, 80))}
          error={Boolean(failed)}
          helperText={failed ? (failed.at('typed') ?? failed.message) : undefined}
          slotProps={{ htmlInput: { autoComplete: 'off', autoCapitalize: 'none', spellCheck: false } }}
        />
        <Button
          type="submit"
          variant="contained"
          disabled={!typed.trim() || under.hear.isPending}
          sx={{ minHeight: 40 }}>
          {t('Next')}
        </Button>
      </Stack>
      <Box>
        <Button onClick={onDone}>{t('Leave the test')}</Button>
      </Box>
    </Stack>
  );
}

/** Shows a few names briefly; after a while asks which are remembered. */
export function RecallTest({ page, under, onDone }: Props) {
  const [shown] = useState(() => mixed(page.names, (page.guest ?? 1) + 7).slice(0, SHOWN));
  const [step, setStep] = useState(-1);
  const [waited, setWaited] = useState(false);
  const [typed, setTyped] = useState('');
  const showing = step >= 0 && step < shown.length;
  useEffect(() => {
    if (!showing) return;
    const timer = setTimeout(() => {
      setStep(step + 1);
    }, EACH_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [showing, step]);
  const over = step >= shown.length;
  useEffect(() => {
    if (!over || waited) return;
    const timer = setTimeout(() => {
      setWaited(true);
    }, LATER_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [over, waited]);
  const failed = asApiError(under.recall.error);
  if (under.recall.data)
    return (
      <Alert
        severity="success"
        action={
          <Button color="inherit" onClick={onDone}>
            {t('Go on')}
          </Button>
        }>
        {t('You remembered {remembered} of {shown}. Thank you.', {
          remembered: under.recall.data.remembered.length,
          shown: shown.length,
        })}
      </Alert>
    );
  if (step < 0)
    return (
      <Stack sx={{ gap: 1.5 }}>
        <Typography>
          {t(
            '{shown} names come one after the other, each for a moment. Half a minute later you are asked which you remember.',
            { shown: shown.length },
          )}
        </Typography>
        <Stack direction="row" sx={{ gap: 1 }}>
          <Button variant="contained" onClick={() => setStep(0)}>
            {t('Show them')}
          </Button>
          <Button onClick={onDone}>{t('Leave the test')}</Button>
        </Stack>
      </Stack>
    );
  if (showing)
    return (
      <Typography
        className="serif"
        aria-live="assertive"
        sx={{ fontSize: '2.6rem', textAlign: 'center', py: 5, overflowWrap: 'anywhere' }}>
        {shown[step]?.shown}
      </Typography>
    );
  if (!waited)
    return (
      <Stack sx={{ gap: 1.5 }}>
        <Typography role="status">
          {t('A short wait. Meanwhile: how many windows does the place you live in have?')}
        </Typography>
        <Box>
          <Button onClick={() => setWaited(true)}>{t('I have counted them')}</Button>
        </Box>
      </Stack>
    );
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    under.recall.mutate({ shown: shown.map((n) => n.label), typed });
  };
  return (
    <Stack component="form" noValidate onSubmit={submit} sx={{ gap: 1.5 }}>
      <TextField
        multiline
        minRows={3}
        label={t('The names you remember, with commas between')}
        value={typed}
        onChange={(e) => setTyped(e.target.value.slice(0, 1000))}
        error={Boolean(failed)}
        helperText={failed?.message ?? t('As well as you can; small slips do not matter.')}
        slotProps={{ htmlInput: { spellCheck: false } }}
      />
      <Stack direction="row" sx={{ gap: 1 }}>
        <Button type="submit" variant="contained" disabled={under.recall.isPending}>
          {t('That is all')}
        </Button>
        <Button onClick={onDone}>{t('Leave the test')}</Button>
      </Stack>
    </Stack>
  );
}
