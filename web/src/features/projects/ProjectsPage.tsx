import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Skeleton from '@mui/material/Skeleton';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';

import { asApiError, type Overview } from '../../shared/api';
import { formatCount, plural } from '../../shared/lib/format';
import { Age } from '../../shared/ui/Age';
import { EmptyState } from '../../shared/ui/EmptyState';
import { DotsIcon } from '../../shared/ui/icons';
import { useNotify } from '../../shared/ui/Notices';
import { NewProjectDialog } from './NewProjectDialog';
import { useProjects } from './useProjects';
import { LoadFailed } from '../../shared/ui/LoadFailed';

const PURPOSES = { brand: 'brand-like', descriptive: 'descriptive', mix: 'a mix' } as const;
const STEPS = [
  ['considered', 'made'],
  ['listed', 'listed'],
  ['good', 'good enough'],
  ['open', 'open'],
  ['kept', 'shortlisted'],
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
        aria-label={`What to do with ${project.name}`}
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
          {copying === null ? 'Copy' : 'Being copied…'}
        </MenuItem>
        <MenuItem component="a" href={`/api/projects/${project.id}/file`} download onClick={() => setAnchor(null)}>
          Take away as a file
        </MenuItem>
        {item(project.archived_at ? 'Take up again' : 'Put by', onArchive)}
        {item('Remove', onRemove)}
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
          {brief.keywords.length ? brief.keywords.map((k) => k.text).join(', ') : 'no words yet'}
        </Typography>
        <Typography variant="caption" color="textSecondary">
          {PURPOSES[brief.purpose]} ·{' '}
          {brief.extensions
            .slice(0, 4)
            .map((e) => `.${e}`)
            .join(' ')}
          {brief.extensions.length > 4 && ` +${brief.extensions.length - 4}`} · changed <Age at={project.changed_at} />
          {props.copying !== null && ` · being copied, ${props.copying} %`}
          {standing.checking && ' · a check is running'}
          {standing.stale > 0 &&
            ` · ${plural(standing.stale, 'answer')} of ${formatCount(standing.asked)} old enough to ask again`}
        </Typography>
      </Box>
      <Stack
        component="dl"
        direction="row"
        aria-label={`Where ${project.name} stands`}
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
  const file = useRef<HTMLInputElement>(null);
  const add = (
    <Button variant="contained" size="medium" onClick={() => setAdding(true)}>
      New project
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
          notify(`${made.name} was made.`, () => {
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
            notify(`${project.name} was ${archived ? 'put by' : 'taken up again'}.`, () => {
              archive.mutate({ id: project.id, archived: !archived });
            });
          },
          onError,
        },
      );
    },
    onRemove: ({ project }: Overview) => {
      remove.mutate(project.id, {
        onSuccess: () => {
          notify(`${project.name} was removed.`, () => {
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
          <Typography variant="h1">Projects</Typography>
          {overview.data && (
            <Typography color="textSecondary">
              {plural(all.length - rested.length, 'project')}
              {rested.length > 0 && (
                <>
                  {' '}
                  ·{' '}
                  <Button
                    onClick={() => setResting(!resting)}
                    aria-pressed={resting}
                    sx={{ p: 0, minWidth: 0, verticalAlign: 'baseline' }}>
                    {resting ? 'hide' : 'show'} {formatCount(rested.length)} put by
                  </Button>
                </>
              )}
            </Typography>
          )}
        </Box>
        <Stack direction="row" sx={{ gap: 1 }}>
          <Button variant="outlined" size="medium" disabled={bring.isPending} onClick={() => file.current?.click()}>
            {bring.isPending ? `Reading the file… ${done} %` : 'From a file'}
          </Button>
          {add}
        </Stack>
        <input
          ref={file}
          type="file"
          accept=".json,application/json"
          hidden
          aria-label="File of a project"
          onChange={(e) => {
            const [chosen] = e.target.files ?? [];
            e.target.value = '';
            if (chosen)
              bring.mutate(chosen, {
                onSuccess: (made) => {
                  void navigate(`/projects/${made.id}`);
                },
              });
          }}
        />
      </Stack>
      {refused && (
        <Alert severity="error" onClose={() => bring.reset()} sx={{ mb: 2 }}>
          The file could not be read.{' '}
          {refused.problems.length
            ? refused.problems
                .slice(0, 5)
                .map((p) => `${p.path}: ${p.message}`)
                .join(' ')
            : refused.message}
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
        <LoadFailed title="The projects could not be loaded" error={error} onRetry={overview.refetch} />
      )}
      {overview.data?.length === 0 && (
        <EmptyState title="Nothing is being named yet" action={add}>
          Start with a working title and a few words. The names come at once.
        </EmptyState>
      )}
      <Stack component="ul" aria-label="Projects" sx={{ gap: 1.5, m: 0, p: 0, listStyle: 'none' }}>
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
