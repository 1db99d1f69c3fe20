import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';

import {
  api,
  ApiError,
  type Brief,
  changed,
  type Filing,
  keys,
  type Preferences,
  type Project,
  unwrap,
} from '../../shared/api';
import { usePreferences } from '../../shared/lib/preferences';
import { t } from '../../shared/texts';

const USUAL_EXTENSIONS = ['com', 'net', 'org'];
const GLANCE = 15_000;

/** The brief a new project starts with. */
export const freshBrief = (
  name: string,
  about: string,
  keywords: readonly string[],
  liked?: Pick<Preferences, 'extensions' | 'weights'>,
): Brief => ({
  name,
  about,
  purpose: 'mix',
  keywords: keywords.map((text) => ({ text, weight: 3, senses: [], drop: [] })),
  avoid: [],
  limits: { letters_min: 4, letters_max: 16, words: 4, hyphens: 0, digits: 0 },
  extensions: liked?.extensions.length ? [...liked.extensions] : USUAL_EXTENSIONS,
  places: [],
  making: { off: [], daring: 35, added_max: 8, shapes: [] },
  weights: { ...liked?.weights },
  owner: { country: '', kind: '', work: 'any', budget: null, years: 5, budget_whole: null },
  fallback: ['exact_first', 'exact_next', 'hyphen_first', 'added_first', 'hyphen_next', 'added_next'],
  world: { on: [], off: [], drop: [], weights: {}, own: {} },
  classes: [],
  markets: [],
});

const LOOK_EVERY = 400;
const rest = () =>
  new Promise((done) => {
    setTimeout(done, LOOK_EVERY);
  });

/** Follows a project that is made of a file, or copied, until it is there; `tell` hears how far it is, in percent. */
async function follow(begun: Filing, tell: (done: number) => void): Promise<Project> {
  let job = begun;
  while (job.state === 'waiting' || job.state === 'working') {
    tell(job.done);
    await rest();
    job = await unwrap(api.GET('/api/filings/{filing_id}', { params: { path: { filing_id: job.id } } }));
  }
  if (!job.project) throw new ApiError(400, 'problems', t('Some of this needs another look.'), job.problems);
  return job.project;
}

/** The person's projects and where they stand, and making, copying, putting by, removing and bringing them back. */
export function useProjects() {
  const client = useQueryClient();
  const { preferences } = usePreferences();
  const refresh = () => changed.projects(client);
  // Of the file or the copy under way: how far it is, in percent.
  const [done, setDone] = useState(0);
  const path = (id: number) => ({ params: { path: { project_id: id } } });
  return {
    overview: useQuery({
      queryKey: keys.overview,
      queryFn: () => unwrap(api.GET('/api/overview')),
      refetchInterval: GLANCE,
    }),
    create: useMutation({
      mutationFn: ({ name, about, keywords }: { name: string; about: string; keywords: readonly string[] }) =>
        unwrap(
          api.POST('/api/projects', {
            body: { name, brief: freshBrief(name, about, keywords, preferences) },
          }),
        ),
      onSuccess: (project) => {
        client.setQueryData(keys.project(project.id), project);
        void refresh();
      },
    }),
    done,
    copy: useMutation({
      mutationFn: async (id: number) =>
        follow(await unwrap(api.POST('/api/projects/{project_id}/duplicate', path(id))), setDone),
      onSuccess: refresh,
      onSettled: () => {
        setDone(0);
      },
    }),
    archive: useMutation({
      mutationFn: ({ id, archived }: { id: number; archived: boolean }) =>
        unwrap(api.PUT('/api/projects/{project_id}/archive', { ...path(id), body: { archived } })),
      onSuccess: refresh,
    }),
    remove: useMutation({
      mutationFn: (id: number) => unwrap(api.DELETE('/api/projects/{project_id}', path(id))),
      onSuccess: refresh,
    }),
    restore: useMutation({
      mutationFn: (id: number) => unwrap(api.POST('/api/projects/{project_id}/restore', path(id))),
      onSuccess: refresh,
    }),
    bring: useMutation({
      mutationFn: async (file: File) =>
        follow(
          await unwrap(
            api.POST('/api/projects/file', {
              body: {},
              bodySerializer: () => file,
              headers: { 'Content-Type': 'application/json' },
            }),
          ),
          setDone,
        ),
      onSuccess: refresh,
      onSettled: () => {
        setDone(0);
      },
    }),
  };
}
