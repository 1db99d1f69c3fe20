import { keepPreviousData, useQuery } from '@tanstack/react-query';

import { useProjectNames } from '../../shared/lib/useProjectNames';
import { api, keys, unwrap } from '../../shared/api';
import { extensionsQuery, sellersQuery } from '../../shared/lib/queries';

export const ROWS = 50;

/** The full names of one watch, a page of them. */
export const useWatchedNames = (watch: number, page: number) =>
  useQuery({
    queryKey: keys.watchedNames(watch, page),
    queryFn: () =>
      unwrap(
        api.GET('/api/watches/{watch_id}/names', {
          params: { path: { watch_id: watch }, query: { offset: page * ROWS, limit: ROWS } },
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** What a new watch can be of: projects, sellers, extensions. */
export function useChoices() {
  const projects = useProjectNames();
  const sellers = useQuery(sellersQuery);
  const extensions = useQuery(extensionsQuery);
  return { projects: projects.data, sellers: sellers.data, extensions: extensions.data };
}
