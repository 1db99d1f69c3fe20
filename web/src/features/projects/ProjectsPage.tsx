import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Skeleton from '@mui/material/Skeleton';
import Stack from '@mui/material/Stack';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';

import { asApiError, type Project } from '../../shared/api';
import { formatCount, plural } from '../../shared/lib/format';
import { Age } from '../../shared/ui/Age';
import { Blank } from '../../shared/ui/Blank';
import { CrossIcon } from '../../shared/ui/icons';
import { useNotify } from '../../shared/ui/Notices';
import { NewProjectDialog } from './NewProjectDialog';
import { useProjects } from './useProjects';

const PURPOSES = { brand: 'brand-like', descriptive: 'descriptive', mix: 'a mix' } as const;

function ProjectRow({ project, onRemove }: { project: Project; onRemove: () => void }) {
  const { brief } = project;
  return (
    <Box component="li" sx={{ position: 'relative', display: 'grid', gridTemplateColumns: '1fr auto 40px', alignItems: 'center', gap: 2, bgcolor: 'background.paper', border: 1, borderColor: 'divider', borderLeft: 5, borderLeftColor: 'secondary.main', borderRadius: 1, pl: 2.5, pr: 1, py: 1.8, '&:hover': { borderColor: 'wire', borderLeftColor: 'secondary.main' } }}>
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="h2" component="h2" noWrap>
          <Box component={Link} to={`/projects/${project.id}`} sx={{ color: 'text.primary', textDecoration: 'none', '&::after': { content: '""', position: 'absolute', inset: 0, right: 48 } }}>{project.name}</Box>
        </Typography>
        <Typography color="textSecondary" noWrap>
          {brief.keywords.length ? brief.keywords.map((k) => k.text).join(', ') : 'no words yet'}
        </Typography>
      </Box>
      <Typography variant="body2" color="textSecondary" sx={{ textAlign: 'right' }}>
        {PURPOSES[brief.purpose]} · {brief.extensions.slice(0, 4).map((e) => `.${e}`).join(' ')}
        {brief.extensions.length > 4 && ` +${brief.extensions.length - 4}`}
        <br />
        {formatCount(project.good)} good names · changed <Age at={project.changed_at} />
      </Typography>
      <Tooltip title="Remove this project">
        <IconButton size="small" aria-label={`Remove ${project.name}`} onClick={onRemove} sx={{ zIndex: 1 }}><CrossIcon fontSize="small" /></IconButton>
      </Tooltip>
    </Box>
  );
}

/** All the person's projects. */
export function ProjectsPage() {
  const { projects, remove, restore } = useProjects();
  const notify = useNotify();
  const navigate = useNavigate();
  const [adding, setAdding] = useState(false);
  const add = <Button variant="contained" size="medium" onClick={() => { setAdding(true); }}>New project</Button>;
  const error = asApiError(projects.error);
  const removeOne = (project: Project) => {
    remove.mutate(project.id, {
      onSuccess: () => { notify(`${project.name} was removed.`, () => { restore.mutate(project.id); }); },
      onError: (e) => { notify(e.message); },
    });
  };
  return (
    <Box component="main" sx={{ maxWidth: 860, mx: 'auto', px: 3, py: 4 }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'baseline', mb: 2.5 }}>
        <Box>
          <Typography variant="h1">Projects</Typography>
          {projects.data && <Typography color="textSecondary">{plural(projects.data.length, 'project')}</Typography>}
        </Box>
        {add}
      </Stack>
      {projects.isPending && <Stack sx={{ gap: 1.5 }}>{[0, 1, 2].map((i) => <Skeleton key={i} variant="rounded" height={76} />)}</Stack>}
      {error && <Blank alert title="The projects could not be loaded" action={<Button variant="outlined" onClick={() => { void projects.refetch(); }}>Try again</Button>}>{error.message}</Blank>}
      {projects.data?.length === 0 && <Blank title="Nothing is being named yet" action={add}>Start with a working title and a few words. The names come at once.</Blank>}
      <Stack component="ul" sx={{ gap: 1.5, m: 0, p: 0, listStyle: 'none' }}>
        {projects.data?.map((project) => <ProjectRow key={project.id} project={project} onRemove={() => { removeOne(project); }} />)}
      </Stack>
      <NewProjectDialog key={String(adding)} open={adding} onClose={() => { setAdding(false); }} onCreated={(project) => { void navigate(`/projects/${project.id}`); }} />
    </Box>
  );
}
