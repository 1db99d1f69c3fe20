import { useQuery } from '@tanstack/react-query';

import { api, keys, unwrap } from '../../shared/api';

/** The names sent away. */
export const useDismissed = (projectId: number) =>
  useQuery({
    queryKey: keys.dismissed(projectId),
    queryFn: () =>
      unwrap(api.GET('/api/projects/{project_id}/dismissed', { params: { path: { project_id: projectId } } })),
  });
