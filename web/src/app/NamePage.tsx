import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Link, useNavigate, useParams } from 'react-router';

import { useCheck } from '../features/check/useCheck';
import { OffersOfName } from '../features/hunt/OffersOfName';
import { Measures } from '../features/reasons/Measures';
import { NearNames } from '../features/reasons/NearNames';
import { Origin } from '../features/reasons/ReasonsPanel';
import { Statuses } from '../features/reasons/Statuses';
import { Mistyped } from '../features/reasons/Mistyped';
import { Misspellings, Warnings } from '../features/reasons/Warnings';
import { LookedFor } from '../features/phrases/LookedFor';
import { NoteField } from '../features/shortlist/NoteField';
import { TagsField } from '../features/shortlist/TagsField';
import { useShortlist } from '../features/shortlist/useShortlist';
import { Vetted } from '../features/vetting/Vetted';
import { asApiError, type Judged } from '../shared/api';
import { BasketButton } from '../shared/basket/BasketButton';
import { formatMoment, withDays } from '../shared/lib/format';
import { withOwn } from '../shared/lib/fullName';
import { useOpenProject } from '../shared/lib/projectContext';
import { useActs } from '../shared/lib/useActs';
import { useName } from '../shared/lib/useName';
import { Age } from '../shared/ui/Age';
import { EmptyState } from '../shared/ui/EmptyState';
import { Going } from '../shared/ui/Going';
import { TagFilledIcon, TagIcon } from '../shared/ui/icons';
import { useNotify } from '../shared/ui/Notices';
import { SayButton } from '../shared/ui/SayButton';
import { SeamedName } from '../shared/ui/SeamedName';
import { StatusMark } from '../shared/ui/StatusMark';
import { rich, t } from '../shared/texts';
import { WatchButton } from '../shared/watching/WatchButton';

function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ mb: 3 }}>
      <Typography variant="h3" component="h2" sx={{ mb: 0.8 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

/** Who holds it and until when, by the public record, for every extension that has one. */
function Records({ name }: { name: Judged }) {
  const records = name.evidence.filter((e) => e.record.length > 0);
  if (!records.length)
    return <Typography color="textSecondary">{t('No registry has shown a registration of this name.')}</Typography>;
  return records.map((e) => (
    <Box key={e.extension} sx={{ mb: 1 }}>
      <strong>
        {name.shown}.{e.extension}
      </strong>{' '}
      <Typography component="span" variant="caption" color="textSecondary">
        {rich('as of {age}', { age: <Age at={e.at} /> })}
      </Typography>
      <Typography variant="body2">{withDays(e.record.join(' '))}</Typography>
    </Box>
  ));
}

/** What was found out when, the latest first. */
function History({ name }: { name: Judged }) {
  const now = name.cells
    .filter((c) => c.asked_at && !c.pending)
    .map((c) => ({
      extension: c.extension,
      status: c.status,
      likely: c.likely,
      reason: c.reason,
      at: c.asked_at ?? '',
    }));
  const before = name.history.map((h) => ({
    extension: h.extension,
    status: h.status,
    likely: h.likely,
    reason: h.reason,
    at: h.asked_at,
  }));
  const events = [...now, ...before].sort((a, b) => b.at.localeCompare(a.at));
  if (!events.length)
    return <Typography color="textSecondary">{t('Nothing has been asked about this name yet.')}</Typography>;
  return (
    <Box component="ol" aria-label={t('What was found out')} sx={{ m: 0, p: 0, listStyle: 'none', fontSize: '0.9rem' }}>
      {events.map((one) => (
        <Stack
          component="li"
          key={`${one.extension}${one.at}`}
          direction="row"
          sx={{ gap: 1, py: 0.3, borderTop: 1, borderColor: 'divider', alignItems: 'baseline' }}>
          <Box component="span" sx={{ minWidth: 74, fontWeight: 600 }}>
            .{one.extension}
          </Box>
          <Box component="span" title={one.reason} sx={{ minWidth: 90 }}>
            <StatusMark status={one.status} likely={one.likely} />
          </Box>
          <Typography variant="caption" color="textSecondary">
            {formatMoment(one.at)}
          </Typography>
        </Stack>
      ))}
    </Box>
  );
}

function Shelf({ name, projectId, extensions }: { name: Judged; projectId: number; extensions: readonly string[] }) {
  const { list, settle } = useShortlist(projectId);
  if (!name.kept)
    return (
      <Typography color="textSecondary">{t('Not on the shortlist. Keep it to write a note or set tags.')}</Typography>
    );
  const known = [...new Set(list.data?.flatMap((k) => k.tags) ?? [])];
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Typography color="textSecondary">
        {rich(name.place ? 'Number {place, number} on the <link>shortlist</link>' : 'On the <link>shortlist</link>', {
          place: name.place,
          link: (it) => (
            <Box component={Link} to={`/projects/${projectId}/shortlist`} sx={{ color: 'secondary.main' }}>
              {it}
            </Box>
          ),
        })}
      </Typography>
      <TextField
        select
        label={t('Kept as')}
        value={name.extension}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        onChange={(e) => settle.mutate({ label: name.label, extension: e.target.value, seen: name.extension })}>
        <MenuItem value="">{t('{shown}, the name alone', { shown: name.shown })}</MenuItem>
        {withOwn(extensions, name.extension).map((e) => (
          <MenuItem key={e} value={e}>
            {name.shown}.{e}
          </MenuItem>
        ))}
      </TextField>
      <TagsField projectId={projectId} label={name.label} shown={name.shown} tags={name.tags} known={known} />
      <NoteField key={name.label} projectId={projectId} label={name.label} shown={name.shown} note={name.note} />
    </Stack>
  );
}

/** Everything known about one name, at an address of its own. */
export function NamePage() {
  const project = useOpenProject();
  const label = useParams().label ?? '';
  const { extensions } = project.brief;
  const { data: name, error, isPlaceholderData, refetch } = useName(project.id, label);
  const { act } = useActs(project.id);
  const { list, add } = useShortlist(project.id);
  const controls = useCheck(project.id, extensions);
  const notify = useNotify();
  const navigate = useNavigate();
  const failed = asApiError(error);
  const begin: Parameters<typeof Statuses>[0]['onBegin'] = (request) => {
    controls.start.mutate(request, {
      onError: (e) => {
        notify(e.message);
      },
    });
  };
  if (failed && (!name || isPlaceholderData)) {
    return (
      <EmptyState
        alert
        title={t('This is no name')}
        action={
          <Button variant="outlined" onClick={() => void refetch()}>
            {t('Try again')}
          </Button>
        }>
        {failed.problems[0]?.message ?? failed.message}
      </EmptyState>
    );
  }
  if (!name || isPlaceholderData) return <LinearProgress aria-label={t('Loading the name')} />;
  const kept = new Set((list.data ?? []).map((k) => `${k.label}.${k.extension || (extensions[0] ?? 'com')}`));
  const open = (other: string) => {
    void navigate(`/projects/${project.id}/names/${other}`);
  };
  return (
    <Box component="main" sx={{ maxWidth: 1240, mx: 'auto', px: 3, py: 3 }}>
      <Stack
        direction="row"
        sx={{ flexWrap: 'wrap', gap: 2, alignItems: 'flex-end', justifyContent: 'space-between', mb: 2.5 }}>
        <Box sx={{ minWidth: 0 }}>
          <Typography
            component="h1"
            sx={{ fontSize: { xs: '2rem', md: '3rem' }, lineHeight: 1.15, overflowWrap: 'anywhere' }}>
            <SeamedName
              label={name.label}
              shown={name.shown}
              starts={name.parts.map((p) => p.start)}
              extension={name.extension || extensions[0]}
            />
          </Typography>
          <Origin name={name} />
          {!name.kept && <Going going={name.going} />}
        </Box>
        <Stack direction="row" sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
          <Box
            className="serif"
            sx={{ fontSize: '2.2rem', fontWeight: 600, color: 'secondary.main', lineHeight: 1, mr: 1 }}>
            {name.grade === null ? t('no grade') : Math.round(name.grade)}
          </Box>
          <SayButton text={name.shown} />
          <Button
            variant={name.kept ? 'outlined' : 'contained'}
            color="secondary"
            startIcon={name.kept ? <TagFilledIcon /> : <TagIcon />}
            onClick={() => void act(name.kept ? 'unkeep' : 'keep', [name.label]).then(() => refetch())}>
            {name.kept ? t('On the shortlist') : t('Keep')}
          </Button>
          <BasketButton
            projectId={project.id}
            names={[`${name.label}.${name.typed_extension || name.extension || (extensions[0] ?? 'com')}`]}
            there={name.in_basket.includes(name.typed_extension || name.extension || (extensions[0] ?? 'com'))}
          />
          <WatchButton
            projectId={project.id}
            shown={name.shown}
            label={name.label}
            extension={name.typed_extension || name.extension || (extensions[0] ?? 'com')}
            extensions={withOwn(extensions, name.typed_extension || name.extension)}
            watched={name.watched}
          />
          <Button component={Link} to={`/projects/${project.id}/wordmark?name=${name.label}`} variant="outlined">
            {t('As a wordmark')}
          </Button>
          <Button component={Link} to={`/projects/${project.id}/print?name=${name.label}`} variant="outlined">
            {t('Print')}
          </Button>
        </Stack>
      </Stack>
      <Box sx={{ display: 'grid', gap: 4, gridTemplateColumns: { xs: '1fr', md: 'repeat(3, minmax(0, 1fr))' } }}>
        <Box>
          <Section title={t('Why')}>
            <Stack sx={{ gap: 1.8 }}>
              <Warnings name={name} />
              <Measures name={name} />
              <Misspellings name={name} onSelect={open} />
            </Stack>
          </Section>
        </Box>
        <Box>
          <Section title={t('Vetting')}>
            <Vetted projectId={project.id} name={name} />
          </Section>
          <Section title={t('Where it is open')}>
            <Statuses
              label={name.label}
              costs={name.costs}
              extensions={withOwn(extensions, name.extension)}
              cells={name.cells}
              evidence={name.evidence}
              checking={controls.active}
              onBegin={begin}
            />
          </Section>
          {name.looked_for.length > 0 && (
            <Section title={t('What people look for with these words')}>
              <LookedFor projectId={project.id} phrases={name.looked_for} />
            </Section>
          )}
          <Section title={t('Typed by mistake')}>
            <Mistyped
              projectId={project.id}
              name={name.extension ? `${name.label}.${name.extension}` : name.label}
              checking={controls.active}
              onBegin={begin}
              onSelect={open}
              kept={kept}
              onHold={(fullName) => add.mutate(fullName)}
            />
          </Section>
          <Section title={t('Who holds it')}>
            <Records name={name} />
          </Section>
          <Section title={t('Offered or let go')}>
            <OffersOfName name={name} />
          </Section>
          <Section title={t('What was found out when')}>
            <History name={name} />
          </Section>
        </Box>
        <Box>
          <Section title={t('Notes and tags')}>
            <Shelf name={name} projectId={project.id} extensions={extensions} />
          </Section>
          <Section title={t('Near names')}>
            <NearNames
              projectId={project.id}
              label={name.label}
              first={extensions[0]}
              checking={controls.active}
              onKeep={(one, kept) => void act(kept ? 'keep' : 'unkeep', [one])}
              onCheck={(labels) => begin({ what: 'labels', labels })}
              onSelect={open}
            />
          </Section>
        </Box>
      </Box>
    </Box>
  );
}
