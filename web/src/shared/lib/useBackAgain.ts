import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';

import { sessionQuery } from './queries';

/** Calls when the person has signed in again after their session ended, so that what was not saved for it is. */
export function useBackAgain(act: () => void): void {
  const signedIn = useQuery({ ...sessionQuery, enabled: false }).data?.person != null;
  const was = useRef(signedIn);
  const latest = useRef(act);
  useEffect(() => {
    latest.current = act;
  });
  useEffect(() => {
    if (signedIn && !was.current) latest.current();
    was.current = signedIn;
  }, [signedIn]);
}
