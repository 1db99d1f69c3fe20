import { keepPreviousData, queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';

import { api, changed, keys, type Markets, unwrap } from '../../shared/api';
import { PAGE } from '../../shared/lib/queries';
import type { HuntQuestion } from './huntQuestion';

const WHILE_READING = 1_500;

export const huntQuery = (projectId: number, question: HuntQuestion, page: number) => {
  const query = { ...question, offset: page * PAGE, limit: PAGE };
  return queryOptions({
    queryKey: keys.hunt(projectId, query),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/projects/{project_id}/hunt', { params: { path: { project_id: projectId }, query }, signal }),
      ),
    staleTime: 60_000,
  });
};

/** The first page of the hunt, which also says how many there are. */
export const useFirstHunt = (projectId: number, question: HuntQuestion) =>
  useQuery({ ...huntQuery(projectId, question, 0), placeholderData: keepPreviousData });

/** How many a question leaves, by kind, market and extension. */
export const useHuntCounts = (projectId: number, question: HuntQuestion) =>
  useQuery({
    queryKey: keys.huntCounts(projectId, question),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/projects/{project_id}/hunt/counts', {
          params: { path: { project_id: projectId }, query: question },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });

/** The markets there are, and the lists that came; looked at again while lists come. */
export const useMarkets = () =>
  useQuery({
    queryKey: keys.markets,
    queryFn: () => unwrap(api.GET('/api/markets')),
    refetchInterval: ({ state }) => (state.data?.coming ? WHILE_READING : false),
  });

/** What a project's hunt shows is asked anew when a market tells anything newer. */
export function useNewLists(projectId: number, markets: Markets | undefined): void {
  const client = useQueryClient();
  const told = markets?.markets.map(({ code, told_at }) => `${code} ${told_at}`).join();
  const before = useRef(told);
  useEffect(() => {
    if (before.current !== undefined && before.current !== told) void changed.offers(client, projectId);
    before.current = told;
  }, [told, client, projectId]);
}

/** Bringing a list of a market that is not followed. */
export function useBringOffers() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ file, code, name }: { file: File; code: string; name: string }) =>
      unwrap(
        api.POST('/api/markets/{code}/list', {
          params: { path: { code }, query: { name } },
          // The file as it is, however it is packed.
          body: file as unknown as string,
          bodySerializer: (body: unknown) => body as Blob,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      ),
    onSuccess: () => changed.markets(client),
  });
}
