import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useState } from 'react';
import { Link } from 'react-router';

import { asApiError, type WatchedByName, type WatchWish } from '../api';
import { watchKind } from '../lib/concepts';
import { formatDay } from '../lib/format';
import { ChipsField } from '../ui/ChipsField';
import { WatchIcon } from '../ui/icons';
import { rich, t } from '../texts';
import { useWatching, type Wish } from './useWatches';
import { usualEnd, WhyAndUntil } from './WhyAndUntil';

type Kind = WatchWish['kind'];
// Its middle scrolls, so that what ends it stays in sight.
const FORM = { display: 'flex', flexDirection: 'column', minHeight: 0 } as const;
const dotted = (extension: string) => `.${extension}`;

interface Props {
  projectId: number;
  /** As it is written by people. */
  shown: string;
  label: string;
  /** The extension it is looked at with; the others of the brief. */
  extension: string;
  extensions: readonly string[];
  watched?: readonly WatchedByName[];
  variant?: 'outlined' | 'text';
}

/** Whether something is wrong that has no field of its own. */
export function Refused({ error, fields }: { error: unknown; fields: readonly string[] }) {
  const failed = asApiError(error);
  if (!failed) return null;
  const others = failed.problems.filter((p) => !fields.includes(p.path));
  if (failed.problems.length && !others.length) return null;
  return (
    <Alert severity="error">
      {others.length
        ? others.slice(0, 8).map((p) => <div key={`${p.path}${p.code}`}>{p.message}</div>)
        : failed.message}
    </Alert>
  );
}

/** What somebody watches of a name already, one watch a line, whatever it is under. */
function Already({ watched }: { watched: readonly WatchedByName[] }) {
  const { end } = useWatching();
  if (!watched.length) return null;
  const watches = [...new Set(watched.map((one) => one.watch))].map((id) => watched.filter((one) => one.watch === id));
  return (
    <Box component="ul" aria-label={t('Watched already')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {watches.map((under) => {
        const [one] = under;
        if (!one) return null;
        const extensions = under.map((each) => dotted(each.extension)).join(' ');
        return (
          <Stack
            key={one.watch}
            component="li"
            direction="row"
            sx={{ gap: 1, alignItems: 'baseline', borderBottom: 1, borderColor: 'divider', py: 0.4 }}>
            <Typography sx={{ flex: 1 }}>
              {rich('<b>{extensions}</b>, {kind}, until {end}', {
                extensions,
                kind: watchKind(one.kind)?.word ?? one.kind,
                end: formatDay(one.ends_on),
                b: (it) => <strong>{it}</strong>,
              })}
              {one.reason && ` · ${one.reason}`}
            </Typography>
            <Button size="small" onClick={() => end({ id: one.watch, title: extensions })}>
              {t('End it')}
            </Button>
          </Stack>
        );
      })}
    </Box>
  );
}

function WatchForm({
  projectId,
  shown,
  label,
  extension,
  extensions,
  watched = [],
  onDone,
}: Props & { onDone: () => void }) {
  const { start } = useWatching();
  const [kind, setKind] = useState<Kind>('name');
  const [under, setUnder] = useState<readonly string[]>(extensions);
  const [reason, setReason] = useState('');
  const [end, setEnd] = useState(usualEnd);
  const failed = asApiError(start.error);
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    const wish: Wish =
      kind === 'label' ? { kind, names: [label], extensions: [...under] } : { kind, names: [`${label}.${extension}`] };
    start.mutate({ project: projectId, ...wish, reason, ends_on: end }, { onSuccess: onDone });
  };
  return (
    <Box component="form" noValidate onSubmit={submit} sx={FORM}>
      <DialogTitle>{t('Watch {shown}', { shown })}</DialogTitle>
      <DialogContent>
        <Stack sx={{ gap: 1.5, pt: 0.5 }}>
          <Already watched={watched} />
          <Refused error={start.error} fields={['ends_on', 'extensions']} />
          <ToggleButtonGroup
            exclusive
            size="small"
            value={kind}
            aria-label={t('What is watched')}
            onChange={(_, next: Kind | null) => {
              if (next) setKind(next);
            }}>
            <ToggleButton value="name" sx={{ textTransform: 'none' }}>
              {`${shown}.${extension}`}
            </ToggleButton>
            <ToggleButton value="label" sx={{ textTransform: 'none' }}>
              {t('under extensions')}
            </ToggleButton>
            <ToggleButton value="expiry" sx={{ textTransform: 'none' }}>
              {t('its running out')}
            </ToggleButton>
          </ToggleButtonGroup>
          <Typography color="textSecondary">{watchKind(kind)?.means}</Typography>
          {kind === 'label' && (
            <ChipsField
              label={t('Under which extensions')}
              value={under}
              onChange={setUnder}
              options={extensions}
              show={dotted}
              error={failed?.at('extensions', true)}
            />
          )}
          <WhyAndUntil reason={reason} end={end} onReason={setReason} onEnd={setEnd} problem={failed?.at('ends_on')} />
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button component={Link} to="/watching" sx={{ mr: 'auto' }}>
          {t('All you watch')}
        </Button>
        <Button onClick={onDone}>{t('Close')}</Button>
        <Button type="submit" variant="contained" disabled={start.isPending || (kind === 'label' && !under.length)}>
          {t('Watch it')}
        </Button>
      </DialogActions>
    </Box>
  );
}

/** Has a name watched, and says whether it is. */
export function WatchButton({ variant = 'outlined', ...props }: Props) {
  const [open, setOpen] = useState(false);
  const on = (props.watched?.length ?? 0) > 0;
  const close = () => setOpen(false);
  return (
    <>
      <Button
        variant={variant}
        startIcon={<WatchIcon />}
        aria-haspopup="dialog"
        color={on ? 'secondary' : 'primary'}
        onClick={() => setOpen(true)}>
        {on ? t('Watched') : t('Watch')}
      </Button>
      <Dialog open={open} onClose={close} fullWidth maxWidth="sm">
        {open && <WatchForm {...props} onDone={close} />}
      </Dialog>
    </>
  );
}

interface PlainProps {
  projectId: number;
  /** What is watched, but for why and until when. */
  wish: Wish;
  /** What the button says, and the dialog is called. */
  word: string;
  variant?: 'outlined' | 'text';
}

function PlainForm({ projectId, wish, word, onDone }: PlainProps & { onDone: () => void }) {
  const { start } = useWatching();
  const [title, setTitle] = useState('');
  const [reason, setReason] = useState('');
  const [end, setEnd] = useState(usualEnd);
  const failed = asApiError(start.error);
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    start.mutate({ project: projectId, ...wish, title, reason, ends_on: end }, { onSuccess: onDone });
  };
  return (
    <Box component="form" noValidate onSubmit={submit} sx={FORM}>
      <DialogTitle>{word}</DialogTitle>
      <DialogContent>
        <Stack sx={{ gap: 1.5, pt: 0.5 }}>
          <Typography color="textSecondary">
            {watchKind(wish.kind)?.means}
            {wish.names &&
              ` ${t('{count, plural, one {# full name} other {# full names}}', { count: wish.names.length })}`}
          </Typography>
          <Refused error={start.error} fields={['ends_on', 'title']} />
          <TextField
            label={t('What it is called')}
            value={title}
            onChange={(e) => setTitle(e.target.value)}
            slotProps={{ htmlInput: { maxLength: 120 } }}
          />
          <WhyAndUntil reason={reason} end={end} onReason={setReason} onEnd={setEnd} problem={failed?.at('ends_on')} />
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onDone}>{t('Close')}</Button>
        <Button type="submit" variant="contained" disabled={start.isPending}>
          {t('Watch it')}
        </Button>
      </DialogActions>
    </Box>
  );
}

/** Has something watched as a whole: a search of the hunt, or many names. */
export function WatchAllButton({ variant = 'text', ...props }: PlainProps) {
  const [open, setOpen] = useState(false);
  const close = () => setOpen(false);
  return (
    <>
      <Button variant={variant} startIcon={<WatchIcon />} aria-haspopup="dialog" onClick={() => setOpen(true)}>
        {props.word}
      </Button>
      <Dialog open={open} onClose={close} fullWidth maxWidth="sm">
        {open && <PlainForm {...props} onDone={close} />}
      </Dialog>
    </>
  );
}
