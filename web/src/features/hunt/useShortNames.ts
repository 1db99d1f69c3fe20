import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useCallback, useMemo } from 'react';

import { api, keys, type ShortQuestion, unwrap } from '../../shared/api';
import { useAddress } from '../../shared/lib/useAddress';

export type ShortAsked = Readonly<Omit<ShortQuestion, 'limit'>>;
type Change = { [K in keyof ShortAsked]?: ShortAsked[K] | undefined };
export type ShortAsk = (part: Change) => void;

export const SHORT_PAGE = 60;
const WHILE_CHECKING = 1_500;
const TEXTS = ['shape', 'letters', 'text', 'starts', 'initials', 'extensions'] as const;
const FLAGS = ['sayable', 'every'] as const;

function read(params: URLSearchParams): ShortAsked {
  const found: Record<string, string | number | boolean> = {};
  for (const field of TEXTS) if (params.get(field)) found[field] = params.get(field) ?? '';
  for (const field of FLAGS) if (params.get(field) === '1') found[field] = true;
  const offset = Number(params.get('offset'));
  if (offset > 0) found.offset = offset;
  return found;
}

/** What is asked of short names; it lives in the address. */
export function useShortQuestion(): [ShortAsked, ShortAsk] {
  const [params, turn] = useAddress();
  const asked = useMemo(() => read(params), [params]);
  const ask = useCallback<ShortAsk>(
    (part) => {
      turn((now) => {
        const next = { ...read(now), ...part };
        const fields = Object.entries(next as Record<string, unknown>).filter(([, value]) => Boolean(value));
        return new URLSearchParams(fields.map(([field, value]) => [field, value === true ? '1' : String(value)]));
      });
    },
    [turn],
  );
  return [asked, ask];
}

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

/** How many names of a shape are left, by extension and day. */
export const useScarcity = (shape: string) =>
  useQuery({
    queryKey: keys.scarcity(shape),
    queryFn: () => unwrap(api.GET('/api/scarcity', { params: { query: { shape } } })),
    staleTime: 300_000,
  });
