import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, type Brief, keys, type Preferences, type Project, unwrap } from '../../shared/api';
import { usePreferences } from '../../shared/lib/preferences';

const USUAL_EXTENSIONS = ['com', 'net', 'org'];
const GLANCE = 15_000;

/** The brief a new project starts with. */
export const freshBrief = (name: string, keywords: readonly string[], liked?: Pick<Preferences, 'extensions' | 'weights'>): Brief => ({
  name,
  purpose: 'mix',
  keywords: keywords.map((text) => ({ text, weight: 3, senses: [], drop: [] })),
  avoid: [],
  limits: { letters_min: 4, letters_max: 15, words: 3, hyphens: 0, digits: 0 },
  extensions: liked?.extensions?.length ? [...liked.extensions] : USUAL_EXTENSIONS,
  places: [],
  making: { off: [], daring: 35, added_max: 8, shapes: [] },
  weights: { ...liked?.weights },
  owner: { country: '', kind: '', work: 'any', budget: null },
  fallback: ['exact_first', 'exact_next', 'hyphen_first', 'added_first', 'hyphen_next', 'added_next'],
});

/** A project of a file the person chose; the server reads the file, and says what is wrong with it. */
async function bring(file: File): Promise<Project> {
  const content = await file.text();
  return unwrap(api.POST('/api/projects/file', { body: {}, bodySerializer: () => content, headers: { 'Content-Type': 'application/json' } }));
}

/** The person's projects and where they stand, and making, copying, putting by, removing and bringing them back. */
export function useProjects() {
  const client = useQueryClient();
  const { preferences } = usePreferences();
  const refresh = () => client.invalidateQueries({ queryKey: keys.projects });
  const path = (id: number) => ({ params: { path: { project_id: id } } });
  return {
    overview: useQuery({ queryKey: keys.overview, queryFn: () => unwrap(api.GET('/api/overview')), refetchInterval: GLANCE }),
    create: useMutation({
      mutationFn: ({ name, keywords }: { name: string; keywords: readonly string[] }) =>
        unwrap(api.POST('/api/projects', { body: { name, brief: freshBrief(name, keywords, preferences) } })),
      onSuccess: refresh,
    }),
    copy: useMutation({ mutationFn: (id: number) => unwrap(api.POST('/api/projects/{project_id}/duplicate', path(id))), onSuccess: refresh }),
    archive: useMutation({ mutationFn: ({ id, archived }: { id: number; archived: boolean }) => unwrap(api.PUT('/api/projects/{project_id}/archive', { ...path(id), body: { archived } })), onSuccess: refresh }),
    remove: useMutation({ mutationFn: (id: number) => unwrap(api.DELETE('/api/projects/{project_id}', path(id))), onSuccess: refresh }),
    restore: useMutation({ mutationFn: (id: number) => unwrap(api.POST('/api/projects/{project_id}/restore', path(id))), onSuccess: refresh }),
    bring: useMutation({ mutationFn: bring, onSuccess: refresh }),
  };
}
