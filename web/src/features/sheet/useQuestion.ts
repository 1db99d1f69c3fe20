import { useCallback, useMemo } from 'react';

import { type Ask, type SheetQuestion, changed, FIELDS, readQuestion, writeQuestion } from '../../shared/lib/question';
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
export function useQuestion(): [SheetQuestion, Ask] {
  const [params, turn] = useAddress();
  const question = useMemo(() => readQuestion(params), [params]);
  const change = useCallback<Ask>(
    (part) => {
      // A press is a step one can go back from; letters typed, and sliders, are not each one.
      const steps = Object.keys(typeof part === 'function' ? { sort: 1 } : part).some((field) => STEPS.has(field));
      turn(
        (now) => {
          const before = readQuestion(now);
          const next = new URLSearchParams(
            writeQuestion(changed(before, typeof part === 'function' ? part(before) : part)),
          );
          for (const [name, value] of now) if (!(FIELDS as readonly string[]).includes(name)) next.append(name, value);
          return next;
        },
        { replace: !steps },
      );
    },
    [turn],
  );
  return [question, change];
}
