import { useMutation, useQueryClient } from '@tanstack/react-query';

import { api, type Judged, keys, type Page, unwrap } from '../api';
import { useNotify } from '../ui/Notices';

export interface KeepChange {
  label: string;
  kept: boolean;
}

/** Keeps a name on the shortlist, or takes it off; shown at once, and put back if it fails. */
export function useKeep(projectId: number) {
  const client = useQueryClient();
  const notify = useNotify();
  const show = ({ label, kept }: KeepChange) => {
    client.setQueriesData<Page>({ queryKey: keys.names(projectId) }, (page) =>
      page && { ...page, rows: page.rows.map((row) => (row.label === label ? { ...row, kept } : row)) },
    );
    client.setQueryData<Judged>(keys.name(projectId, label), (name) => name && { ...name, kept });
  };
  const mutation = useMutation({
    mutationFn: async ({ label, kept }: KeepChange) => {
      const path = { project_id: projectId };
      if (kept) await unwrap(api.POST('/api/projects/{project_id}/shortlist', { params: { path }, body: { label } }));
      else await unwrap(api.DELETE('/api/projects/{project_id}/shortlist/names/{label}', { params: { path: { ...path, label } } }));
    },
    scope: { id: `keep-${projectId}` },
    onMutate: show,
    onSuccess: (_, change) => {
      if (!change.kept) notify(`${change.label} was taken off the shortlist.`, () => { mutation.mutate({ ...change, kept: true }); });
    },
    onError: (error, change) => {
      show({ ...change, kept: !change.kept });
      notify(error.message);
    },
    onSettled: () => Promise.all([keys.funnel(projectId), keys.allDots(projectId), keys.shortlist(projectId)].map((queryKey) => client.invalidateQueries({ queryKey }))),
  });
  return mutation;
}
