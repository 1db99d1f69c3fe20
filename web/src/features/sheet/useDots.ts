import { keepPreviousData, useQuery } from '@tanstack/react-query';

import { api, keys, unwrap } from '../../shared/api';
import type { Asked } from '../../shared/lib/asked';

/** The names that match, figure by figure. */
export const useDots = (projectId: number, asked: Asked) =>
  useQuery({
    queryKey: keys.dots(projectId, asked),
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/dots', {
          params: { path: { project_id: projectId }, query: asked },
        }),
      ),
    placeholderData: keepPreviousData,
  });
