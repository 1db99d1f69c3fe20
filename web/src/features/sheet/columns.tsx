import type { ReactNode } from 'react';

import type { Cell, Row } from '../../shared/api';
import { formatMoney } from '../../shared/lib/format';
import { costInWords, type CostSpan } from '../../shared/lib/costs';
import { measures, statusOf } from '../../shared/lib/concepts';
import { gradeOf, type Grading } from '../../shared/lib/grading';
import { shownStatus, type ShownStatus, statusWord, wordOf } from '../../shared/ui/status';
import { markClass } from '../../shared/ui/StatusMark';
import { VisuallyHidden } from '../../shared/ui/VisuallyHidden';
import { t } from '../../shared/texts';

const LOOKED = { '': t('not yet'), seen: t('seen'), later: t('later') } as const;

export interface Column {
  id: string;
  word: string;
  title: string;
  width: number;
  /** What it is ordered by; some say too little for an order. */
  sort?: string;
  /** The best comes first when it is ordered by this. */
  falling?: boolean;
  cell?: (row: Row, grading: Grading) => ReactNode;
  /** A figure of 0 to 100 instead, underlined as far as it goes; null where there is none. */
  figure?: (row: Row, grading: Grading) => number | null;
}

const cellOf = (row: Row, extension: string): Cell | undefined => row.cells.find((c) => c.extension === extension);

function titleOf(label: string, extension: string, cell: Cell | undefined, status: ShownStatus): string {
  const why = cell?.reason || statusOf(status)?.means || wordOf(status);
  const price =
    cell?.first_year != null && cell.renewal != null && status !== 'taken'
      ? ` ${t('{firstYear}, then {renewal} a year.', {
          firstYear: formatMoney(cell.first_year, cell.currency),
          renewal: formatMoney(cell.renewal, cell.currency),
        })}`
      : '';
  return t('{label}.{extension}: {why}.{price} Press to ask now.', { label, extension, why, price }).replace('..', '.');
}

/** What the name costs under the extension where that is least. */
function Cost({ row, span }: { row: Row; span: CostSpan }) {
  const cost = row.costs[span];
  if (!cost) return <span title={t('No price is known')}>–</span>;
  return (
    <span title={costInWords(cost, row.costs, span)}>
      {formatMoney(cost.amount, row.costs.currency)} <span className="muted beside">.{cost.extension}</span>
    </span>
  );
}

function Status({ row, extension }: { row: Row; extension: string }) {
  const cell = cellOf(row, extension);
  const status = shownStatus(cell);
  const likely = cell?.likely ?? false;
  return (
    <button
      type="button"
      tabIndex={-1}
      data-act="check"
      data-extension={extension}
      disabled={status === 'waiting'}
      title={titleOf(row.label, extension, cell, status)}
      className={`${markClass(status, likely)}${wordOf(status).length > 6 ? ' long' : ''}`}>
      {cell ? statusWord(status, likely) : <VisuallyHidden>{wordOf(status)}</VisuallyHidden>}
    </button>
  );
}

const known = (value: number): ReactNode => value || <span title={t('Not known of this name')}>–</span>;

const plainColumns = (): readonly Column[] => [
  {
    id: 'grade',
    word: t('Grade'),
    title: t('The weighted whole, 0 to 100'),
    width: 60,
    sort: 'grade',
    falling: true,
    figure: (row, grading) => gradeOf(row.scores, grading),
  },
  {
    id: 'letters',
    word: t('Letters'),
    title: t('Letters, without hyphens'),
    width: 54,
    sort: 'letters',
    cell: (row) => row.letters,
  },
  {
    id: 'syllables',
    word: t('Syllables'),
    title: t('Syllables, as said'),
    width: 66,
    sort: 'syllables',
    cell: (row) => known(row.syllables),
  },
  {
    id: 'words',
    word: t('Words'),
    title: t('Words it is made of'),
    width: 54,
    sort: 'words',
    cell: (row) => known(row.words),
  },
  ...measures().map(({ name, short, asks }): Column => ({
    id: name,
    word: short,
    title: asks,
    width: 66,
    sort: name,
    falling: true,
    figure: (row) => row.scores[name] ?? null,
  })),
  {
    id: 'recipes',
    word: t('Recipe'),
    title: t('The recipes that made it'),
    width: 88,
    cell: (row) => (
      <span className="muted" title={row.recipes.join(', ')}>
        {row.recipes.join(', ')}
      </span>
    ),
  },
  {
    id: 'added',
    word: t('Added'),
    title: t('What kind of word was added'),
    width: 76,
    cell: (row) => <span className="muted">{row.added.join(', ')}</span>,
  },
  {
    id: 'price',
    word: t('First year'),
    title: t('A year alone, where it is cheapest: by the sellers’ lists, or what one asks for the name'),
    width: 104,
    sort: 'price',
    cell: (row) => <Cost row={row} span="first" />,
  },
  {
    id: 'later',
    word: t('Later years'),
    title: t('Each later year, where it is cheapest'),
    width: 104,
    sort: 'later',
    cell: (row) => <Cost row={row} span="later" />,
  },
  {
    id: 'whole',
    word: t('All years'),
    title: t('All the years it is meant to be kept, where that is cheapest'),
    width: 104,
    sort: 'whole',
    cell: (row) => <Cost row={row} span="whole" />,
  },
  {
    id: 'looked',
    word: t('Looked at'),
    title: t('Whether it was looked at, or put by for later'),
    width: 70,
    cell: (row) => <span className="muted">{LOOKED[row.verdict]}</span>,
  },
];
let byId: ReadonlyMap<string, Column> | null = null;

/** The column of an id; one with a dot shows the status under that extension. */
export function columnOf(id: string): Column {
  byId ??= new Map(plainColumns().map((column) => [column.id, column]));
  const plain = byId.get(id);
  if (plain) return plain;
  const extension = id.slice(1);
  return {
    id,
    word: id,
    title: t('Status under {id}', { id }),
    width: 68,
    sort: id,
    cell: (row) => <Status row={row} extension={extension} />,
  };
}

export const NAME_WIDTH = 132;
const TAG_WIDTH = 30;
// As in sheet.css.
const PADDING = 4;
const GAP = 2;
/** So many pixels beside what is in sight are drawn too. */
const MARGIN = 60;

/** Columns as a grid: those that stay in sight first. */
export interface Layout {
  columns: readonly Column[];
  template: string;
  /** The ids of those that stay. */
  stays: ReadonlySet<string>;
  /** Where each column begins at the least, in pixels, and where the last one ends. */
  edges: readonly number[];
}

export function layoutOf(
  ids: readonly string[],
  pinned: readonly string[],
  widths: Readonly<Record<string, number>>,
): Layout {
  const there = pinned.filter((id) => ids.includes(id));
  const columns = [...there, ...ids.filter((id) => !there.includes(id))].map(columnOf);
  const name = widths.name ? `${widths.name}px` : `minmax(${NAME_WIDTH}px, 1fr)`;
  const sizes = columns.map((c) => widths[c.id] ?? c.width);
  const edges = [PADDING + TAG_WIDTH + (widths.name ?? NAME_WIDTH) + 2 * GAP];
  for (const px of sizes) edges.push((edges.at(-1) ?? 0) + px + GAP);
  return {
    columns,
    template: `${TAG_WIDTH}px ${name} ${sizes.map((px) => `${px}px`).join(' ')}`,
    stays: new Set(['name', ...there]),
    edges,
  };
}

/** Which columns are drawn: those that stay, and from the place `from` up to `to`. */
export interface Span {
  from: number;
  to: number;
}

/** The columns seen when `left` pixels are scrolled away and `width` are in sight; all of them while no width is known. */
export function spanOf({ columns, stays, edges }: Layout, left: number, width: number): Span {
  const first = columns.findIndex((c) => !stays.has(c.id));
  if (first < 0 || width === 0) return { from: Math.max(0, first), to: columns.length };
  let [from, to] = [first, columns.length];
  while (from < to - 1 && (edges[from + 1] ?? 0) < left - MARGIN) from += 1;
  while (to > from + 1 && (edges[to - 1] ?? 0) > left + width + MARGIN) to -= 1;
  return { from, to };
}
