import { type QueryClient, useMutation, useQueryClient } from '@tanstack/react-query';
import { type RefObject } from 'react';

import { api, type Judged, type Kept, keys, unwrap } from '../../shared/api';

type Remarks = Pick<Kept, 'note' | 'tags'>;

/** What was kept with a name stands wherever the name does. What was asked for before it was kept may not know it yet:
 * that is asked for once more, and never written over it. */
async function put(client: QueryClient, projectId: number, label: string, part: Partial<Remarks>): Promise<void> {
  const places = [keys.shortlist(projectId), keys.name(projectId, label)];
  const asked = places.filter((queryKey) => client.isFetching({ queryKey, exact: true }) > 0);
  await Promise.all(asked.map((queryKey) => client.cancelQueries({ queryKey, exact: true })));
  client.setQueryData<Kept[]>(keys.shortlist(projectId), (list) =>
    list?.map((kept) => (kept.label === label ? { ...kept, ...part } : kept)),
  );
  client.setQueryData<Judged>(keys.name(projectId, label), (name) => name && { ...name, ...part });
  for (const queryKey of asked) void client.invalidateQueries({ queryKey, exact: true });
}

interface Of {
  projectId: number;
  label: string;
}

/** Keeping the note of a name; `baseRef` holds the note that is written over. */
export function useNote(
  { projectId, label }: Of,
  baseRef: RefObject<string>,
  onError: (why: Error, written: string) => void,
) {
  const client = useQueryClient();
  return useMutation({
    scope: { id: `note-${projectId}-${label}` },
    mutationFn: ({ written, over }: { written: string; over?: string }) =>
      unwrap(
        api.PATCH('/api/projects/{project_id}/shortlist/names/{label}', {
          params: { path: { project_id: projectId, label } },
          body: { note: written, seen: { note: over ?? baseRef.current } },
        }),
      ),
    onError: (why, { written }) => {
      onError(why, written);
    },
    onSuccess: ({ note = '' }) => {
      baseRef.current = note;
      return put(client, projectId, label, { note });
    },
  });
}

/** Keeping the tags of a name; `baseRef` holds the tags the next ones were made from. `settle` puts those kept wherever the name is. */
export function useTags({ projectId, label }: Of, baseRef: RefObject<readonly string[]>) {
  const client = useQueryClient();
  const settle = (tags: string[]) => {
    baseRef.current = tags;
    return put(client, projectId, label, { tags });
  };
  const kept = useMutation({
    scope: { id: `tags-${projectId}-${label}` },
    mutationFn: ({ next, over }: { next: readonly string[]; over?: readonly string[] }) =>
      unwrap(
        api.PATCH('/api/projects/{project_id}/shortlist/names/{label}', {
          params: { path: { project_id: projectId, label } },
          body: { tags: [...next], seen: { tags: over ?? baseRef.current } },
        }),
      ),
    onSuccess: ({ tags = [] }) => settle(tags),
  });
  return { ...kept, settle };
}
