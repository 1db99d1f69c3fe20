import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Stack from '@mui/material/Stack';
import { useColorScheme } from '@mui/material/styles';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { Link, NavLink, Outlet, useMatch, useNavigate } from 'react-router';

import { useProject } from '../features/brief/useBrief';
import { useSession } from '../features/session/useSession';
import { MoonIcon, SunIcon } from '../shared/ui/icons';

function ModeButton() {
  const { mode, systemMode, setMode } = useColorScheme();
  const dark = (mode === 'system' ? systemMode : mode) === 'dark';
  const label = dark ? 'Light paper' : 'Dark paper';
  return (
    <Tooltip title={label}>
      <IconButton size="small" aria-label={label} onClick={() => { setMode(dark ? 'light' : 'dark'); }}>
        {dark ? <SunIcon fontSize="small" /> : <MoonIcon fontSize="small" />}
      </IconButton>
    </Tooltip>
  );
}

function ProjectLinks({ id }: { id: number }) {
  const project = useProject(id);
  const link = { color: 'text.secondary', textDecoration: 'none', fontWeight: 600, py: 1.2, borderBottom: 2, borderColor: 'transparent', '&.active': { color: 'primary.main', borderColor: 'secondary.main' } };
  return (
    <>
      <Typography className="serif" noWrap title={project.data?.name} sx={{ fontSize: '1.02rem', maxWidth: 320 }}>{project.data?.name ?? ''}</Typography>
      <Stack component="nav" aria-label="Project" direction="row" sx={{ gap: 2.5 }}>
        <Box component={NavLink} to={`/projects/${id}`} end sx={link}>Bench</Box>
        <Box component={NavLink} to={`/projects/${id}/shortlist`} sx={link}>Shortlist</Box>
      </Stack>
    </>
  );
}

/** The bar above every page, and the page. */
export function Shell({ person }: { person: string }) {
  const { signOut } = useSession();
  const navigate = useNavigate();
  const id = Number(useMatch('/projects/:id/*')?.params.id);
  return (
    <Box sx={{ height: '100%', display: 'grid', gridTemplateRows: 'auto minmax(0, 1fr)' }}>
      <Stack component="header" direction="row" sx={{ alignItems: 'center', gap: 3, px: 2, minHeight: 46, borderBottom: 2, borderColor: 'wire', bgcolor: 'background.paper' }}>
        <Typography component={Link} to="/" className="serif" sx={{ fontSize: '1.22rem', fontWeight: 600, color: 'primary.main', textDecoration: 'none', whiteSpace: 'nowrap' }}>Vine Tag</Typography>
        {Number.isInteger(id) ? <ProjectLinks id={id} /> : null}
        <Stack direction="row" sx={{ ml: 'auto', alignItems: 'center', gap: 1 }}>
          <Box component={NavLink} to="/measures" sx={{ color: 'text.secondary', textDecoration: 'none' }}>Grades</Box>
          <Box component={NavLink} to="/about" sx={{ color: 'text.secondary', textDecoration: 'none' }}>About</Box>
          <ModeButton />
          <Typography color="textSecondary" noWrap sx={{ maxWidth: 160 }} title={person}>{person}</Typography>
          <Button color="inherit" onClick={() => { signOut.mutate(undefined, { onSuccess: () => { void navigate('/'); } }); }} disabled={signOut.isPending}>Sign out</Button>
        </Stack>
      </Stack>
      <Box sx={{ overflowY: 'auto', minHeight: 0 }}>
        <Outlet />
      </Box>
    </Box>
  );
}
