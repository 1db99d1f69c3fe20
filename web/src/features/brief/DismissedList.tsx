import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, keys, unwrap } from '../../shared/api';
import { plural } from '../../shared/lib/format';

const MOST = 40;

/** Names sent away, and bringing them back. */
export function DismissedList({ projectId }: { projectId: number }) {
  const client = useQueryClient();
  const path = { project_id: projectId };
  const { data } = useQuery({
    queryKey: keys.dismissed(projectId),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/dismissed', { params: { path } })),
  });
  const back = useMutation({
    mutationFn: (label: string | null) =>
      label === null
        ? unwrap(api.DELETE('/api/projects/{project_id}/dismissed', { params: { path } }))
        : unwrap(api.DELETE('/api/projects/{project_id}/dismissed/{label}', { params: { path: { ...path, label } } })),
    onSettled: () => Promise.all([keys.dismissed(projectId), keys.names(projectId), keys.allDots(projectId), keys.funnel(projectId)].map((queryKey) => client.invalidateQueries({ queryKey }))),
  });
  if (!data?.length) return null;
  return (
    <Box component="section" aria-label="Dismissed">
      <Stack direction="row" sx={{ alignItems: 'baseline', justifyContent: 'space-between' }}>
        <Typography variant="h3" component="h2">Dismissed</Typography>
        <Button onClick={() => { back.mutate(null); }} disabled={back.isPending}>Bring all back</Button>
      </Stack>
      <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 0.5 }}>
        {data.slice(0, MOST).map(({ label }) => (
          <Chip key={label} size="small" variant="outlined" label={label} title="Bring it back" onClick={() => { back.mutate(label); }} />
        ))}
        {data.length > MOST && <Typography variant="caption" color="textSecondary">and {plural(data.length - MOST, 'more', 'more')}</Typography>}
      </Stack>
    </Box>
  );
}
