import './sheet.css';

import { memo } from 'react';

import type { Row } from '../../shared/api';
import type { Grading } from '../../shared/lib/grading';
import { SeamedName } from '../../shared/ui/SeamedName';
import type { Layout } from './columns';

interface Props {
  row: Row | undefined;
  index: number;
  id: string;
  top: number;
  layout: Layout;
  /** How grades are made; until it has come, the server's own are shown. */
  grading: Grading | null;
  dense: boolean;
  selected: boolean;
  marked: boolean;
}

/** One name with what the columns tell of it. Plain elements without handlers: the sheet listens for all rows. */
export const SheetRow = memo(function SheetRow({ row, index, id, top, layout, grading, dense, selected, marked }: Props) {
  const stay = (column: string) => (layout.stays.has(column) ? 'pin' : undefined);
  return (
    <div role="row" id={id} data-index={index} aria-rowindex={index + 2} aria-selected={selected} className={`sheet-row${dense ? ' dense' : ''}${marked ? ' marked' : ''}`} style={{ transform: `translateY(${top}px)` }}>
      {row ? (
        <>
          <div role="gridcell" className="pin">
            <button type="button" tabIndex={-1} data-act="keep" className={row.kept ? 'tag kept' : 'tag'} aria-pressed={row.kept} aria-label={`${row.kept ? 'Take' : 'Keep'} ${row.label}${row.kept ? ' off the shortlist' : ''}`} />
          </div>
          <div role="rowheader" className="pin">
            <span className="sheet-name" title={row.change ? `${row.label}: ${row.change}` : row.label}><SeamedName label={row.label} starts={row.starts} />{row.dot && <span className="muted">.{row.dot}</span>}</span>
          </div>
          {layout.columns.map((column) => <div role="gridcell" key={column.id} className={stay(column.id)}>{column.cell(row, grading)}</div>)}
        </>
      ) : (
        <div role="gridcell" className="muted" style={{ gridColumn: '2 / -1' }}>…</div>
      )}
    </div>
  );
});
