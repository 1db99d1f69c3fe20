import { useQuery } from '@tanstack/react-query';

import { api, type CostQuestion, keys, unwrap } from '../../shared/api';

const SOON = 5_000;

/** Who sells names, how old their lists are, and what changed in them. */
export const useSellers = () =>
  useQuery({
    queryKey: keys.sellers,
    queryFn: () => unwrap(api.GET('/api/sellers')),
    staleTime: 60_000,
    // Just after the start nobody has been asked yet.
    refetchInterval: (query) => (query.state.data?.sellers.some((s) => s.dated) ? false : SOON),
  });

/** What the names of a question cost; nothing while there are none. `edition` is that of the price lists. */
export const useCosts = (projectId: number, question: CostQuestion, edition: string) =>
  useQuery({
    queryKey: keys.costs(projectId, question, edition),
    queryFn: () =>
      unwrap(
        api.POST('/api/projects/{project_id}/costs', { params: { path: { project_id: projectId } }, body: question }),
      ),
    enabled: question.full_names.length > 0,
    placeholderData: (before) => before,
    staleTime: 60_000,
  });
