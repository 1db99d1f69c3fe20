import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, changed, keys, type Ranking, unwrap } from '../../shared/api';
import { useNotify } from '../../shared/ui/Notices';
import { t } from '../../shared/texts';

/** Which of two is better: the ranking so far, answering, taking back, beginning anew, and the shortlist in its order. */
export function useDuels(projectId: number) {
  const client = useQueryClient();
  const notify = useNotify();
  const params = { path: { project_id: projectId } };
  const queryKey = keys.duels(projectId);
  const onSuccess = (ranking: Ranking) => {
    client.setQueryData(queryKey, ranking);
  };
  const onError = (error: Error) => {
    notify(error.message);
  };
  return {
    duels: useQuery({
      queryKey,
      queryFn: () => unwrap(api.GET('/api/projects/{project_id}/duels', { params })),
      staleTime: 0,
    }),
    answer: useMutation({
      mutationFn: (body: { winner: string; loser: string; tie?: boolean }) =>
        unwrap(api.POST('/api/projects/{project_id}/duels', { params, body: { tie: false, ...body } })),
      scope: { id: `duels-${projectId}` },
      onSuccess,
      onError,
    }),
    back: useMutation({
      mutationFn: () => unwrap(api.POST('/api/projects/{project_id}/duels/back', { params })),
      scope: { id: `duels-${projectId}` },
      onSuccess,
      onError,
    }),
    forget: useMutation({
      mutationFn: () => unwrap(api.DELETE('/api/projects/{project_id}/duels', { params })),
      onSuccess: () => changed.duels(client, projectId),
      onError,
    }),
    order: useMutation({
      mutationFn: () => unwrap(api.POST('/api/projects/{project_id}/duels/order', { params })),
      onSuccess: () => {
        notify(t('The shortlist stands in this order now.'));
        return changed.shortlist(client, projectId);
      },
      onError,
    }),
  };
}
