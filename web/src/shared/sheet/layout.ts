import type { ReactNode } from 'react';

/** A column of a sheet whose rows are `R`; `C` is what cells need beside them. */
export interface Column<R, C> {
  id: string;
  word: string;
  title: string;
  width: number;
  /** What it is ordered by; some say too little for an order. */
  sort?: string;
  /** The best comes first when it is ordered by this. */
  falling?: boolean;
  cell?: (row: R, context: C) => ReactNode;
  /** A figure of 0 to 100 instead, underlined as far as it goes; null where there is none. */
  figure?: (row: R, context: C) => number | null;
}

export const NAME_WIDTH = 132;
const TAG_WIDTH = 30;
// As in sheet.css.
const PADDING = 4;
const GAP = 2;
/** So many pixels beside what is in sight are drawn too. */
const MARGIN = 60;

/** Columns as a grid: those that stay in sight first. */
export interface Layout<R, C> {
  columns: readonly Column<R, C>[];
  template: string;
  /** The ids of those that stay. */
  stays: ReadonlySet<string>;
  /** Where each column begins at the least, in pixels, and where the last one ends. */
  edges: readonly number[];
}

export function laidOut<R, C>(
  columnOf: (id: string) => Column<R, C>,
  ids: readonly string[],
  pinned: readonly string[],
  widths: Readonly<Record<string, number>>,
  nameWidth = NAME_WIDTH,
): Layout<R, C> {
  const there = pinned.filter((id) => ids.includes(id));
  const columns = [...there, ...ids.filter((id) => !there.includes(id))].map(columnOf);
  const name = widths.name ? `${widths.name}px` : `minmax(${nameWidth}px, 1fr)`;
  const sizes = columns.map((c) => widths[c.id] ?? c.width);
  const edges = [PADDING + TAG_WIDTH + (widths.name ?? nameWidth) + 2 * GAP];
  for (const px of sizes) edges.push((edges.at(-1) ?? 0) + px + GAP);
  return {
    columns,
    template: `${TAG_WIDTH}px ${name} ${sizes.map((px) => `${px}px`).join(' ')}`,
    stays: new Set(['name', ...there]),
    edges,
  };
}

/** What says which columns are in sight. */
export type Bounds = Pick<Layout<never, never>, 'stays' | 'edges'> & { columns: readonly { id: string }[] };

/** Which columns are drawn: those that stay, and from the place `from` up to `to`. */
export interface Span {
  from: number;
  to: number;
}

/** The columns seen when `left` pixels are scrolled away and `width` are in sight; all of them while no width is known. */
export function spanOf({ columns, stays, edges }: Bounds, left: number, width: number): Span {
  const first = columns.findIndex((c) => !stays.has(c.id));
  if (first < 0 || width === 0) return { from: Math.max(0, first), to: columns.length };
  let [from, to] = [first, columns.length];
  while (from < to - 1 && (edges[from + 1] ?? 0) < left - MARGIN) from += 1;
  while (to > from + 1 && (edges[to - 1] ?? 0) > left + width + MARGIN) to -= 1;
  return { from, to };
}
