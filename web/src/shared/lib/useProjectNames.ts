import { useQuery } from '@tanstack/react-query';

import { api, keys, unwrap } from '../api';

/** One's projects, for putting names into. */
export const useProjectNames = () =>
  useQuery({ queryKey: keys.projects, queryFn: () => unwrap(api.GET('/api/projects')) });
