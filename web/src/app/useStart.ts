import { skipToken, useQuery, useQueryClient } from '@tanstack/react-query';

import { keys } from '../shared/api';
import { conceptsQuery } from '../shared/lib/queries';
import { prefetchBench } from './prefetch';

/** What there is of each kind of thing, which everything drawn goes by. */
export const useConcepts = () => useQuery(conceptsQuery);

/** Whether the person left (a session that ended by itself leaves the page as it is), leaving, and asking for a bench before it is opened. */
export function useStart() {
  const client = useQueryClient();
  return {
    left: useQuery<boolean>({ queryKey: keys.left, queryFn: skipToken }).data === true,
    leave: () => {
      client.setQueryData(keys.left, true);
    },
    prepare: (id: number) => {
      void prefetchBench(client, id);
    },
  };
}
