import { MutationCache, QueryCache, QueryClient } from '@tanstack/react-query';

import { ApiError, changed } from '../shared/api';

const LOST_SESSION = 'not_authenticated';

/** The cache of everything the server said. A session that ended is asked for again. */
export function makeQueryClient(): QueryClient {
  const onError = (error: Error) => {
    if (error instanceof ApiError && error.code === LOST_SESSION) void changed.session(client);
  };
  const client = new QueryClient({
    queryCache: new QueryCache({ onError }),
    mutationCache: new MutationCache({ onError }),
    defaultOptions: {
      // Being offline is said like any other failure; a paused request would say nothing.
      mutations: { networkMode: 'always' },
      queries: {
        networkMode: 'always',
        // Only a server that could not be reached, or failed, is worth another try.
        retry: (tries, error) => tries < 2 && error instanceof ApiError && (error.status === 0 || error.status >= 500),
        staleTime: 10_000,
      },
    },
  });
  return client;
}
