import { useCallback, useMemo } from 'react';

import { type Asked, type Change, changed, FIELDS, readAsked, writeAsked } from '../../shared/lib/asked';
import { useAddress } from '../../shared/lib/useAddress';

/** The question in the address, and a way to change parts of it; what else the address holds stays. */
export function useQuestion(): [Asked, (part: Change) => void] {
  const [params, turn] = useAddress();
  const asked = useMemo(() => readAsked(params), [params]);
  const change = useCallback((part: Change) => {
    turn((now) => {
      const next = new URLSearchParams(writeAsked(changed(readAsked(now), part)));
      for (const [name, value] of now) if (!(FIELDS as readonly string[]).includes(name)) next.append(name, value);
      return next;
    });
  }, [turn]);
  return [asked, change];
}
