import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

import { api, keys, type Project, unwrap } from '../../shared/api';
import { useNotify } from '../../shared/ui/Notices';

/** After a list was made, so long is waited for another change before the rest of it is asked for. */
const IDLE = 1200;

/** Makes the list longer; the names already there keep their places. After a change only its first names are listed, and the rest follows by itself. */
export function useMore({ id, only_first, changed_at }: Project) {
  const client = useQueryClient();
  const notify = useNotify();
  const { mutate, isPending } = useMutation({
    mutationFn: () => unwrap(api.POST('/api/projects/{project_id}/more', { params: { path: { project_id: id } } })),
    onSuccess: (project) => {
      // An answer that comes late must not put back the brief of before.
      client.setQueryData<Project>(keys.project(id), (held) => (held && held.changed_at > project.changed_at ? held : project));
      return Promise.all([keys.names(id), keys.counts(id), keys.allDots(id), keys.funnel(id)].map((queryKey) => client.invalidateQueries({ queryKey })));
    },
    onError: (error) => { notify(error.message); },
  });
  useEffect(() => {
    if (!only_first) return;
    const timer = setTimeout(mutate, IDLE);
    return () => { clearTimeout(timer); };
  }, [only_first, changed_at, mutate]);
  return { more: mutate, making: isPending };
}
