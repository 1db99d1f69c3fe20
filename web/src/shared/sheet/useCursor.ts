import { useEffect, useRef, useState } from 'react';

import type { RowAt } from './useRows';

interface List<R> {
  rowAt: RowAt<R>;
  /** What a row is known by. */
  keyOf: (row: R) => string;
  total: number;
  /** Names the list: the project and what is asked of it. */
  place: string;
  selected: string | null;
  onSelect: (label: string | null) => void;
  scrollTo: (index: number, options?: { align: 'center' }) => void;
  toTop: () => void;
}

export interface Cursor<R> {
  /** Where it is, from 0; keys may come faster than the page is drawn anew, so it is remembered here. */
  at: () => number;
  /** The row it is on, if it has come. */
  row: () => R | undefined;
  choose: (index: number, label: string) => void;
  /** Go there, bounded by the list; a row far away is chosen once it has come. */
  go: (index: number) => number;
  /** Choose whatever stands there when the list has changed. */
  await: (index: number) => void;
}

/** Where the cursor was in each list, for as long as the page is open. */
const places = new Map<string, number>();

/** The cursor of a list of rows that come as they are scrolled to. */
export function useCursor<R>({ rowAt, keyOf, total, place, selected, onSelect, scrollTo, toTop }: List<R>): Cursor<R> {
  const at = useRef(0);
  const there = total > 0;
  const topRow = rowAt(0);
  const top = topRow && keyOf(topRow);
  useEffect(() => {
    if (selected === null && top && !places.has(place)) onSelect(top);
  }, [selected, top, onSelect, place]);
  const [wanted, setWanted] = useState<{ index: number } | null>(null);
  const arrived = useRef<{ index: number } | null>(null);
  const cameRow = wanted ? rowAt(wanted.index) : undefined;
  const came = cameRow && keyOf(cameRow);
  useEffect(() => {
    if (came === undefined || arrived.current === wanted) return;
    arrived.current = wanted;
    onSelect(came);
  }, [came, wanted, onSelect]);
  // Who comes back to a list is where they were in it; another question begins at its top.
  const shownAt = useRef<string | null>(null);
  useEffect(() => {
    if (!there || shownAt.current === place) return;
    const first = shownAt.current === null;
    shownAt.current = place;
    const index = first ? Math.min(places.get(place) ?? 0, total - 1) : 0;
    at.current = index;
    if (index > 0) {
      scrollTo(index, { align: 'center' });
      setWanted({ index });
    } else toTop();
  }, [there, place, total, scrollTo, toTop]);
  const chosen = useRef(selected);
  useEffect(() => {
    chosen.current = selected;
  }, [selected]);
  const choose = (index: number, label: string) => {
    at.current = index;
    places.set(place, index);
    chosen.current = label;
    setWanted(null);
    onSelect(label);
  };
  return {
    at: () => at.current,
    row: () => {
      const row = rowAt(at.current);
      return row && keyOf(row) === chosen.current ? row : undefined;
    },
    choose,
    go: (index) => {
      const next = Math.min(total - 1, Math.max(0, index));
      scrollTo(next);
      const row = rowAt(next);
      if (row) choose(next, keyOf(row));
      else {
        at.current = next;
        setWanted({ index: next });
      }
      return next;
    },
    await: (index) => {
      setWanted({ index });
    },
  };
}
