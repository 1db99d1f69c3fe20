import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import Stack from '@mui/material/Stack';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { Fragment, memo, type ReactNode } from 'react';
import { Link } from 'react-router';

import { asApiError, type Judged } from '../../shared/api';
import { EmptyState } from '../../shared/ui/EmptyState';
import { Going } from '../../shared/ui/Going';
import { TagFilledIcon, TagIcon } from '../../shared/ui/icons';
import { SeamedName } from '../../shared/ui/SeamedName';
import { AnyName } from './AnyName';
import type { CheckWish } from '../../shared/lib/question';
import { Ladder } from './Ladder';
import { Measures } from './Measures';
import { NearNames } from './NearNames';
import { Statuses } from './Statuses';
import { Misspellings, Warnings } from './Warnings';
import { useName } from '../../shared/lib/useName';
import { t } from '../../shared/texts';
import { WatchButton } from '../../shared/watching/WatchButton';

interface Props {
  projectId: number;
  label: string | null;
  extensions: readonly string[];
  checking: boolean;
  onKeep: (label: string, kept: boolean) => void;
  onCheck: (labels: string[]) => void;
  onBegin: (request: CheckWish) => void;
  onSelect: (label: string) => void;
  /** The fallback order of the brief, and changing it. */
  fallback: readonly string[];
  onFallback: (order: string[]) => void;
  view: View;
  onView: (view: View) => void;
}

export type View = 'reasons' | 'near' | 'fallback';

const KINDS: Record<string, string> = {
  keyword: t('your word'),
  kin: t('a word of its kin'),
  name: t('the name'),
  place: t('the place'),
  world: t('of your world'),
  small: '',
};

/** One of what a keyword says many of, or who does what it says is done. */
const ofKeyword = ({ kind, text, keyword }: Judged['parts'][number]) =>
  kind === 'keyword' && !keyword.split(' ').includes(text) ? t('of your word {keyword}', { keyword }) : '';

const inWords = (part: Judged['parts'][number]) => {
  const words = part.change?.message || ofKeyword(part) || (KINDS[part.kind] ?? part.kind);
  return words && ` (${words})`;
};

/** How the name came about: its parts, and the recipes that joined them. What was done to two parts at once is told once. */
export function Origin({ name }: { name: Judged }) {
  const parts = name.parts.filter((p) => p.kind !== 'hyphen');
  return (
    <Typography variant="body2" color="textSecondary">
      {parts.map((part, i) => (
        <Fragment key={part.start}>
          {i > 0 && ' + '}
          <Box component="span" className="serif" sx={{ color: 'text.primary' }}>
            {part.text}
          </Box>
          {part.change && part.change.message === parts[i + 1]?.change?.message ? '' : inWords(part)}
        </Fragment>
      ))}
      {' · '}
      {name.recipes.length > 0
        ? t('made by {recipes}', { recipes: name.recipes.join(', ') })
        : t('not made from your words')}
    </Typography>
  );
}

function About({
  name,
  projectId,
  extensions,
  checking,
  onKeep,
  onCheck,
  onBegin,
  onSelect,
  view,
  onView,
  fallback,
  onFallback,
}: Omit<Props, 'label'> & { name: Judged }) {
  const first = extensions[0];
  return (
    <Stack sx={{ gap: 1.8 }}>
      <Box>
        <Stack direction="row" sx={{ alignItems: 'flex-end', justifyContent: 'space-between', gap: 1 }}>
          <Typography
            component="h2"
            sx={{
              fontSize: name.shown.length > 15 ? '1.25rem' : '1.7rem',
              lineHeight: 1.2,
              overflowWrap: 'anywhere',
            }}>
            <SeamedName
              label={name.label}
              shown={name.shown}
              starts={name.parts.map((p) => p.start)}
              extension={name.extension || first}
            />
          </Typography>
          <Box sx={{ textAlign: 'right', flex: 'none' }}>
            <Box
              component="span"
              className="serif"
              sx={{ fontSize: '1.7rem', fontWeight: 600, color: 'secondary.main', lineHeight: 1 }}>
              {name.grade === null ? '–' : Math.round(name.grade)}
            </Box>
            <Typography variant="caption" color="textSecondary" component="div" sx={{ lineHeight: 1 }}>
              {name.grade === null ? t('no grade') : t('grade')}
            </Typography>
          </Box>
        </Stack>
        <Origin name={name} />
      </Box>
      <Stack direction="row" sx={{ gap: 1 }}>
        <Button
          variant={name.kept ? 'outlined' : 'contained'}
          color="secondary"
          startIcon={name.kept ? <TagFilledIcon /> : <TagIcon />}
          onClick={() => onKeep(name.label, !name.kept)}>
          {name.kept ? t('On the shortlist') : t('Keep')}
        </Button>
        <Button
          variant="outlined"
          disabled={checking}
          sx={{ whiteSpace: 'nowrap' }}
          onClick={() => onCheck([name.label])}>
          {t('Check this name')}
        </Button>
        <Button
          component={Link}
          to={`/projects/${projectId}/names/${name.label}`}
          title={t('Everything about it, on its own page')}
          sx={{ minWidth: 0 }}>
          {t('More')}
        </Button>
      </Stack>
      {!name.kept && <Going going={name.going} />}
      <ToggleButtonGroup
        exclusive
        fullWidth
        size="small"
        value={view}
        aria-label={t('What to see')}
        onChange={(_, next: View | null) => {
          if (next) onView(next);
        }}>
        <ToggleButton value="reasons" sx={{ py: 0.2, textTransform: 'none' }}>
          {t('Why')}
        </ToggleButton>
        <ToggleButton value="near" sx={{ py: 0.2, textTransform: 'none' }}>
          {t('Vary')}
        </ToggleButton>
        <ToggleButton value="fallback" title={t('The best open form of it')} sx={{ py: 0.2, textTransform: 'none' }}>
          {t('If taken')}
        </ToggleButton>
      </ToggleButtonGroup>
      {view === 'fallback' ? (
        <Box>
          <Ladder
            projectId={projectId}
            label={name.label}
            order={fallback}
            onOrder={onFallback}
            checking={checking}
            onBegin={onBegin}
            onSelect={onSelect}
          />
        </Box>
      ) : view === 'near' ? (
        <Box>
          <NearNames
            projectId={projectId}
            label={name.label}
            first={first}
            checking={checking}
            onKeep={onKeep}
            onCheck={onCheck}
            onSelect={onSelect}
          />
        </Box>
      ) : (
        <>
          <Warnings name={name} />
          <Measures name={name} />
          <Misspellings name={name} onSelect={onSelect} />
          <Box>
            <Stack direction="row" sx={{ alignItems: 'baseline', justifyContent: 'space-between' }}>
              <Typography variant="h3">{t('Where it is open')}</Typography>
              <WatchButton
                projectId={projectId}
                shown={name.shown}
                label={name.label}
                extension={name.typed_extension || name.extension || (first ?? 'com')}
                extensions={extensions}
                watched={name.watched}
                variant="text"
              />
            </Stack>
            <Statuses
              label={name.label}
              costs={name.costs}
              extensions={extensions}
              cells={name.cells}
              evidence={name.evidence}
              checking={checking}
              onBegin={onBegin}
            />
          </Box>
        </>
      )}
    </Stack>
  );
}

/** The reasons of the name under the cursor. */
export const ReasonsPanel = memo(function ReasonsPanel({ label, ...rest }: Props) {
  const { projectId, onSelect } = rest;
  const { data, error, refetch } = useName(projectId, label);
  let inside: ReactNode;
  if (label === null)
    inside = (
      <EmptyState title={t('No name chosen')}>{t('Choose one in the sheet to see why it is there.')}</EmptyState>
    );
  else if (data) inside = <About name={data} {...rest} />;
  else if (error)
    inside = (
      <EmptyState
        alert
        title={t('Nothing is known of this name')}
        action={
          <Button variant="outlined" onClick={() => void refetch()}>
            {t('Try again')}
          </Button>
        }>
        {asApiError(error)?.problems[0]?.message ?? error.message}
      </EmptyState>
    );
  else
    inside = (
      <Stack sx={{ gap: 1 }}>
        <Skeleton variant="rounded" height={44} />
        <Skeleton variant="rounded" height={220} />
      </Stack>
    );
  return (
    <Box
      component="aside"
      aria-label={t('Reasons')}
      sx={{ p: 2, overflowY: 'auto', minHeight: 0, borderLeft: 1, borderColor: 'divider' }}>
      <Box sx={{ mb: 1.6 }}>
        <AnyName projectId={projectId} extensions={rest.extensions} onSelect={onSelect} />
      </Box>
      {inside}
    </Box>
  );
});
