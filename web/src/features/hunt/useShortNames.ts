import { keepPreviousData, useQuery } from '@tanstack/react-query';

import { api, keys, type ShortQuestion, unwrap } from '../../shared/api';
import { AddressFields, type AskOf, useAsked } from '../../shared/lib/addressFields';

export type ShortAsked = Readonly<Omit<ShortQuestion, 'limit'>>;
export type ShortAsk = AskOf<ShortAsked>;

export const SHORT_PAGE = 60;
const WHILE_CHECKING = 1_500;
const FIELDS = new AddressFields<ShortAsked>({
  texts: ['shape', 'letters', 'text', 'starts', 'initials', 'extensions'],
  numbers: ['offset'],
  flags: ['sayable', 'every'],
});
const STEPS: ReadonlySet<string> = new Set(['extensions', 'sayable', 'every']);

/** What is asked of short names; it lives in the address. */
export const useShortQuestion = () => useAsked(FIELDS, STEPS);

/** One page of short names; looked at again and again while some of them are asked about. */
export const useShortNames = (projectId: number, asked: ShortAsked, checking: boolean) =>
  useQuery({
    queryKey: keys.short(projectId, asked),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/projects/{project_id}/short', {
          params: { path: { project_id: projectId }, query: { ...asked, limit: SHORT_PAGE } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    refetchInterval: checking ? WHILE_CHECKING : false,
    retry: false,
  });

/** The shape that is counted for one that is asked for: itself, or all of as many letters. */
export const countedShape = (shape: string): string => (/^[CV]+$/.test(shape) ? shape : '?'.repeat(shape.length));

/** What names for sale cost by extension and letters. */
export const useLengthPrices = (projectId: number, extensions: string) =>
  useQuery({
    queryKey: keys.lengthPrices(projectId, extensions),
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/prices', {
          params: { path: { project_id: projectId }, query: { extensions } },
        }),
      ),
    staleTime: 300_000,
    retry: false,
  });

/** How many names of a shape are left, by extension and day. */
export const useScarcity = (shape: string) =>
  useQuery({
    queryKey: keys.scarcity(shape),
    queryFn: () => unwrap(api.GET('/api/scarcity', { params: { query: { shape } } })),
    staleTime: 300_000,
  });
