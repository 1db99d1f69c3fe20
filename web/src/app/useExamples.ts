import { useQuery } from '@tanstack/react-query';

import { api, keys, unwrap } from '../shared/api';

/** Names worked out, measure by measure. */
export const useExamples = () =>
  useQuery({ queryKey: keys.examples, queryFn: () => unwrap(api.GET('/api/examples')), staleTime: Infinity });
