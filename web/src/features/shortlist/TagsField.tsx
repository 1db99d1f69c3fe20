import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';

import { api, asApiError, type Judged, type Kept, keys, unwrap } from '../../shared/api';
import { ChipsField } from '../../shared/ui/ChipsField';

interface Props {
  projectId: number;
  label: string;
  shown: string;
  tags: readonly string[];
  /** Tags other names have, to choose from. */
  known: readonly string[];
}

/** The tags of a kept name. */
export function TagsField({ projectId, label, shown, tags, known }: Props) {
  const client = useQueryClient();
  const [refused, setRefused] = useState<readonly string[] | null>(null);
  const { mutate, error } = useMutation({
    mutationFn: (next: string[]) => unwrap(api.PATCH('/api/projects/{project_id}/shortlist/names/{label}', { params: { path: { project_id: projectId, label } }, body: { tags: next } })),
    onMutate: setRefused,
    onSuccess: ({ tags: saved = [] }) => {
      client.setQueryData<Kept[]>(keys.shortlist(projectId), (list) => list?.map((k) => (k.label === label ? { ...k, tags: saved } : k)));
      client.setQueryData<Judged>(keys.name(projectId, label), (name) => name && { ...name, tags: saved });
      setRefused(null);
    },
  });
  const failed = asApiError(error);
  return <ChipsField label={`Tags of ${shown}`} value={refused ?? tags} options={known} onChange={(next) => { mutate(next); }} error={failed ? (failed.at('tags', true) ?? failed.message) : undefined} />;
}
