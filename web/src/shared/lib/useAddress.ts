import { useCallback, useEffect } from 'react';
import { useSearchParams } from 'react-router';

type Turn = (now: URLSearchParams) => URLSearchParams;

// What the address is about to be. The router follows a moment later; two changes within that moment must not overwrite each other.
let coming: URLSearchParams | null = null;

/** The query of the address, and a way to change it that builds on changes still under way. */
export function useAddress(): [URLSearchParams, (turn: Turn, options?: { replace: boolean }) => void] {
  const [params, setParams] = useSearchParams();
  useEffect(() => { coming = null; }, [params]);
  const change = useCallback((turn: Turn, options = { replace: true }) => {
    coming = turn(coming ?? params);
    setParams(coming, options);
  }, [params, setParams]);
  return [params, change];
}
