import { useMemo } from 'react';
import { useSearchParams } from 'react-router';

import type { Question } from '../../shared/api';

export type Sort = NonNullable<Question['sort']>;
const SORTS: readonly Sort[] = ['best', 'grade', 'name', 'letters', 'length', 'spelling', 'fit', 'sound', 'memory', 'clarity'];

/** What is asked of the sheet; it lives in the address, so that a link shows the same. */
export interface Asked {
  sort: Sort;
  reverse: boolean;
  text: string;
  open_in: string;
  good: boolean;
  kept: boolean;
}

export const EVERYTHING: Asked = { sort: 'best', reverse: false, text: '', open_in: '', good: false, kept: false };

function read(params: URLSearchParams): Asked {
  const sort = SORTS.find((s) => s === params.get('sort')) ?? 'best';
  const flag = (name: string) => params.get(name) === '1';
  return { sort, reverse: flag('reverse'), text: params.get('text') ?? '', open_in: params.get('open_in') ?? '', good: flag('good'), kept: flag('kept') };
}

/** The question in the address, and a way to change parts of it. */
export function useQuestion(): [Asked, (part: Partial<Asked>) => void] {
  const [params, setParams] = useSearchParams();
  const asked = useMemo(() => read(params), [params]);
  const change = (part: Partial<Asked>) => {
    const next = { ...asked, ...part };
    const kept = Object.entries(next).filter(([name, value]) => value !== EVERYTHING[name as keyof Asked]);
    const address = new URLSearchParams(kept.map(([name, value]) => [name, value === true ? '1' : String(value)]));
    const show = params.get('show');
    if (show) address.set('show', show);
    setParams(address, { replace: true });
  };
  return [asked, change];
}

const SHOWN = ['statuses', 'measures', 'plot'] as const;
export type Shown = (typeof SHOWN)[number];

/** What stands beside the names, kept in the address too. */
export function useShown(): [Shown, (shown: Shown) => void] {
  const [params, setParams] = useSearchParams();
  const change = (shown: Shown) => {
    const next = new URLSearchParams(params);
    if (shown === 'statuses') next.delete('show');
    else next.set('show', shown);
    setParams(next, { replace: true });
  };
  return [SHOWN.find((s) => s === params.get('show')) ?? 'statuses', change];
}

/** Whether anything narrows the list. */
export const narrows = (asked: Asked): boolean => Boolean(asked.text) || Boolean(asked.open_in) || asked.good || asked.kept;
