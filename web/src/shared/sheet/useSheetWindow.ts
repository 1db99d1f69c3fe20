import { type UseQueryOptions } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useRef } from 'react';

import type { Bounds } from './layout';
import { type PageOf, useRows } from './useRows';
import { useSpan } from './useSpan';

/** The height of the heads, in pixels. */
export const HEAD = 30;

interface Wish<P, K extends readonly unknown[]> {
  queryOf: (page: number) => UseQueryOptions<P, Error, P, K>;
  /** The first page, if it has come. */
  first: P | undefined;
  /** Of a row, in pixels. */
  height: number;
  layout: Bounds;
}

/** The part of a long sheet that is in sight: its rows, which are asked for as they are scrolled to, and its columns. */
export function useSheetWindow<P extends PageOf<unknown>, K extends readonly unknown[]>({
  queryOf,
  first,
  height,
  layout,
}: Wish<P, K>) {
  const scroller = useRef<HTMLDivElement>(null);
  const total = first?.total ?? 0;
  // The virtualizer changes what its functions return between renders, so nothing here is memoized.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 6,
    scrollMargin: HEAD,
    scrollPaddingStart: HEAD,
  });
  useEffect(() => {
    rows.measure();
  }, [height, rows]);
  const shown = rows.getVirtualItems();
  const rowAt = useRows(queryOf, first, shown[0]?.index ?? 0, shown.at(-1)?.index ?? 0);
  const [span, onScroll] = useSpan(scroller, layout, total > 0);
  const scrollTo = useCallback(
    (index: number, options?: { align: 'center' }) => {
      rows.scrollToIndex(index, options);
    },
    [rows],
  );
  const toTop = useCallback(() => scroller.current?.scrollTo({ top: 0 }), []);
  const { startIndex, endIndex } = rows.range ?? { startIndex: 0, endIndex: -1 };
  const drawn = shown.map((item) => rowAt(item.index));
  return {
    scroller,
    total,
    shown,
    drawn,
    rowAt,
    span,
    onScroll,
    scrollTo,
    toTop,
    height: rows.getTotalSize(),
    /** Those of the rows drawn that are in sight. */
    inSight: drawn.filter((_, i) => {
      const index = shown[i]?.index ?? -1;
      return index >= startIndex && index <= endIndex;
    }),
    /** How many rows a screen further is. */
    screen: () => Math.max(1, Math.floor((scroller.current?.clientHeight ?? 330) / height) - 2),
  };
}
