import { keepPreviousData, useQuery } from '@tanstack/react-query';

import { api, keys, unwrap } from '../../shared/api';
import type { SheetQuestion } from '../../shared/lib/question';

/** The names that match, figure by figure. */
export const useDots = (projectId: number, question: SheetQuestion) =>
  useQuery({
    queryKey: keys.dots(projectId, question),
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/dots', {
          params: { path: { project_id: projectId }, query: question },
        }),
      ),
    placeholderData: keepPreviousData,
  });
