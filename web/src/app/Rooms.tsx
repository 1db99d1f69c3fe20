import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { Link, Route, Routes } from 'react-router';

import { ProjectsPage } from '../features/projects/ProjectsPage';
import { SignInPage } from '../features/session/SignInPage';
import { useSession } from '../features/session/useSession';
import { ShortlistPage } from '../features/shortlist/ShortlistPage';
import { Blank } from '../shared/ui/Blank';
import { AboutPage } from './AboutPage';
import { BenchPage } from './BenchPage';
import { MeasuresPage } from './MeasuresPage';
import { ProjectRoom } from './ProjectRoom';
import { Shell } from './Shell';

const Nowhere = () => (
  <Blank title="There is nothing at this address" action={<Button component={Link} to="/" variant="outlined">To the projects</Button>}>
    It may have been removed, or belong to someone else.
  </Blank>
);

/** What stands at each address, for who is signed in. */
export function Rooms() {
  const { session } = useSession();
  if (session.isPending) return <LinearProgress aria-label="Loading" />;
  if (session.isError) {
    return (
      <Blank alert title="Vine Tag cannot be reached" action={<Button variant="outlined" onClick={() => { void session.refetch(); }}>Try again</Button>}>
        {session.error.message}
      </Blank>
    );
  }
  if (!session.data.person) return <SignInPage />;
  return (
    <Routes>
      <Route element={<Shell person={session.data.person.username} />}>
        <Route index element={<ProjectsPage />} />
        <Route path="projects/:id" element={<ProjectRoom missing={<Nowhere />} />}>
          <Route index element={<BenchPage />} />
          <Route path="shortlist" element={<ShortlistPage />} />
        </Route>
        <Route path="about" element={<AboutPage />} />
        <Route path="measures" element={<MeasuresPage />} />
        <Route path="*" element={<Nowhere />} />
      </Route>
    </Routes>
  );
}
