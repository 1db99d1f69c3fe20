import { keepPreviousData, useQuery } from '@tanstack/react-query';

import { api, keys, unwrap } from '../../shared/api';

/** All about one name of a project, made or typed. */
export const useName = (projectId: number, label: string | null) =>
  useQuery({
    queryKey: keys.name(projectId, label ?? ''),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/names/{label}', { params: { path: { project_id: projectId, label: label ?? '' } } })),
    enabled: label !== null,
    placeholderData: keepPreviousData,
  });
