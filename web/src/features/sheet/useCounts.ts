import { keepPreviousData, useQuery } from '@tanstack/react-query';

import { api, keys, unwrap } from '../../shared/api';
import type { SheetQuestion } from '../../shared/lib/question';

/** How many names each filter would leave. */
export function useCounts(projectId: number, question: SheetQuestion) {
  const query: Record<string, unknown> = { ...question };
  delete query.sort;
  delete query.reverse;
  return useQuery({
    queryKey: keys.count(projectId, query),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/projects/{project_id}/names/counts', {
          params: { path: { project_id: projectId }, query },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });
}
