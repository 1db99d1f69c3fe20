import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, changed, keys, type PrivateFeed, type TellingChange, unwrap } from '../../shared/api';
import { useNotify } from '../../shared/ui/Notices';

/** How the person is told by letter; looked at again while one is on its way. */
export function useTelling() {
  const client = useQueryClient();
  const onSuccess = () => changed.telling(client);
  return {
    telling: useQuery({
      queryKey: keys.telling,
      queryFn: () => unwrap(api.GET('/api/telling')),
      refetchInterval: ({ state }) =>
        state.data?.letters.some((one) => ['waiting', 'sending'].includes(one.state)) ? 3_000 : false,
    }),
    change: useMutation({
      mutationFn: (body: TellingChange) =>
        unwrap(
          api.PATCH('/api/telling', {
            body: { zone: Intl.DateTimeFormat().resolvedOptions().timeZone, ...body },
          }),
        ),
      onSuccess,
    }),
    confirm: useMutation({
      mutationFn: (code: string) => unwrap(api.POST('/api/telling/confirm', { body: { code } })),
      onSuccess,
    }),
  };
}

/** Addresses at which others read what happened, or what is to come. */
export function useFeeds() {
  const client = useQueryClient();
  const notify = useNotify();
  const onError = (error: Error) => {
    notify(error.message);
  };
  const onSuccess = () => changed.feeds(client);
  return {
    feeds: useQuery({ queryKey: keys.feeds, queryFn: () => unwrap(api.GET('/api/feeds')) }),
    make: useMutation({
      mutationFn: (kind: PrivateFeed['kind']) => unwrap(api.POST('/api/feeds', { body: { kind } })),
      onSuccess,
      onError,
    }),
    revoke: useMutation({
      mutationFn: (id: number) => unwrap(api.DELETE('/api/feeds/{feed_id}', { params: { path: { feed_id: id } } })),
      onSuccess,
      onError,
    }),
  };
}
