import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, changed, keys, unwrap } from '../../shared/api';
import { shortlistQuery } from '../../shared/lib/queries';
import { useNotify } from '../../shared/ui/Notices';

const FRESH = 15_000;

/** The project's links, and making, closing and deleting them. */
export function useShares(projectId: number) {
  const client = useQueryClient();
  const notify = useNotify();
  const path = { project_id: projectId };
  const refresh = () => changed.shares(client, projectId);
  const onError = (error: Error) => {
    notify(error.message);
  };
  return {
    kept: useQuery(shortlistQuery(projectId)),
    shares: useQuery({
      queryKey: keys.shares(projectId),
      queryFn: () => unwrap(api.GET('/api/projects/{project_id}/shares', { params: { path } })),
      refetchInterval: FRESH,
    }),
    make: useMutation({
      mutationFn: (body: { title: string; labels: string[]; ends_at: string; vetted: boolean }) =>
        unwrap(api.POST('/api/projects/{project_id}/shares', { params: { path }, body })),
      onSuccess: refresh,
    }),
    revoke: useMutation({
      mutationFn: ({ id, revoked }: { id: number; revoked: boolean }) =>
        unwrap(
          api.PATCH('/api/projects/{project_id}/shares/{share_id}', {
            params: { path: { ...path, share_id: id } },
            body: { revoked },
          }),
        ),
      onSuccess: refresh,
      onError,
    }),
    remove: useMutation({
      mutationFn: (id: number) =>
        unwrap(
          api.DELETE('/api/projects/{project_id}/shares/{share_id}', {
            params: { path: { ...path, share_id: id } },
          }),
        ),
      onSuccess: refresh,
      onError,
    }),
  };
}

/** What came of a link; looked at again while the page is open. */
export const useResults = (projectId: number, shareId: number) =>
  useQuery({
    queryKey: keys.results(projectId, shareId),
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/shares/{share_id}', {
          params: { path: { project_id: projectId, share_id: shareId } },
        }),
      ),
    refetchInterval: FRESH,
  });
