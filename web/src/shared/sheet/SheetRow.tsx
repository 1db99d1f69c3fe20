import './sheet.css';

import { memo } from 'react';

import { underline } from '../ui/GradeFigure';
import { SeamedName } from '../ui/SeamedName';
import type { Column, Layout, Span } from './layout';
import { t } from '../texts';

/** What every row of a sheet tells of its name. */
export interface Named {
  label: string;
  kept: boolean;
  starts: readonly number[];
  /** What stands behind the name. */
  dot?: string;
  verdict?: string;
  change?: { message: string } | null;
}

interface Props<R extends Named, C> {
  row: R | undefined;
  index: number;
  id: string;
  top: number;
  layout: Layout<R, C>;
  /** Which columns are drawn. */
  span: Span;
  /** What cells need beside their row. */
  context: C;
  dense: boolean;
  selected: boolean;
  marked: boolean;
}

/** A figure under it is coloured: the grade suffers from it. */
const LOW = 40;
const figureClass = (figure: number, plain: boolean): string =>
  `figure${plain ? ' plain' : ''}${plain && figure < LOW ? ' low' : ''}`;

/** One name with what the columns tell of it. Plain elements without handlers: the sheet listens for all rows. */
function PlainRow<R extends Named, C>({
  row,
  index,
  id,
  top,
  layout,
  span,
  context,
  dense,
  selected,
  marked,
}: Props<R, C>) {
  const { columns, stays } = layout;
  const first = stays.size - 1; // the name stays too
  const cell = (column: Column<R, C>, place: number) => {
    const figure = row && column.figure?.(row, context);
    const dress =
      typeof figure === 'number'
        ? { className: figureClass(figure, column.id !== 'grade'), style: underline(figure) }
        : undefined;
    const text =
      typeof figure === 'number' ? (
        Math.round(figure)
      ) : figure === null ? (
        <span title={t('Not graded')}>–</span>
      ) : (
        row && column.cell?.(row, context)
      );
    const at = place === span.from && place > first ? { gridColumnStart: place + 3 } : undefined;
    const cellProps = { role: 'gridcell', 'aria-colindex': place + 3 };
    // One element where that will do; what stays in sight covers what passes beneath, and needs another.
    if (place < first)
      return (
        <div key={column.id} {...cellProps} className="pin">
          {dress ? <span {...dress}>{text}</span> : text}
        </div>
      );
    return (
      <div key={column.id} {...cellProps} className={dress?.className} style={{ ...at, ...dress?.style }}>
        {text}
      </div>
    );
  };
  return (
    <div
      role="row"
      id={id}
      data-index={index}
      aria-rowindex={index + 2}
      aria-selected={selected}
      className={`sheet-row${dense ? ' dense' : ''}${marked ? ' marked' : ''}`}
      style={{ transform: `translateY(${top}px)` }}>
      {row ? (
        <>
          <div role="gridcell" aria-colindex={1} className="pin">
            <button
              type="button"
              tabIndex={-1}
              data-act="keep"
              className={row.kept ? 'tag kept' : 'tag'}
              aria-pressed={row.kept}
              aria-label={
                row.kept
                  ? t('Take {label} off the shortlist', { label: row.label })
                  : t('Keep {label}', { label: row.label })
              }
            />
          </div>
          <div role="rowheader" aria-colindex={2} className={row.verdict === 'later' ? 'pin put-by' : 'pin'}>
            <SeamedName
              className="sheet-name"
              title={row.change ? `${row.label}: ${row.change.message}` : row.label}
              label={row.label}
              starts={row.starts}
              extension={row.dot ?? ''}
            />
          </div>
          {columns.slice(0, first).map(cell)}
          {columns.slice(span.from, span.to).map((column, i) => cell(column, span.from + i))}
        </>
      ) : (
        <div role="gridcell" className="muted" style={{ gridColumn: '2 / -1' }}>
          …
        </div>
      )}
    </div>
  );
}

/** Drawn anew only when something of it is another. */
export const SheetRow = memo(PlainRow) as typeof PlainRow;
