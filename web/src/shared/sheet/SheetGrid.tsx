import Box from '@mui/material/Box';
import type { KeyboardEvent, MouseEvent } from 'react';

import type { Layout } from './layout';
import { type Order, SheetHead } from './SheetHead';
import { type Named, SheetRow } from './SheetRow';
import { HEAD, type useSheetWindow } from './useSheetWindow';
import { ROW_HEIGHTS, type View } from './useView';

interface Props<R extends Named, C> {
  label: string;
  /** What its rows are called by: `name-0` and so on. */
  name: string;
  window: Omit<ReturnType<typeof useSheetWindow>, 'drawn' | 'rowAt' | 'inSight'>;
  /** The rows drawn; those that have not come are undefined. */
  drawn: readonly (R | undefined)[];
  layout: Layout<R, C>;
  context: C;
  question: Order;
  onAsk: (part: (now: Order) => Order) => void;
  best: { word: string; title: string };
  view: View;
  onView: (part: Partial<View>) => void;
  busy: boolean;
  isSelected: (row: R) => boolean;
  /** Whether rows can be marked, and which are. */
  isMarked?: (row: R) => boolean;
  onKeyDown: (event: KeyboardEvent) => void;
  onClick: (event: MouseEvent) => void;
  onDoubleClick: (event: MouseEvent) => void;
}

/** A sheet: heads and rows by columns, as many rows as there are, only those in view drawn. */
export function SheetGrid<R extends Named, C>({
  label,
  name,
  window: { scroller, total, shown, span, onScroll, height },
  drawn,
  layout,
  context,
  question,
  onAsk,
  best,
  view,
  onView,
  busy,
  isSelected,
  isMarked,
  onKeyDown,
  onClick,
  onDoubleClick,
}: Props<R, C>) {
  const active = shown[drawn.findIndex((row) => row !== undefined && isSelected(row))];
  return (
    <Box
      ref={scroller}
      role="grid"
      tabIndex={0}
      className="sheet"
      aria-label={label}
      aria-multiselectable={isMarked !== undefined || undefined}
      aria-rowcount={total + 1}
      aria-colcount={layout.columns.length + 2}
      aria-busy={busy}
      aria-activedescendant={active ? `${name}-${active.index}` : undefined}
      onKeyDown={onKeyDown}
      onScroll={onScroll}
      style={{ '--cols': layout.template, '--row': `${ROW_HEIGHTS[view.density]}px` } as object}>
      <SheetHead
        layout={layout}
        question={question}
        onAsk={onAsk}
        best={best}
        onWidth={(id, px) => onView({ widths: { ...view.widths, [id]: px } })}
      />
      {/* The grid takes the keys, as grids do; the pointer is listened for here, for all rows at once. */}
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions, jsx-a11y/click-events-have-key-events */}
      <div role="rowgroup" className="sheet-body" style={{ height }} onClick={onClick} onDoubleClick={onDoubleClick}>
        {shown.map((item, i) => {
          const row = drawn[i];
          return (
            <SheetRow
              key={item.key}
              id={`${name}-${item.index}`}
              row={row}
              index={item.index}
              top={item.start - HEAD}
              layout={layout}
              span={span}
              context={context}
              dense={view.density === 'dense'}
              selected={row !== undefined && isSelected(row)}
              marked={row !== undefined && (isMarked?.(row) ?? false)}
            />
          );
        })}
      </div>
    </Box>
  );
}
