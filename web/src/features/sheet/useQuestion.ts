import { useCallback, useMemo } from 'react';

import { type Ask, type Asked, changed, FIELDS, readAsked, writeAsked } from '../../shared/lib/asked';
import { useAddress } from '../../shared/lib/useAddress';

/** The question in the address, and a way to change parts of it; what else the address holds stays. */
export function useQuestion(): [Asked, Ask] {
  const [params, turn] = useAddress();
  const asked = useMemo(() => readAsked(params), [params]);
  const change = useCallback<Ask>((part) => {
    turn((now) => {
      const before = readAsked(now);
      const next = new URLSearchParams(writeAsked(changed(before, typeof part === 'function' ? part(before) : part)));
      for (const [name, value] of now) if (!(FIELDS as readonly string[]).includes(name)) next.append(name, value);
      return next;
    });
  }, [turn]);
  return [asked, change];
}
