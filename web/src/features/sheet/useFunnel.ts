import { useQuery } from '@tanstack/react-query';

import { api, keys, unwrap } from '../../shared/api';

/** What became of the names, step by step. */
export const useFunnel = (projectId: number) =>
  useQuery({
    queryKey: keys.funnel(projectId),
    queryFn: () =>
      unwrap(api.GET('/api/projects/{project_id}/funnel', { params: { path: { project_id: projectId } } })),
  });
