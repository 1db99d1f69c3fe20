import {
  keepPreviousData,
  type QueryClient,
  queryOptions,
  useQueries,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query';

import { api, keys, unwrap } from '../api';

const nameQuery = (projectId: number, label: string) =>
  queryOptions({
    queryKey: keys.name(projectId, label),
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/names/{label}', {
          params: { path: { project_id: projectId, label } },
        }),
      ),
  });

/** All about one name of a project, made or typed. */
export const useName = (projectId: number, label: string | null) =>
  useQuery({
    ...nameQuery(projectId, label ?? ''),
    enabled: label !== null,
    placeholderData: keepPreviousData,
  });

/** Whether a name can be one, and all about it; for names as they are typed. */
export const useTypedName = (projectId: number, label: string | null) =>
  useQuery({ ...nameQuery(projectId, label ?? ''), enabled: label !== null, retry: false });

/** All about a typed name, null when it will not do. */
export function useAskTypedName(projectId: number) {
  const client = useQueryClient();
  return (label: string) =>
    client.query({ ...nameQuery(projectId, label), retry: false, staleTime: 10_000 }).catch(() => null);
}

/** Fetches names that will be wanted next. */
export function prefetchNames(client: QueryClient, projectId: number, labels: readonly string[]): void {
  for (const label of labels)
    client.query({ ...nameQuery(projectId, label), staleTime: 60_000 }).catch(() => undefined);
}

/** Several names at once. */
export const useNames = (projectId: number, labels: readonly string[]) =>
  useQueries({ queries: labels.map((label) => nameQuery(projectId, label)) });

/** So many names can stand side by side. */
export const MOST_COMPARED = 6;
