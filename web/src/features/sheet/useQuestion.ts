import { useCallback, useMemo } from 'react';

import { type Ask, type Asked, changed, FIELDS, readAsked, writeAsked } from '../../shared/lib/asked';
import { useAddress } from '../../shared/lib/useAddress';

const STEPS: ReadonlySet<string> = new Set([
  'sort',
  'reverse',
  'open_in',
  'open_all',
  'status',
  'mark',
  'recipes',
  'hyphen',
  'digit',
  'added',
]);

/** The question in the address, and a way to change parts of it; what else the address holds stays. */
export function useQuestion(): [Asked, Ask] {
  const [params, turn] = useAddress();
  const asked = useMemo(() => readAsked(params), [params]);
  const change = useCallback<Ask>(
    (part) => {
      // A press is a step one can go back from; letters typed, and sliders, are not each one.
      const steps = Object.keys(typeof part === 'function' ? { sort: 1 } : part).some((field) => STEPS.has(field));
      turn(
        (now) => {
          const before = readAsked(now);
          const next = new URLSearchParams(
            writeAsked(changed(before, typeof part === 'function' ? part(before) : part)),
          );
          for (const [name, value] of now) if (!(FIELDS as readonly string[]).includes(name)) next.append(name, value);
          return next;
        },
        { replace: !steps },
      );
    },
    [turn],
  );
  return [asked, change];
}
