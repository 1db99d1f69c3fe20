import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';

import { api, asApiError, elsewhereOf, type Judged, type Kept, keys, unwrap } from '../../shared/api';
import { ChipsField } from '../../shared/ui/ChipsField';
import { Elsewhere } from '../../shared/ui/Elsewhere';

interface Props {
  projectId: number;
  label: string;
  shown: string;
  tags: readonly string[];
  /** Tags other names have, to choose from. */
  known: readonly string[];
}

const told = (tags: readonly string[]) => tags.join(', ') || 'none';

/** The tags of a kept name. Others set elsewhere meanwhile are never written over unasked. */
export function TagsField({ projectId, label, shown, tags, known }: Props) {
  const client = useQueryClient();
  const [unsaved, setUnsaved] = useState<readonly string[] | null>(null);
  // The tags that what stands here was made from.
  const base = useRef(tags);
  const keep = (saved: string[]) => {
    base.current = saved;
    client.setQueryData<Kept[]>(keys.shortlist(projectId), (list) =>
      list?.map((k) => (k.label === label ? { ...k, tags: saved } : k)),
    );
    client.setQueryData<Judged>(keys.name(projectId, label), (name) => name && { ...name, tags: saved });
    setUnsaved(null);
  };
  const { mutate, error, isPending, reset } = useMutation({
    scope: { id: `tags-${projectId}-${label}` },
    mutationFn: ({ next, over }: { next: readonly string[]; over?: readonly string[] }) =>
      unwrap(
        api.PATCH('/api/projects/{project_id}/shortlist/names/{label}', {
          params: { path: { project_id: projectId, label } },
          body: { tags: [...next], seen: { tags: over ?? base.current } },
        }),
      ),
    onMutate: ({ next }) => {
      setUnsaved(next);
    },
    onSuccess: ({ tags: saved = [] }) => {
      keep(saved);
    },
  });
  const theirs = elsewhereOf<{ tags: string[] }>(error)?.tags ?? null;
  useEffect(() => {
    if (!isPending && theirs === null) base.current = tags;
  }, [tags, isPending, theirs]);
  const failed = theirs === null ? asApiError(error) : null;
  return (
    <>
      <ChipsField
        label={`Tags of ${shown}`}
        value={unsaved ?? tags}
        options={known}
        onChange={(next) => {
          if (theirs) setUnsaved(next);
          else mutate({ next });
        }}
        error={failed ? (failed.at('tags', true) ?? failed.message) : undefined}
      />
      {theirs && (
        <Elsewhere
          what="The list of tags"
          parts={[{ word: 'Tags', here: told(unsaved ?? tags), there: told(theirs) }]}
          onMine={() => {
            mutate({ next: unsaved ?? tags, over: theirs });
          }}
          onTheirs={() => {
            keep(theirs);
            reset();
          }}
        />
      )}
    </>
  );
}
