import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, changed, type KeptWatch, keys, unwrap, type WatchChange, type WatchWish } from '../api';
import { t } from '../texts';
import { useNotify } from '../ui/Notices';

/** What somebody may leave out of a wish. */
export type Wish = Partial<WatchWish> & Pick<WatchWish, 'kind'>;

const PLAIN = { title: '', reason: '', seller: '', extension: '', action: 'renew' };

/** All that is watched, and how much of what may be is. */
export const useWatches = () =>
  useQuery({
    queryKey: keys.watches,
    queryFn: () => unwrap(api.GET('/api/watches')),
    refetchInterval: 30_000,
  });

/** Watching something, changing what is watched, ending it with a way back, and taking away what is over. */
export function useWatching() {
  const client = useQueryClient();
  const notify = useNotify();
  const onSuccess = () => changed.watches(client);
  const onError = (error: Error) => {
    notify(error.message);
  };
  const change = useMutation({
    mutationFn: ({ id, ...body }: WatchChange & { id: number }) =>
      unwrap(api.PATCH('/api/watches/{watch_id}', { params: { path: { watch_id: id } }, body })),
    onSuccess,
  });
  return {
    start: useMutation({
      mutationFn: ({ project, ...body }: Wish & { project: number }) =>
        unwrap(
          api.POST('/api/projects/{project_id}/watches', {
            params: { path: { project_id: project } },
            body: { ...PLAIN, ...body },
          }),
        ),
      onSuccess: (watch) => {
        notify(t('“{title}” is watched.', { title: watch.title }));
        return onSuccess();
      },
    }),
    change,
    end: (watch: Pick<KeptWatch, 'id' | 'title'>) =>
      change.mutate(
        { id: watch.id, ended: true },
        {
          onSuccess: () =>
            notify(t('“{title}” is watched no more.', { title: watch.title }), () =>
              change.mutate({ id: watch.id, ended: false }, { onError }),
            ),
          onError,
        },
      ),
    remove: useMutation({
      mutationFn: (id: number) => unwrap(api.DELETE('/api/watches/{watch_id}', { params: { path: { watch_id: id } } })),
      onSuccess,
      onError,
    }),
  };
}
