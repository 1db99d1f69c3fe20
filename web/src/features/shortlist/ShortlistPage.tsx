import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';

import { asApiError } from '../../shared/api';
import { plural } from '../../shared/lib/format';
import { useOpenProject } from '../../shared/lib/projectContext';
import { useKeep } from '../../shared/lib/useKeep';
import { Blank } from '../../shared/ui/Blank';
import { AddName } from './AddName';
import { ShortlistRow } from './ShortlistRow';
import { useShortlist } from './useShortlist';

/** The kept names, with notes, in an order of the person's own. */
export function ShortlistPage() {
  const project = useOpenProject();
  const { list, move, add } = useShortlist(project.id);
  const keep = useKeep(project.id);
  const error = asApiError(list.error);
  const kept = list.data ?? [];
  const toBench = <Button component={Link} to={`/projects/${project.id}`} variant="contained">To the bench</Button>;
  return (
    <Box component="main" sx={{ maxWidth: 1180, mx: 'auto', px: 3, py: 3 }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'flex-start', mb: 2, gap: 2 }}>
        <Box>
          <Typography variant="h1">Shortlist</Typography>
          {list.data && <Typography color="textSecondary">{plural(kept.length, 'name')} · the first is the favourite</Typography>}
        </Box>
        <Stack direction="row" sx={{ gap: 2 }}>
          <AddName add={add} />
          <Button component="a" href={`/api/projects/${project.id}/shortlist.csv`} download variant="outlined" disabled={kept.length === 0} sx={{ minHeight: 38, alignSelf: 'flex-start' }}>Export as CSV</Button>
        </Stack>
      </Stack>
      {list.isPending && <Stack sx={{ gap: 1 }}>{[0, 1, 2].map((i) => <Skeleton key={i} variant="rounded" height={84} />)}</Stack>}
      {error && !list.data && <Blank alert title="The shortlist could not be loaded" action={<Button variant="outlined" onClick={() => { void list.refetch(); }}>Try again</Button>}>{error.message}</Blank>}
      {list.data?.length === 0 && <Blank title="Nothing is kept yet" action={toBench}>Keep a name at the bench with its tag, or the key t. It comes here, with room for a note.</Blank>}
      <Stack component="ol" aria-label="Shortlist" sx={{ listStyle: 'none', m: 0, p: 0, gap: 1 }}>
        {kept.map((item, i) => (
          <ShortlistRow key={item.label} projectId={project.id} kept={item} place={i + 1} last={i === kept.length - 1} extensions={project.brief.extensions} onMove={(by) => { move(i, i + by); }} onRemove={() => { keep.mutate({ label: item.label, kept: false }); }} />
        ))}
      </Stack>
    </Box>
  );
}
