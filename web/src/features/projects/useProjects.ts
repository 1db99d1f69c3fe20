import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, type Brief, keys, unwrap } from '../../shared/api';

/** The brief a new project starts with. */
export const freshBrief = (name: string, keywords: readonly string[]): Brief => ({
  name,
  purpose: 'mix',
  keywords: keywords.map((text) => ({ text, weight: 3, senses: [], drop: [] })),
  avoid: [],
  limits: { letters_min: 4, letters_max: 15, words: 3, hyphens: 0, digits: 0 },
  extensions: ['com', 'net', 'org'],
  places: [],
  making: { off: [], daring: 35, added_max: 8, shapes: [] },
  weights: {},
});

/** The person's projects, and making, removing and bringing them back. */
export function useProjects() {
  const client = useQueryClient();
  const refresh = () => client.invalidateQueries({ queryKey: keys.projects });
  return {
    projects: useQuery({ queryKey: keys.projects, queryFn: () => unwrap(api.GET('/api/projects')) }),
    create: useMutation({
      mutationFn: ({ name, keywords }: { name: string; keywords: readonly string[] }) =>
        unwrap(api.POST('/api/projects', { body: { name, brief: freshBrief(name, keywords) } })),
      onSuccess: refresh,
    }),
    remove: useMutation({
      mutationFn: (id: number) => unwrap(api.DELETE('/api/projects/{project_id}', { params: { path: { project_id: id } } })),
      onSuccess: refresh,
    }),
    restore: useMutation({
      mutationFn: (id: number) => unwrap(api.POST('/api/projects/{project_id}/restore', { params: { path: { project_id: id } } })),
      onSuccess: refresh,
    }),
  };
}
