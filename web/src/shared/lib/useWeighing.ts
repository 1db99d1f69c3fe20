import { useQuery } from '@tanstack/react-query';

import { api, keys, unwrap } from '../api';

/** How the measures make a grade: presets by purpose, the mean, and worked examples. */
export const useWeighing = () =>
  useQuery({ queryKey: keys.weighing, queryFn: () => unwrap(api.GET('/api/measures')), staleTime: Infinity });
