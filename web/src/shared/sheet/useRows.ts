import { useQueries, type UseQueryOptions } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';

import { PAGE } from '../lib/queries';

/** While one scrolls, pages are asked for at most this often, in milliseconds. */
const EVERY = 90;

export interface PageOf<R> {
  rows: readonly R[];
  total: number;
}

/** The last value, followed at most every EVERY milliseconds. */
function useThrottled(value: number): number {
  const [followed, setFollowed] = useState(value);
  const last = useRef(0);
  useEffect(() => {
    const wait = Math.max(0, last.current + EVERY - performance.now());
    const timer = setTimeout(() => {
      last.current = performance.now();
      setFollowed(value);
    }, wait);
    return () => {
      clearTimeout(timer);
    };
  }, [value]);
  return followed;
}

/** The row at a place, if it has come. */
export type RowAt<R> = (index: number) => R | undefined;

/** A way to get at the rows from place `first` to `last`, and those just before and after; those not loaded yet are undefined. */
export function useRows<P extends PageOf<unknown>, K extends readonly unknown[]>(
  queryOf: (page: number) => UseQueryOptions<P, Error, P, K>,
  top: P | undefined,
  first: number,
  last: number,
): RowAt<P['rows'][number]> {
  const from = useThrottled(Math.max(1, Math.floor((first - PAGE / 3) / PAGE)));
  // Who has begun to scroll goes on: what comes next is there before it is seen.
  const ahead = first > 0 ? PAGE : PAGE / 3;
  const to = useThrottled(Math.floor((last + ahead) / PAGE));
  const wanted: number[] = [];
  for (let page = from; page <= to && page * PAGE < (top?.total ?? 0); page += 1) wanted.push(page);
  const more = useQueries({ queries: wanted.map(queryOf) });
  const pages = new Map<number, P | undefined>([[0, top], ...wanted.map((page, i) => [page, more[i]?.data] as const)]);
  return (index) => pages.get(Math.floor(index / PAGE))?.rows[index % PAGE];
}
