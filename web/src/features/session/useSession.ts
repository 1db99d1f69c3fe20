import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, changed, keys, type Session, unwrap } from '../../shared/api';
import { sessionQuery } from '../../shared/lib/queries';

export interface Credentials {
  username: string;
  password: string;
}

/** Who is signed in, and the ways to change that. */
export function useSession() {
  const client = useQueryClient();
  const session = useQuery(sessionQuery);
  const become = (next: Session) => {
    changed.person(client);
    client.setQueryData(keys.left, next.person === null);
    client.setQueryData(keys.session, next);
  };
  /** The same person goes on where they were: nothing on the page is thrown away. */
  const goOn = (next: Session) => {
    client.setQueryData(keys.session, next);
    void changed.everything(client);
  };
  return {
    session,
    goOn: useMutation({
      mutationFn: (body: Credentials) => unwrap(api.POST('/api/session/sign-in', { body })),
      onSuccess: goOn,
    }),
    demoAgain: useMutation({ mutationFn: () => unwrap(api.POST('/api/session/demo')), onSuccess: goOn }),
    signIn: useMutation({
      mutationFn: (body: Credentials) => unwrap(api.POST('/api/session/sign-in', { body })),
      onSuccess: become,
    }),
    signUp: useMutation({
      mutationFn: (body: Credentials) => unwrap(api.POST('/api/session/sign-up', { body })),
      onSuccess: become,
    }),
    enterDemo: useMutation({ mutationFn: () => unwrap(api.POST('/api/session/demo')), onSuccess: become }),
    signOut: useMutation({ mutationFn: () => unwrap(api.POST('/api/session/sign-out')), onSuccess: become }),
  };
}
