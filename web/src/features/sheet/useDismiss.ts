import { useMutation, useQueryClient } from '@tanstack/react-query';

import { api, keys, type Page, unwrap } from '../../shared/api';
import { useNotify } from '../../shared/ui/Notices';

/** Sends a name away: gone from the sheet at once and from lists to come, until it is brought back. */
export function useDismiss(projectId: number) {
  const client = useQueryClient();
  const notify = useNotify();
  const path = { project_id: projectId };
  const refresh = () => Promise.all([keys.names(projectId), keys.allDots(projectId), keys.funnel(projectId), keys.dismissed(projectId)].map((queryKey) => client.invalidateQueries({ queryKey })));
  const back = useMutation({
    mutationFn: (label: string) => unwrap(api.DELETE('/api/projects/{project_id}/dismissed/{label}', { params: { path: { ...path, label } } })),
    onError: (error) => { notify(error.message); },
    onSettled: refresh,
  });
  return useMutation({
    mutationFn: (label: string) => unwrap(api.POST('/api/projects/{project_id}/dismissed', { params: { path }, body: { label } })),
    onMutate: (label) => {
      client.setQueriesData<Page>({ queryKey: keys.names(projectId) }, (page) => {
        const rows = page?.rows.filter((row) => row.label !== label);
        return page && rows && { rows, total: page.total - (page.rows.length - rows.length) };
      });
    },
    onSuccess: (_, label) => { notify(`${label} was dismissed.`, () => { back.mutate(label); }); },
    onError: (error) => { notify(error.message); },
    onSettled: refresh,
  });
}
