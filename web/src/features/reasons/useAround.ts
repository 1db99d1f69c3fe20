import { useQuery } from '@tanstack/react-query';

import { api, keys, unwrap } from '../../shared/api';

const FRESH = 60_000;

/** The statuses of a typed name; each name's own answer, so that an older one never takes its place. */
export const useQuick = (projectId: number, label: string) =>
  useQuery({
    queryKey: keys.quick(projectId, label),
    queryFn: ({ signal }) =>
      unwrap(
        api.POST('/api/projects/{project_id}/quick', {
          params: { path: { project_id: projectId } },
          body: { label, aim: 'scan' },
          signal,
        }),
      ),
    staleTime: FRESH,
    retry: false,
  });

/** Where to look when a name is taken, in the order of the brief. */
export const useLadder = (projectId: number, label: string, order: readonly string[]) =>
  useQuery({
    queryKey: keys.fallback(projectId, label, order.join()),
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/names/{label}/fallback', {
          params: { path: { project_id: projectId, label } },
        }),
      ),
  });

/** Names near a name. */
export const useNear = (projectId: number, label: string) =>
  useQuery({
    queryKey: keys.near(projectId, label),
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/names/{label}/near', {
          params: { path: { project_id: projectId, label } },
        }),
      ),
    staleTime: FRESH,
  });

/** What people type who mean a name, or a full name; as fresh as what is known of it. */
export const useMistypes = (projectId: number, name: string) =>
  useQuery({
    queryKey: keys.mistypes(projectId, name),
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/names/{label}/mistypes', {
          params: { path: { project_id: projectId, label: name } },
        }),
      ),
  });
