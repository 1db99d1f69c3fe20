import { queryOptions } from '@tanstack/react-query';

import { api, keys, type Question, unwrap } from '../api';
import type { SheetQuestion } from './question';

/** So many rows of the sheet come at once. */
export const PAGE = 60;

/** Who is signed in. */
export const sessionQuery = queryOptions({
  queryKey: keys.session,
  queryFn: () => unwrap(api.GET('/api/session')),
  staleTime: Infinity,
});

/** What there is of each kind of thing. */
export const conceptsQuery = queryOptions({
  queryKey: keys.concepts,
  queryFn: () => unwrap(api.GET('/api/concepts')),
  staleTime: Infinity,
  gcTime: Infinity,
});

/** One project. */
export const projectQuery = (id: number) =>
  queryOptions({
    queryKey: keys.project(id),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}', { params: { path: { project_id: id } } })),
    staleTime: Infinity,
  });

/** A page of the sheet. */
export const pageQuery = (projectId: number, question: SheetQuestion, page: number) => {
  const query: Question = { ...question, offset: page * PAGE, limit: PAGE };
  return queryOptions({
    queryKey: keys.sheet(projectId, query),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/projects/{project_id}/names', {
          params: { path: { project_id: projectId }, query },
          signal,
        }),
      ),
  });
};

/** The kept names, in the person's order. */
export const shortlistQuery = (projectId: number) =>
  queryOptions({
    queryKey: keys.shortlist(projectId),
    queryFn: () =>
      unwrap(api.GET('/api/projects/{project_id}/shortlist', { params: { path: { project_id: projectId } } })),
  });

/** What is known of the shortlist from vetting. */
export const vettingQuery = (projectId: number) =>
  queryOptions({
    queryKey: keys.vetting(projectId),
    queryFn: () =>
      unwrap(api.GET('/api/projects/{project_id}/vetting', { params: { path: { project_id: projectId } } })),
  });

/** The catalogue of extensions, and what goes with it: countries, kinds of work, rules. */
export const extensionsQuery = queryOptions({
  queryKey: keys.extensions,
  queryFn: () => unwrap(api.GET('/api/extensions')),
  staleTime: 300_000,
});

const SOON = 5_000;

/** Who sells names, how old their lists are, and what changed in them. */
export const sellersQuery = queryOptions({
  queryKey: keys.sellers,
  queryFn: () => unwrap(api.GET('/api/sellers')),
  staleTime: 60_000,
  // Just after the start those that publish lists have not been asked yet.
  refetchInterval: ({ state: { data } }) =>
    data && (!data.follows || data.sellers.some((s) => s.publishes && s.dated)) ? false : SOON,
});
