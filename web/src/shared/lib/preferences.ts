import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, elsewhereOf, keys, type Preferences, type Session, unwrap } from '../api';
import { sessionQuery } from './queries';

type Part = Partial<Preferences>;

interface Change {
  part: Part;
  /** The same as it was before. */
  seen: Part;
}

/** What was changed here, and what somebody changed it to elsewhere meanwhile. */
export interface PreferencesElsewhere {
  mine: Part;
  theirs: Part;
}

const only = (whole: Preferences, part: Part): Part =>
  Object.fromEntries(Object.keys(part).map((key) => [key, whole[key as keyof Preferences]]));

/** Whether it is the demo's account one is in. */
export const useIsDemo = (): boolean => useQuery({ ...sessionQuery, enabled: false }).data?.person?.demo ?? false;

/** How the person likes things, and changing it: shown at once, and only what is changed is sent. */
export function usePreferences() {
  const client = useQueryClient();
  const preferences = useQuery({ ...sessionQuery, enabled: false }).data?.person?.preferences;
  const elsewhere =
    useQuery<PreferencesElsewhere | null>({
      queryKey: keys.preferencesElsewhere,
      queryFn: () => null,
      enabled: false,
      gcTime: Infinity,
    }).data ?? null;
  const put = (part: Part) => {
    client.setQueryData<Session>(keys.session, (session) =>
      session?.person
        ? {
            ...session,
            person: { ...session.person, preferences: { ...session.person.preferences, ...part } },
          }
        : session,
    );
  };
  const say = (met: PreferencesElsewhere | null) => {
    client.setQueryData<PreferencesElsewhere | null>(keys.preferencesElsewhere, met);
  };
  const mutation = useMutation({
    mutationFn: ({ part, seen }: Change) =>
      unwrap(api.PATCH('/api/preferences', { body: { ...(part as Preferences), seen } })),
    scope: { id: 'preferences' },
    onMutate: ({ part }) => {
      put(part);
    },
    // What other changes are under way stays as it is shown.
    onSuccess: (kept, { part }) => {
      put(only(kept, part));
    },
    onError: (error, { part, seen }) => {
      const theirs = elsewhereOf<Part>(error);
      put(theirs ?? seen);
      if (theirs) say({ mine: part, theirs });
    },
  });
  const keep = (part: Part) => {
    const now = client.getQueryData<Session>(keys.session)?.person?.preferences;
    if (now) mutation.mutate({ part, seen: only(now, part) });
  };
  return {
    preferences,
    keep,
    error: elsewhereOf(mutation.error) ? null : mutation.error,
    saving: mutation.isPending,
    elsewhere,
    keepMine: () => {
      say(null);
      if (elsewhere) mutation.mutate({ part: elsewhere.mine, seen: elsewhere.theirs });
    },
    takeTheirs: () => {
      say(null);
    },
  };
}
