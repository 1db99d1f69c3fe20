import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useState } from 'react';

import { asApiError, type WatchWish } from '../../shared/api';
import { concepts } from '../../shared/lib/concepts';
import { t } from '../../shared/texts';
import { useWatching, type Wish } from '../../shared/watching/useWatches';
import { Refused } from '../../shared/watching/WatchButton';
import { usualEnd, WhyAndUntil } from '../../shared/watching/WhyAndUntil';
import { useChoices } from './useWatchList';

type Kind = WatchWish['kind'];
const several = (typed: string) =>
  typed
    .split(/[\s,;]+/)
    .map((one) => one.trim())
    .filter(Boolean);

/** Watching what is typed: names, or what a seller asks. Searches are watched where they are made. */
export function NewWatch({ onDone }: { onDone: () => void }) {
  const { projects, sellers, extensions } = useChoices();
  const { start } = useWatching();
  const [project, setProject] = useState<number | null>(null);
  const [kind, setKind] = useState<Kind>('name');
  const [names, setNames] = useState('');
  const [seller, setSeller] = useState('');
  const [extension, setExtension] = useState('com');
  const [action, setAction] = useState('renew');
  const [reason, setReason] = useState('');
  const [end, setEnd] = useState(usualEnd);
  const failed = asApiError(start.error);
  const chosen = project ?? projects?.[0]?.id;
  const ofNames = concepts().watches.find((one) => one.name === kind)?.of_names ?? true;
  const listed = sellers?.sellers.filter((one) => one.dated) ?? [];
  const typed = several(names);
  // Which of those typed each problem is about.
  const wrong = failed?.problems.filter((p) => p.path.startsWith('names')) ?? [];
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    if (chosen === undefined) return;
    const wish: Wish = ofNames ? { kind, names: typed } : { kind, seller, extension, action };
    start.mutate({ project: chosen, ...wish, reason, ends_on: end }, { onSuccess: onDone });
  };
  if (projects && !projects.length)
    return <Typography color="textSecondary">{t('Make a project first: what is watched belongs to one.')}</Typography>;
  return (
    <Stack
      component="form"
      noValidate
      aria-label={t('Watch something')}
      onSubmit={submit}
      sx={{ gap: 1.5, p: 2, mb: 2, bgcolor: 'background.paper', border: 1, borderColor: 'divider', borderRadius: 1 }}>
      <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap' }}>
        <TextField
          select
          label={t('For the project')}
          value={chosen ?? ''}
          onChange={(e) => setProject(Number(e.target.value))}
          sx={{ minWidth: 180 }}>
          {(projects ?? []).map((one) => (
            <MenuItem key={one.id} value={one.id}>
              {one.name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label={t('What is watched')}
          value={kind}
          onChange={(e) => setKind(e.target.value as Kind)}
          sx={{ minWidth: 180 }}>
          {concepts()
            .watches.filter((one) => one.name !== 'hunt')
            .map((one) => (
              <MenuItem key={one.name} value={one.name}>
                {one.word}
              </MenuItem>
            ))}
        </TextField>
      </Stack>
      <Typography color="textSecondary">{concepts().watches.find((one) => one.name === kind)?.means}</Typography>
      {ofNames ? (
        <TextField
          multiline
          minRows={2}
          maxRows={8}
          label={kind === 'label' ? t('Names, under the extensions of the brief') : t('Full names')}
          placeholder={kind === 'label' ? t('inkpost, paperbarn') : t('inkpost.com, paperbarn.ie')}
          value={names}
          onChange={(e) => setNames(e.target.value)}
          error={wrong.length > 0}
          helperText={
            wrong.length
              ? wrong
                  .slice(0, 5)
                  .map((p) => {
                    const place = Number(p.path.split('.')[1]);
                    return Number.isNaN(place) ? p.message : `${typed[place] ?? ''}: ${p.message}`;
                  })
                  .join(' ')
              : t('{count, plural, =0 {Set apart by blanks, commas or lines} one {# name} other {# names}}', {
                  count: typed.length,
                })
          }
          slotProps={{ inputLabel: { shrink: true } }}
        />
      ) : (
        <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap' }}>
          <TextField
            select
            label={t('Seller')}
            value={seller}
            onChange={(e) => setSeller(e.target.value)}
            error={Boolean(failed?.at('seller'))}
            helperText={failed?.at('seller')}
            sx={{ minWidth: 180 }}>
            {listed.map((one) => (
              <MenuItem key={one.code} value={one.code}>
                {one.name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label={t('Extension')}
            value={extension}
            onChange={(e) => setExtension(e.target.value)}
            error={Boolean(failed?.at('extension'))}
            helperText={failed?.at('extension')}
            sx={{ minWidth: 110 }}>
            {(extensions?.extensions ?? []).map((one) => (
              <MenuItem key={one.extension} value={one.extension}>
                {`.${one.extension}`}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label={t('What it costs to')}
            value={action}
            onChange={(e) => setAction(e.target.value)}
            sx={{ minWidth: 130 }}>
            <MenuItem value="renew">{t('renew')}</MenuItem>
            <MenuItem value="register">{t('register')}</MenuItem>
          </TextField>
        </Stack>
      )}
      <WhyAndUntil reason={reason} end={end} onReason={setReason} onEnd={setEnd} problem={failed?.at('ends_on')} />
      <Refused error={start.error} fields={['ends_on', 'seller', 'extension', ...wrong.map((p) => p.path)]} />
      <Box>
        <Button
          type="submit"
          variant="contained"
          disabled={start.isPending || chosen === undefined || (ofNames ? !typed.length : !seller)}>
          {t('Watch it')}
        </Button>
        <Button onClick={onDone}>{t('Close')}</Button>
      </Box>
    </Stack>
  );
}
