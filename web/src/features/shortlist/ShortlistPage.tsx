import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Skeleton from '@mui/material/Skeleton';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';

import { asApiError } from '../../shared/api';
import { useOpenProject } from '../../shared/lib/projectContext';
import { useActs } from '../../shared/lib/useActs';
import { MOST_COMPARED } from '../../shared/lib/useName';
import { EmptyState } from '../../shared/ui/EmptyState';
import { Elsewhere } from '../../shared/ui/Elsewhere';
import { FileMenu } from '../../shared/ui/FileMenu';
import { Sortable } from '../../shared/ui/Sortable';
import { AddName } from './AddName';
import { ShortlistRow } from './ShortlistRow';
import { useShortlist } from './useShortlist';
import { useVettedNames } from './useVettedNames';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { t } from '../../shared/texts';

const MOST_LISTED = 40;
const listed = (labels: readonly string[]) =>
  labels.length > MOST_LISTED
    ? t('{first} and {more, number} more', {
        first: labels.slice(0, MOST_LISTED).join(', '),
        more: labels.length - MOST_LISTED,
      })
    : labels.join(', ');

/** The kept names, with notes and tags, in an order of the person's own; `checking` asks about them. */
export function ShortlistPage({ checking }: { checking?: ReactNode }) {
  const project = useOpenProject();
  const vetted = useVettedNames(project.id);
  const { list, move, add, settle, elsewhere } = useShortlist(project.id);
  const { act } = useActs(project.id);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const [tag, setTag] = useState<string | null>(null);
  const error = asApiError(list.error);
  const kept = list.data ?? [];
  const tags = [...new Set(kept.flatMap((k) => k.tags))].sort();
  const shown = kept
    .map((item, place) => ({ item, place }))
    .filter(({ item }) => tag === null || item.tags.includes(tag));
  const compared = kept.filter((k) => picked.has(k.label)).map((k) => k.label);
  const to = (path: string) => `/projects/${project.id}/${path}`;
  const toBench = (
    <Button component={Link} to={to('')} variant="contained">
      {t('To the bench')}
    </Button>
  );
  const pick = (label: string) => {
    const next = new Set(picked);
    if (!next.delete(label)) next.add(label);
    setPicked(next);
  };
  return (
    <Box component="main" sx={{ maxWidth: 1220, mx: 'auto', px: { xs: 1.5, md: 3 }, py: 3 }}>
      <Stack
        direction="row"
        sx={{ justifyContent: 'space-between', alignItems: 'flex-start', flexWrap: 'wrap', mb: 2, gap: 1.5 }}>
        <Box>
          <Typography variant="h1">{t('Shortlist')}</Typography>
          {list.data && (
            <Typography color="textSecondary">
              {[
                t('{n, plural, one {# name} other {# names}}', { n: kept.length }),
                t('the first is the favourite'),
                t('press an extension to keep a full name'),
              ].join(' · ')}
            </Typography>
          )}
        </Box>
        <AddName add={add} />
      </Stack>
      {kept.length > 0 && (
        <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 1, mb: 2, alignItems: 'center' }}>
          <Button
            component={Link}
            to={to(`compare?names=${compared.slice(0, MOST_COMPARED).join(',')}`)}
            variant="contained"
            disabled={compared.length < 2 || compared.length > MOST_COMPARED}
            title={t('Tick two to {mostCompared} names', { mostCompared: MOST_COMPARED })}>
            {compared.length > 1 ? t('Compare {n, number}', { n: compared.length }) : t('Compare')}
          </Button>
          <Button component={Link} to={to('duels')} variant="outlined" disabled={kept.length < 2}>
            {t('Duels')}
          </Button>
          <Button component={Link} to={to('share')} variant="outlined">
            {t('Share and ask others')}
          </Button>
          <Button component={Link} to={to('print')} variant="outlined">
            {t('Print')}
          </Button>
          <FileMenu address={(form) => `/api/projects/${project.id}/shortlist/file?form=${form}`} />
          {checking}
          {tags.length > 0 && (
            <Stack
              direction="row"
              role="group"
              aria-label={t('Only with the tag')}
              sx={{ gap: 0.5, ml: 'auto', flexWrap: 'wrap' }}>
              {tags.map((one) => (
                <Chip
                  key={one}
                  size="small"
                  label={one}
                  clickable
                  color={tag === one ? 'secondary' : 'default'}
                  aria-pressed={tag === one}
                  onClick={() => setTag(tag === one ? null : one)}
                />
              ))}
            </Stack>
          )}
        </Stack>
      )}
      {list.isPending && (
        <Stack sx={{ gap: 1 }}>
          {[0, 1, 2].map((i) => (
            <Skeleton key={i} variant="rounded" height={84} />
          ))}
        </Stack>
      )}
      {error && !list.data && (
        <LoadFailed title={t('The shortlist could not be loaded')} error={error} onRetry={list.refetch} />
      )}
      {list.data?.length === 0 && (
        <EmptyState title={t('Nothing is kept yet')} action={toBench}>
          {t(
            'Keep a name at the bench with its tag, or the key t. It comes here, with room for a note and tags; then names can be compared, set against each other, and shown to others.',
          )}
        </EmptyState>
      )}
      {elsewhere && (
        <Box sx={{ mb: 1 }}>
          <Elsewhere
            what={t('This order')}
            parts={[{ word: t('Order'), here: listed(elsewhere.mine), there: listed(elsewhere.theirs) }]}
            onMine={elsewhere.keepMine}
            onTheirs={elsewhere.takeTheirs}
          />
        </Box>
      )}
      <Sortable
        ids={shown.map(({ item }) => item.label)}
        name={(label) => kept.find((k) => k.label === label)?.shown ?? label}
        onMove={(label, to) => {
          const at = (wanted: string) => kept.findIndex((k) => k.label === wanted);
          move(at(label), at(to));
        }}>
        <Stack component="ol" aria-label={t('Shortlist')} sx={{ listStyle: 'none', m: 0, p: 0, gap: 1 }}>
          {shown.map(({ item, place }) => (
            <ShortlistRow
              key={item.label}
              projectId={project.id}
              kept={item}
              place={place + 1}
              last={place === kept.length - 1}
              extensions={project.brief.extensions}
              owner={project.brief.owner}
              vetted={vetted.get(item.label) ?? []}
              knownTags={tags}
              picked={picked.has(item.label)}
              onPick={() => pick(item.label)}
              onMove={(by) => move(place, place + by)}
              onRemove={() => void act('unkeep', [item.label])}
              onSettle={(extension) => settle.mutate({ label: item.label, extension, seen: item.extension })}
            />
          ))}
        </Stack>
      </Sortable>
    </Box>
  );
}
