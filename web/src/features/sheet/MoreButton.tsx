import Button from '@mui/material/Button';
import { useMutation, useQueryClient } from '@tanstack/react-query';

import { api, keys, unwrap } from '../../shared/api';
import { useNotify } from '../../shared/ui/Notices';

/** Makes the list longer; the names already there keep their places. */
export function MoreButton({ projectId }: { projectId: number }) {
  const client = useQueryClient();
  const notify = useNotify();
  const more = useMutation({
    mutationFn: () => unwrap(api.POST('/api/projects/{project_id}/more', { params: { path: { project_id: projectId } } })),
    onSuccess: (project) => {
      client.setQueryData(keys.project(projectId), project);
      return Promise.all([keys.names(projectId), keys.counts(projectId), keys.allDots(projectId), keys.funnel(projectId)].map((queryKey) => client.invalidateQueries({ queryKey })));
    },
    onError: (error) => { notify(error.message); },
  });
  return <Button onClick={() => { more.mutate(); }} disabled={more.isPending} sx={{ alignSelf: 'center', my: 0.3 }}>{more.isPending ? 'Making names…' : 'More names'}</Button>;
}
