import { keepPreviousData, useQuery } from '@tanstack/react-query';

import { api, keys, unwrap } from '../../shared/api';

export type Case = 'typed' | 'lower' | 'upper';

/** A text set in every typeface there is. */
export const useWordmarks = (asked: { text: string; spacing: number; case: Case }) =>
  useQuery({
    queryKey: keys.settings(asked),
    queryFn: () => unwrap(api.GET('/api/wordmarks', { params: { query: asked } })),
    placeholderData: keepPreviousData,
    enabled: asked.text.trim() !== '',
    staleTime: Infinity,
  });
