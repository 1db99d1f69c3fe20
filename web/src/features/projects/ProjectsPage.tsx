import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Skeleton from '@mui/material/Skeleton';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';

import { asApiError, type Overview } from '../../shared/api';
import { formatCount } from '../../shared/lib/format';
import { Age } from '../../shared/ui/Age';
import { FileButton } from '../../shared/ui/FileButton';
import { EmptyState } from '../../shared/ui/EmptyState';
import { DotsIcon } from '../../shared/ui/icons';
import { useNotify } from '../../shared/ui/Notices';
import { NewProjectDialog } from './NewProjectDialog';
import { useProjects } from './useProjects';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { rich, t } from '../../shared/texts';

const PURPOSES = { brand: t('brand-like'), descriptive: t('descriptive'), mix: t('a mix') } as const;
const STEPS = [
  ['considered', t('made')],
  ['listed', t('listed')],
  ['good', t('good enough')],
  ['open', t('open')],
  ['kept', t('shortlisted')],
] as const;

function ProjectMenu({
  standing,
  copying,
  onCopy,
  onArchive,
  onRemove,
}: Pick<RowProps, 'standing' | 'copying' | 'onCopy' | 'onArchive' | 'onRemove'>) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { project } = standing;
  const item = (word: string, act: () => void) => (
    <MenuItem
      onClick={() => {
        setAnchor(null);
        act();
      }}>
      {word}
    </MenuItem>
  );
  return (
    <>
      <IconButton
        size="small"
        aria-label={t('What to do with {name}', { name: project.name })}
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ zIndex: 1 }}>
        <DotsIcon fontSize="small" />
      </IconButton>
      <Menu disablePortal anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <MenuItem
          disabled={copying !== null}
          onClick={() => {
            setAnchor(null);
            onCopy();
          }}>
          {copying === null ? t('Copy') : t('Being copied…')}
        </MenuItem>
        <MenuItem component="a" href={`/api/projects/${project.id}/file`} download onClick={() => setAnchor(null)}>
          {t('Take away as a file')}
        </MenuItem>
        {item(project.archived_at ? t('Take up again') : t('Put by'), onArchive)}
        {item(t('Remove'), onRemove)}
      </Menu>
    </>
  );
}

interface RowProps {
  standing: Overview;
  /** How far its copy is, in percent; null when none is made. */
  copying: number | null;
  onCopy: () => void;
  onArchive: () => void;
  onRemove: () => void;
  /** The person is about to open it. */
  onNear: () => void;
}

function ProjectRow(props: RowProps) {
  const { standing } = props;
  const { project } = standing;
  const { brief } = project;
  const figures = { ...standing, considered: project.considered };
  return (
    <Box
      component="li"
      sx={{
        position: 'relative',
        display: 'grid',
        gridTemplateColumns: { xs: '1fr 40px', md: 'minmax(0, 1fr) auto 40px' },
        alignItems: 'center',
        columnGap: 2,
        rowGap: 1,
        bgcolor: 'background.paper',
        border: 1,
        borderColor: 'divider',
        borderLeft: 5,
        borderLeftColor: project.archived_at ? 'divider' : 'secondary.main',
        borderRadius: 1,
        pl: 2.5,
        pr: 1,
        py: 1.5,
        '&:hover': { borderColor: 'wire' },
      }}>
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="h2" component="h2" noWrap>
          <Box
            component={Link}
            to={`/projects/${project.id}`}
            sx={{
              color: 'text.primary',
              textDecoration: 'none',
              '&::after': { content: '""', position: 'absolute', inset: 0, right: 48 },
            }}
            onPointerEnter={props.onNear}
            onFocus={props.onNear}>
            {project.name}
          </Box>
        </Typography>
        <Typography color="textSecondary" noWrap>
          {brief.keywords.length ? brief.keywords.map((k) => k.text).join(', ') : t('no words yet')}
        </Typography>
        <Typography variant="caption" color="textSecondary">
          {PURPOSES[brief.purpose]} ·{' '}
          {brief.extensions
            .slice(0, 4)
            .map((e) => `.${e}`)
            .join(' ')}
          {brief.extensions.length > 4 && ` +${brief.extensions.length - 4}`} ·{' '}
          {rich('changed {age}', { age: <Age at={project.changed_at} /> })}
          {props.copying !== null && ` · ${t('being copied, {copying} %', { copying: props.copying })}`}
          {standing.checking && ` · ${t('a check is running')}`}
          {standing.vetting && ` · ${t('names are being vetted')}`}
          {standing.stale > 0 &&
            ` · ${t('{stale, plural, one {# answer} other {# answers}} of {asked, number} old enough to ask again', {
              stale: standing.stale,
              asked: standing.asked,
            })}`}
        </Typography>
      </Box>
      <Stack
        component="dl"
        direction="row"
        aria-label={t('Where {name} stands', { name: project.name })}
        sx={{ m: 0, gap: 2, gridColumn: { xs: '1 / -1', md: 'auto' }, gridRow: { xs: 2, md: 'auto' } }}>
        {STEPS.map(([name, word]) => (
          <Box key={name} sx={{ textAlign: 'right' }}>
            <Box
              component="dd"
              className="serif"
              sx={{
                m: 0,
                fontSize: '1.02rem',
                fontWeight: 600,
                color: name === 'kept' && figures.kept ? 'secondary.main' : 'text.primary',
              }}>
              {formatCount(figures[name])}
            </Box>
            <Typography component="dt" variant="caption" color="textSecondary">
              {word}
            </Typography>
          </Box>
        ))}
      </Stack>
      <ProjectMenu {...props} />
    </Box>
  );
}

/** All the person's projects and where each stands; it is told when one of them is about to be opened. */
export function ProjectsPage({ onNear }: { onNear: (id: number) => void }) {
  const { overview, copy, archive, remove, restore, bring, done } = useProjects();
  const notify = useNotify();
  const navigate = useNavigate();
  const [adding, setAdding] = useState(false);
  const [resting, setResting] = useState(false);
  const add = (
    <Button variant="contained" size="medium" onClick={() => setAdding(true)}>
      {t('New project')}
    </Button>
  );
  const error = asApiError(overview.error);
  const refused = asApiError(bring.error);
  const onError = (e: Error) => {
    notify(e.message);
  };
  const act = {
    onCopy: ({ project }: Overview) => {
      copy.mutate(project.id, {
        onSuccess: (made) => {
          notify(t('{name} was made.', { name: made.name }), () => {
            remove.mutate(made.id);
          });
        },
        onError,
      });
    },
    onArchive: ({ project }: Overview) => {
      const archived = project.archived_at === null;
      archive.mutate(
        { id: project.id, archived },
        {
          onSuccess: () => {
            notify(
              archived
                ? t('{name} was put by.', { name: project.name })
                : t('{name} was taken up again.', { name: project.name }),
              () => {
                archive.mutate({ id: project.id, archived: !archived });
              },
            );
          },
          onError,
        },
      );
    },
    onRemove: ({ project }: Overview) => {
      remove.mutate(project.id, {
        onSuccess: () => {
          notify(t('{name} was removed.', { name: project.name }), () => {
            restore.mutate(project.id);
          });
        },
        onError,
      });
    },
  };
  const all = overview.data ?? [];
  const rested = all.filter((s) => s.project.archived_at);
  const shown = all.filter((s) => resting || !s.project.archived_at);
  return (
    <Box component="main" sx={{ maxWidth: 1000, mx: 'auto', px: { xs: 1.5, md: 3 }, py: 4 }}>
      <Stack
        direction="row"
        sx={{ justifyContent: 'space-between', alignItems: 'baseline', mb: 2.5, flexWrap: 'wrap', gap: 1 }}>
        <Box>
          <Typography variant="h1">{t('Projects')}</Typography>
          {overview.data && (
            <Typography color="textSecondary">
              {t('{all, plural, one {# project} other {# projects}}', { all: all.length - rested.length })}
              {rested.length > 0 && (
                <>
                  {' '}
                  ·{' '}
                  <Button
                    onClick={() => setResting(!resting)}
                    aria-pressed={resting}
                    sx={{ p: 0, minWidth: 0, verticalAlign: 'baseline' }}>
                    {resting
                      ? t('hide {n, number} put by', { n: rested.length })
                      : t('show {n, number} put by', { n: rested.length })}
                  </Button>
                </>
              )}
            </Typography>
          )}
        </Box>
        <Stack direction="row" sx={{ gap: 1 }}>
          <FileButton
            size="medium"
            accept=".json,application/json"
            label={t('File of a project')}
            disabled={bring.isPending}
            onFile={(chosen) =>
              bring.mutate(chosen, {
                onSuccess: (made) => {
                  void navigate(`/projects/${made.id}`);
                },
              })
            }>
            {bring.isPending ? t('Reading the file… {done} %', { done }) : t('From a file')}
          </FileButton>
          {add}
        </Stack>
      </Stack>
      {refused && (
        <Alert severity="error" onClose={() => bring.reset()} sx={{ mb: 2 }}>
          {t('The file could not be read. {why}', {
            why: refused.problems.length
              ? refused.problems
                  .slice(0, 5)
                  .map((p) => `${p.path}: ${p.message}`)
                  .join(' ')
              : refused.message,
          })}
        </Alert>
      )}
      {overview.isPending && (
        <Stack sx={{ gap: 1.5 }}>
          {[0, 1, 2].map((i) => (
            <Skeleton key={i} variant="rounded" height={76} />
          ))}
        </Stack>
      )}
      {error && !overview.data && (
        <LoadFailed title={t('The projects could not be loaded')} error={error} onRetry={overview.refetch} />
      )}
      {overview.data?.length === 0 && (
        <EmptyState title={t('Nothing is being named yet')} action={add}>
          {t('Start with a working title and a few words. The names come at once.')}
        </EmptyState>
      )}
      <Stack component="ul" aria-label={t('Projects')} sx={{ gap: 1.5, m: 0, p: 0, listStyle: 'none' }}>
        {shown.map((standing) => (
          <ProjectRow
            key={standing.project.id}
            standing={standing}
            copying={copy.isPending && copy.variables === standing.project.id ? done : null}
            onCopy={() => act.onCopy(standing)}
            onArchive={() => act.onArchive(standing)}
            onRemove={() => act.onRemove(standing)}
            onNear={() => onNear(standing.project.id)}
          />
        ))}
      </Stack>
      <NewProjectDialog
        key={String(adding)}
        open={adding}
        onClose={() => setAdding(false)}
        onCreated={(project) => {
          onNear(project.id);
          void navigate(`/projects/${project.id}`);
        }}
      />
    </Box>
  );
}
