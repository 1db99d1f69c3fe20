import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, keys, type Preferences, type Session, unwrap } from '../api';
import { sessionQuery } from './queries';

/** How the person likes things, and changing it. */
export function usePreferences(): { preferences: Preferences | undefined; keep: (part: Partial<Preferences>) => void; error: Error | null; saving: boolean } {
  const client = useQueryClient();
  const preferences = useQuery({ ...sessionQuery, enabled: false }).data?.person?.preferences;
  const mutation = useMutation({
    mutationFn: (next: Preferences) => unwrap(api.PUT('/api/preferences', { body: next })),
    scope: { id: 'preferences' },
    onSuccess: (kept) => { client.setQueryData<Session>(keys.session, (session) => session?.person ? { ...session, person: { ...session.person, preferences: kept } } : session); },
  });
  return { preferences, keep: (part) => { if (preferences) mutation.mutate({ ...preferences, ...part }); }, error: mutation.error, saving: mutation.isPending };
}
