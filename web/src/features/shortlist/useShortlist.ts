import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, changed, elsewhereOf, type Judged, type Kept, keys, unwrap } from '../../shared/api';
import { shortlistQuery } from '../../shared/lib/queries';
import { useNotify } from '../../shared/ui/Notices';
import { t } from '../../shared/texts';

interface Order {
  labels: readonly string[];
  /** As they were before. */
  seen: readonly string[];
}

/** The kept names in the person's order, and putting them in another. */
export function useShortlist(projectId: number) {
  const client = useQueryClient();
  const notify = useNotify();
  const path = { project_id: projectId };
  const { queryKey } = shortlistQuery(projectId);
  const list = useQuery(shortlistQuery(projectId));
  const order = useMutation({
    mutationFn: ({ labels, seen }: Order) =>
      unwrap(
        api.PUT('/api/projects/{project_id}/shortlist/order', {
          params: { path },
          body: { labels: [...labels], seen: { labels: seen } },
        }),
      ),
    scope: { id: `order-${projectId}` },
    onMutate: async ({ labels }) => {
      await client.cancelQueries({ queryKey });
      const place = new Map(labels.map((label, i) => [label, i]));
      client.setQueryData<Kept[]>(
        queryKey,
        (kept) => kept && [...kept].sort((a, b) => (place.get(a.label) ?? 0) - (place.get(b.label) ?? 0)),
      );
    },
    onError: (error) => {
      if (elsewhereOf(error)) return;
      notify(error.message);
      void changed.shortlist(client, projectId);
    },
  });
  const add = useMutation({
    mutationFn: (label: string) =>
      unwrap(api.POST('/api/projects/{project_id}/shortlist', { params: { path }, body: { labels: [label] } })),
    onSuccess: () => changed.kept(client, projectId),
  });
  const settle = useMutation({
    mutationFn: ({ label, extension, seen }: { label: string; extension: string; seen: string }) =>
      unwrap(
        api.PATCH('/api/projects/{project_id}/shortlist/names/{label}', {
          params: { path: { ...path, label } },
          body: { extension, seen: { extension: seen } },
        }),
      ),
    scope: { id: `settle-${projectId}` },
    onMutate: ({ label, extension }) => {
      client.setQueryData<Kept[]>(queryKey, (kept) => kept?.map((k) => (k.label === label ? { ...k, extension } : k)));
      client.setQueryData<Judged>(keys.name(projectId, label), (name) => name && { ...name, extension });
    },
    onError: (error, { label }) => {
      const theirs = elsewhereOf<{ extension: string }>(error);
      notify(
        theirs
          ? theirs.extension
            ? t('{label} was kept as {label}.{extension} in another window meanwhile.', {
                label,
                extension: theirs.extension,
              })
            : t('{label} was kept as a name alone in another window meanwhile.', { label })
          : error.message,
      );
    },
    onSettled: (_, __, { label }) =>
      Promise.all([changed.shortlist(client, projectId), changed.names(client, projectId, [label])]),
  });
  const move = (from: number, to: number) => {
    const seen = (list.data ?? []).map((kept) => kept.label);
    const labels = [...seen];
    const [label] = labels.splice(from, 1);
    if (!label || to < 0 || to > labels.length) return;
    labels.splice(to, 0, label);
    order.mutate({ labels, seen });
  };
  const theirs = elsewhereOf<{ labels: string[] }>(order.error)?.labels;
  const mine = order.variables?.labels ?? [];
  /** The order somebody gave elsewhere meanwhile, beside the one given here; names kept meanwhile come last in it. */
  const elsewhere = theirs && {
    mine: [...mine.filter((label) => theirs.includes(label)), ...theirs.filter((label) => !mine.includes(label))],
    theirs,
    keepMine: () => {
      if (elsewhere)
        order.mutate(
          { labels: elsewhere.mine, seen: theirs },
          {
            onSuccess: () => {
              void changed.shortlist(client, projectId);
            },
          },
        );
    },
    takeTheirs: () => {
      order.reset();
      void changed.shortlist(client, projectId);
    },
  };
  return { list, move, add, settle, elsewhere };
}
