import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, changed, keys, unwrap } from '../../shared/api';

const FRESH = 15_000;
const FEW = 8;
const MANY = 40;
const zone = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The last few things that happened, and how many are new; looked at again and again. */
export const useLatest = () =>
  useQuery({
    queryKey: keys.happenings,
    queryFn: () => unwrap(api.GET('/api/happenings', { params: { query: { limit: FEW, zone: zone() } } })),
    refetchInterval: FRESH,
  });

/** All that happened, page by page. */
export const useAllHappenings = () =>
  useInfiniteQuery({
    queryKey: keys.allHappenings,
    queryFn: ({ pageParam }) =>
      unwrap(
        api.GET('/api/happenings', {
          params: { query: { limit: MANY, zone: zone(), ...(pageParam && { before: pageParam }) } },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: ({ rows }) => (rows.length < MANY ? undefined : rows.at(-1)?.id),
  });

/** All up to one were read. */
export function useRead() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (upto: number) => unwrap(api.POST('/api/happenings/read', { body: { upto } })),
    onSuccess: () => changed.happenings(client),
  });
}
