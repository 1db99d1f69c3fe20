import { useMutation, useQueryClient } from '@tanstack/react-query';

import { api, changed, keys, type Session, unwrap } from '../../shared/api';

/** Changing what belongs to the account; who leaves, or ends all sessions, is signed out here too. */
export function useAccount() {
  const client = useQueryClient();
  const out = (session: Session) => {
    changed.person(client);
    client.setQueryData(keys.left, true);
    client.setQueryData(keys.session, session);
  };
  return {
    change: useMutation({
      mutationFn: (body: { password: string; new: string }) => unwrap(api.POST('/api/session/password', { body })),
      onSuccess: (session) => {
        client.setQueryData(keys.session, session);
      },
    }),
    endAll: useMutation({ mutationFn: () => unwrap(api.POST('/api/session/end-all')), onSuccess: out }),
    leave: useMutation({
      mutationFn: (password: string) => unwrap(api.POST('/api/session/leave', { body: { password } })),
      onSuccess: out,
    }),
  };
}
