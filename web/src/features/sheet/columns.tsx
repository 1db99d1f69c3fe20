import type { ReactNode } from 'react';

import type { Cell, Row } from '../../shared/api';
import { formatCount, formatMoney } from '../../shared/lib/format';
import { costInWords, type CostSpan } from '../../shared/lib/costs';
import { measures, statusOf } from '../../shared/lib/concepts';
import { gradeOf, type Grading } from '../../shared/lib/grading';
import { shownStatus, type ShownStatus, statusWord, wordOf } from '../../shared/ui/status';
import { markClass } from '../../shared/ui/StatusMark';
import { VisuallyHidden } from '../../shared/ui/VisuallyHidden';
import { type Column as AnyColumn, laidOut } from '../../shared/sheet/layout';
import { t } from '../../shared/texts';

const LOOKED = { '': t('not yet'), seen: t('seen'), later: t('later') } as const;

export type Column = AnyColumn<Row, Grading>;

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

function Searches({ row: { carried } }: { row: Row }) {
  if (!carried) return <span title={t('It carries none of your phrases')}>–</span>;
  const { phrase, demand } = carried;
  return (
    <span title={demand === null ? t('“{phrase}”: not known', { phrase }) : t('“{phrase}”', { phrase })}>
      {demand === null ? t('unknown') : formatCount(demand)}
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
    id: 'demand',
    word: t('Searches'),
    title: t('How often a month people look for the phrase it carries, by the figures brought under Phrases'),
    width: 84,
    sort: 'demand',
    falling: true,
    cell: (row) => <Searches row={row} />,
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

/** Columns of the sheet of names as a grid. */
export const layoutOf = (ids: readonly string[], pinned: readonly string[], widths: Readonly<Record<string, number>>) =>
  laidOut(columnOf, ids, pinned, widths);
