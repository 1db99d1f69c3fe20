import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import LinearProgress from '@mui/material/LinearProgress';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import { useColorScheme } from '@mui/material/styles';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import useMediaQuery from '@mui/material/useMediaQuery';
import { Suspense, useEffect, useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useMatch, useNavigate } from 'react-router';

import type { Preferences } from '../shared/api';
import { usePreferences } from '../shared/lib/preferences';
import { useProject } from '../features/brief/useBrief';
import { BasketLink } from '../features/basket/BasketLink';
import { Bell } from '../features/watching/Bell';
import { useSession } from '../features/session/useSession';
import { Elsewhere } from '../shared/ui/Elsewhere';
import { Mishap } from './Mishap';
import { MoonIcon, SunIcon } from '../shared/ui/icons';
import { t } from '../shared/texts';

/** Takes on the paper a person likes, when it is first known and when it is changed. */
function useLikedPaper(liked: Preferences['theme']): void {
  const { setMode } = useColorScheme();
  useEffect(() => {
    setMode(liked);
  }, [liked, setMode]);
}

function ModeButton() {
  const { mode, systemMode, setMode } = useColorScheme();
  const { keep } = usePreferences();
  const dark = (mode === 'system' ? systemMode : mode) === 'dark';
  const label = dark ? t('Light paper') : t('Dark paper');
  return (
    <Tooltip title={label}>
      <IconButton
        size="small"
        aria-label={label}
        onClick={() => {
          setMode(dark ? 'light' : 'dark');
          keep({ theme: dark ? 'light' : 'dark' });
        }}>
        {dark ? <SunIcon fontSize="small" /> : <MoonIcon fontSize="small" />}
      </IconButton>
    </Tooltip>
  );
}

function ProjectLinks({ id }: { id: number }) {
  const project = useProject(id);
  const link = {
    color: 'text.secondary',
    textDecoration: 'none',
    fontWeight: 600,
    py: 1.2,
    borderBottom: 2,
    borderColor: 'transparent',
    '&.active': { color: 'primary.main', borderColor: 'secondary.main' },
  };
  return (
    <>
      <Typography
        className="serif"
        noWrap
        title={project.data?.name}
        sx={{
          fontSize: '1.02rem',
          maxWidth: { md: 90, lg: 110, xl: 320 },
          minWidth: 0,
          display: { xs: 'none', md: 'block' },
        }}>
        {project.data?.name ?? ''}
      </Typography>
      <Stack
        component="nav"
        aria-label={t('Project')}
        direction="row"
        sx={{ columnGap: { xs: 1.5, md: 1.6, lg: 1.8 }, flexWrap: 'wrap' }}>
        <Box component={NavLink} to={`/projects/${id}/phrases`} sx={link}>
          {t('Phrases')}
        </Box>
        <Box component={NavLink} to={`/projects/${id}`} end sx={link}>
          {t('Bench')}
        </Box>
        <Box component={NavLink} to={`/projects/${id}/list`} sx={link}>
          {t('Check a list')}
        </Box>
        <Box component={NavLink} to={`/projects/${id}/hunt`} sx={link}>
          {t('Hunt')}
        </Box>
        <Box component={NavLink} to={`/projects/${id}/shortlist`} sx={link}>
          {t('Shortlist')}
        </Box>
        <Box component={NavLink} to={`/projects/${id}/vetting`} sx={link}>
          {t('Vetting')}
        </Box>
        <Box component={NavLink} to={`/projects/${id}/plan`} sx={link}>
          {t('Plan')}
        </Box>
      </Stack>
    </>
  );
}

const PLACES = [
  ['/basket', t('Basket')],
  ['/orders', t('Orders')],
  ['/contacts', t('Contacts')],
  ['/owned', t('My names')],
  ['/watching', t('Watching')],
  ['/extensions', t('Extensions')],
  ['/sellers', t('Sellers')],
  ['/measures', t('Grades')],
  ['/about', t('About')],
  ['/settings', t('Settings')],
] as const;

// What stands in the bar itself; the basket and the bell lead to the others.
const BAR = PLACES.slice(5, -1);

/** All that stands at the right of the bar, in a menu, where the window is narrow. */
function PlacesMenu({ person, onLeave }: { person: string; onLeave: () => void }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = () => {
    setAnchor(null);
  };
  return (
    <>
      <Button
        color="inherit"
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ minWidth: 0 }}>
        {t('Menu')}
      </Button>
      <Menu disablePortal anchorEl={anchor} open={anchor !== null} onClose={close}>
        <MenuItem component={Link} to="/" onClick={close}>
          {t('Projects')}
        </MenuItem>
        {PLACES.map(([to, word]) => (
          <MenuItem key={to} component={Link} to={to} onClick={close}>
            {word}
          </MenuItem>
        ))}
        <MenuItem
          onClick={() => {
            close();
            onLeave();
          }}>
          {t('Sign out, {person}', { person })}
        </MenuItem>
      </Menu>
    </>
  );
}

const inWords = (value: Preferences[keyof Preferences]): string =>
  (typeof value === 'boolean'
    ? value
      ? t('yes')
      : t('no')
    : typeof value === 'object' && value !== null
      ? Object.entries(value)
          .map(([key, one]) => (Array.isArray(value) ? String(one) : `${key} ${String(one)}`))
          .join(', ')
      : String(value ?? '')) || 'none';

const SETTING: Readonly<Record<keyof Preferences, string>> = {
  theme: t('Paper'),
  density: t('Rows of the sheet'),
  locale: t('Numbers and dates, written as in'),
  currency: t('Prices in'),
  rate: t('One euro is'),
  weights: t('Weights for new projects'),
  extensions: t('Extensions for new projects'),
  letter_keys: t('Keys of one letter'),
  toured: t('The tour is put away'),
};

/** Settings changed in another window meanwhile, wherever one is. */
function SettingsElsewhere() {
  const { elsewhere, keepMine, takeTheirs } = usePreferences();
  if (!elsewhere) return null;
  const parts = Object.keys(elsewhere.mine).map((key) => ({
    word: SETTING[key as keyof Preferences],
    here: inWords(elsewhere.mine[key as keyof Preferences]),
    there: inWords(elsewhere.theirs[key as keyof Preferences]),
  }));
  return <Elsewhere what={t('This setting')} parts={parts} onMine={keepMine} onTheirs={takeTheirs} />;
}

/** The bar above every page, and the page. */
export function Shell({ person, liked }: { person: string; liked: Preferences['theme'] }) {
  useLikedPaper(liked);
  const { signOut } = useSession();
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const narrow = useMediaQuery('(max-width: 899.95px)');
  const id = Number(useMatch('/projects/:id/*')?.params.id);
  const inProject = Number.isInteger(id);
  const leave = () => {
    signOut.mutate(undefined, {
      onSuccess: () => {
        void navigate('/');
      },
    });
  };
  return (
    <Box
      sx={{
        height: '100%',
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr)',
        gridTemplateRows: 'auto minmax(0, 1fr)',
        '@media print': { display: 'block', height: 'auto' },
      }}>
      <SkipLink />
      <Stack
        component="header"
        direction="row"
        sx={{
          alignItems: 'center',
          gap: { xs: 1.5, md: 3 },
          px: { xs: 1, md: 2 },
          minHeight: { xs: 40, md: 46 },
          borderBottom: 2,
          borderColor: 'wire',
          bgcolor: 'background.paper',
          '@media print': { display: 'none' },
        }}>
        <Typography
          component={Link}
          to="/"
          className="serif"
          sx={{
            fontSize: '1.22rem',
            fontWeight: 600,
            color: 'primary.main',
            textDecoration: 'none',
            whiteSpace: 'nowrap',
            display: { xs: inProject ? 'none' : 'block', sm: 'block' },
          }}>
          {t('Vine Tag')}
        </Typography>
        {inProject ? <ProjectLinks id={id} /> : null}
        <Stack direction="row" sx={{ ml: 'auto', alignItems: 'center', gap: 1, flex: 'none' }}>
          {narrow ? (
            <>
              <Bell />
              <ModeButton />
              <PlacesMenu person={person} onLeave={leave} />
            </>
          ) : (
            <>
              {BAR.map(([to, word]) => (
                <Box key={to} component={NavLink} to={to} sx={{ color: 'text.secondary', textDecoration: 'none' }}>
                  {word}
                </Box>
              ))}
              <BasketLink />
              <Bell />
              <ModeButton />
              <Box component={NavLink} to="/settings" sx={{ color: 'text.secondary', textDecoration: 'none' }}>
                {t('Settings')}
              </Box>
              <Typography color="textSecondary" noWrap sx={{ maxWidth: 120 }} title={person}>
                {person}
              </Typography>
              <Button color="inherit" onClick={leave} disabled={signOut.isPending}>
                {t('Sign out')}
              </Button>
            </>
          )}
        </Stack>
      </Stack>
      <Box
        id="page"
        sx={{
          position: 'relative',
          overflowY: 'auto',
          minHeight: 0,
          '@media print': { overflow: 'visible' },
        }}>
        <SettingsElsewhere />
        <Mishap at={pathname}>
          <Suspense fallback={<LinearProgress aria-label={t('Loading')} />}>
            <Outlet />
          </Suspense>
        </Mishap>
      </Box>
    </Box>
  );
}

/** The first thing a key comes to: past the bar and the words, to what the page is about. */
function SkipLink() {
  const go = () => {
    const main = document.querySelector<HTMLElement>('[role="grid"]') ?? document.querySelector<HTMLElement>('main');
    if (!main) return;
    if (main.tabIndex < 0) main.tabIndex = -1;
    main.focus();
  };
  return (
    <Button
      variant="contained"
      onClick={go}
      sx={{
        position: 'absolute',
        left: 8,
        top: 4,
        zIndex: 20,
        '&:not(:focus-visible)': { clipPath: 'inset(50%)', pointerEvents: 'none' },
      }}>
      {t('To the names')}
    </Button>
  );
}
