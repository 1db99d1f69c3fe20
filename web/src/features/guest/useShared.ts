import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, changed, keys, type Shared, unwrap } from '../../shared/api';

/** What a guest sees under a link, and may do there. */
export function useShared(token: string) {
  const client = useQueryClient();
  const path = { token };
  const queryKey = keys.shared(token);
  const put = (change: (page: Shared) => Shared) => {
    client.setQueryData<Shared>(queryKey, (page) => page && change(page));
  };
  const refresh = () => changed.shared(client, token);
  return {
    page: useQuery({
      queryKey,
      queryFn: () => unwrap(api.GET('/api/shared/{token}', { params: { path } })),
      retry: false,
    }),
    join: useMutation({
      mutationFn: (first_name: string) =>
        unwrap(api.POST('/api/shared/{token}/join', { params: { path }, body: { first_name } })),
      onSuccess: (page) => {
        client.setQueryData(queryKey, page);
      },
    }),
    vote: useMutation({
      mutationFn: (body: { label: string; value: -1 | 0 | 1 }) =>
        unwrap(api.POST('/api/shared/{token}/vote', { params: { path }, body })),
      onMutate: ({ label, value }) => {
        put((page) => ({
          ...page,
          names: page.names.map((n) => (n.label === label ? { ...n, vote: value } : n)),
        }));
      },
      onError: refresh,
    }),
    comment: useMutation({
      mutationFn: (body: { label: string; text: string }) =>
        unwrap(api.POST('/api/shared/{token}/comments', { params: { path }, body })),
      onSuccess: refresh,
    }),
    takeBack: useMutation({
      mutationFn: (id: number) =>
        unwrap(
          api.DELETE('/api/shared/{token}/comments/{comment_id}', {
            params: { path: { ...path, comment_id: id } },
          }),
        ),
      onSettled: refresh,
    }),
    hear: useMutation({
      mutationFn: (body: { label: string; typed: string }) =>
        unwrap(api.POST('/api/shared/{token}/hearing', { params: { path }, body })),
      onSuccess: (_, { label }) => {
        put((page) => ({ ...page, heard: [...page.heard, label] }));
      },
    }),
    recall: useMutation({
      mutationFn: (body: { shown: string[]; typed: string }) =>
        unwrap(api.POST('/api/shared/{token}/recall', { params: { path }, body })),
      onSuccess: () => {
        put((page) => ({ ...page, recalled: true }));
      },
    }),
  };
}

export type Under = ReturnType<typeof useShared>;
