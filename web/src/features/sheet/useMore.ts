import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';

import { api, changed, keys, type Project, unwrap } from '../../shared/api';
import { useNotify } from '../../shared/ui/Notices';

/** After a change, so many milliseconds are waited for another before the rest of the list is asked for. */
const IDLE = 700;

/** Makes the list longer; the names already there keep their places. After a change only its first names are listed, and the rest follows by itself. */
export function useMore({ id, only_first, changed_at }: Project) {
  const client = useQueryClient();
  const notify = useNotify();
  const { mutate, isPending } = useMutation({
    mutationFn: () => unwrap(api.POST('/api/projects/{project_id}/more', { params: { path: { project_id: id } } })),
    onSuccess: (project) => {
      // An answer that comes late must not put back the brief of before.
      client.setQueryData<Project>(keys.project(id), (held) =>
        held && held.changed_at > project.changed_at ? held : project,
      );
      return changed.list(client, id);
    },
    onError: (error) => {
      notify(error.message);
    },
  });
  // A list that was made before it was opened is not being changed: nothing to wait for.
  const [opened] = useState(changed_at);
  useEffect(() => {
    if (!only_first) return;
    const timer = setTimeout(mutate, changed_at === opened ? 0 : IDLE);
    return () => {
      clearTimeout(timer);
    };
  }, [only_first, changed_at, opened, mutate]);
  return { more: mutate, making: isPending };
}
