import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Stack from '@mui/material/Stack';
import { useColorScheme } from '@mui/material/styles';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { Link, NavLink, Outlet, useMatch, useNavigate } from 'react-router';

import type { Preferences } from '../shared/api';
import { usePreferences } from '../shared/lib/preferences';
import { useProject } from '../features/brief/useBrief';
import { useSession } from '../features/session/useSession';
import { MoonIcon, SunIcon } from '../shared/ui/icons';

/** Takes on the paper a person likes, when it is first known and when it is changed. */
function useLikedPaper(liked: Preferences['theme']): void {
  const { setMode } = useColorScheme();
  useEffect(() => { setMode(liked); }, [liked, setMode]);
}

function ModeButton() {
  const { mode, systemMode, setMode } = useColorScheme();
  const { keep } = usePreferences();
  const dark = (mode === 'system' ? systemMode : mode) === 'dark';
  const label = dark ? 'Light paper' : 'Dark paper';
  return (
    <Tooltip title={label}>
      <IconButton size="small" aria-label={label} onClick={() => { setMode(dark ? 'light' : 'dark'); keep({ theme: dark ? 'light' : 'dark' }); }}>
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
        <Box component={NavLink} to={`/projects/${id}/list`} sx={link}>Check a list</Box>
        <Box component={NavLink} to={`/projects/${id}/shortlist`} sx={link}>Shortlist</Box>
      </Stack>
    </>
  );
}

/** The bar above every page, and the page. */
export function Shell({ person, liked }: { person: string; liked: Preferences['theme'] }) {
  useLikedPaper(liked);
  const { signOut } = useSession();
  const navigate = useNavigate();
  const id = Number(useMatch('/projects/:id/*')?.params.id);
  return (
    <Box sx={{ height: '100%', display: 'grid', gridTemplateRows: 'auto minmax(0, 1fr)', '@media print': { display: 'block', height: 'auto' } }}>
      <Stack component="header" direction="row" sx={{ alignItems: 'center', gap: 3, px: 2, minHeight: 46, borderBottom: 2, borderColor: 'wire', bgcolor: 'background.paper', flexWrap: { xs: 'wrap', md: 'nowrap' }, rowGap: 0, '@media print': { display: 'none' } }}>
        <Typography component={Link} to="/" className="serif" sx={{ fontSize: '1.22rem', fontWeight: 600, color: 'primary.main', textDecoration: 'none', whiteSpace: 'nowrap' }}>Vine Tag</Typography>
        {Number.isInteger(id) ? <ProjectLinks id={id} /> : null}
        <Stack direction="row" sx={{ ml: 'auto', alignItems: 'center', gap: 1 }}>
          <Box component={NavLink} to="/extensions" sx={{ color: 'text.secondary', textDecoration: 'none' }}>Extensions</Box>
          <Box component={NavLink} to="/measures" sx={{ color: 'text.secondary', textDecoration: 'none' }}>Grades</Box>
          <Box component={NavLink} to="/about" sx={{ color: 'text.secondary', textDecoration: 'none' }}>About</Box>
          <ModeButton />
          <Box component={NavLink} to="/settings" sx={{ color: 'text.secondary', textDecoration: 'none' }}>Settings</Box>
          <Typography color="textSecondary" noWrap sx={{ maxWidth: 120, display: { xs: 'none', md: 'block' } }} title={person}>{person}</Typography>
          <Button color="inherit" onClick={() => { signOut.mutate(undefined, { onSuccess: () => { void navigate('/'); } }); }} disabled={signOut.isPending}>Sign out</Button>
        </Stack>
      </Stack>
      <Box sx={{ overflowY: 'auto', minHeight: 0, '@media print': { overflow: 'visible' } }}>
        <Outlet />
      </Box>
    </Box>
  );
}
