import { useQuery } from '@tanstack/react-query';

import { api, type CostQuestion, keys, unwrap } from '../../shared/api';

/** Who sells names, how old their lists are, and what changed in them. */
export const useSellers = () =>
  useQuery({
    queryKey: keys.sellers,
    queryFn: () => unwrap(api.GET('/api/sellers')),
    staleTime: 60_000,
  });

/** What the names of a question cost; nothing while there are none. */
export const useCosts = (projectId: number, question: CostQuestion) =>
  useQuery({
    queryKey: keys.costs(projectId, question),
    queryFn: () =>
      unwrap(
        api.POST('/api/projects/{project_id}/costs', { params: { path: { project_id: projectId } }, body: question }),
      ),
    enabled: question.full_names.length > 0,
    placeholderData: (before) => before,
    staleTime: 60_000,
  });
