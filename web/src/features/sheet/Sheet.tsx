import Box from '@mui/material/Box';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useMemo, useRef } from 'react';

import type { Row } from '../../shared/api';
import { useBench } from './bench';
import { layoutOf } from './columns';
import { NoRows } from './NoRows';
import { useMarks } from './useMarks';
import { useFirstPage, useRows } from './useSheet';
import { useSheetActs } from './useSheetActs';
import { ROW_HEIGHTS } from '../../shared/sheet/useView';
import { SheetHead } from '../../shared/sheet/SheetHead';
import { SheetRow } from '../../shared/sheet/SheetRow';
import { useCursor } from '../../shared/sheet/useCursor';
import { useSpan } from '../../shared/sheet/useSpan';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { t } from '../../shared/texts';

const ORDER = t(
  'The best come first, by the grade and by how well their words go together; names like those above them are set back, so that each screen shows different ones. Press Grade for the order of the grade alone.',
);
const keyOf = (row: Row) => row.label;
const HEAD = 30;
const LOOKED_AFTER = 1_200;

/** A name the cursor rests on has been looked at. */
function useLookedAt(drawn: readonly (Row | undefined)[]) {
  const { selected, onAct } = useBench();
  const resting = drawn.find((row) => row?.label === selected && row.verdict === '')?.label;
  useEffect(() => {
    if (!resting) return;
    const timer = setTimeout(() => {
      onAct('seen', [resting]);
    }, LOOKED_AFTER);
    return () => {
      clearTimeout(timer);
    };
  }, [resting, onAct]);
}

/** The sheet: names by columns, as many rows as there are, only those in view drawn. */
export function Sheet() {
  const { projectId, view, onView, grading, question, onAsk, selected, onSelect, marked, onMark, onRows } = useBench();
  const scroller = useRef<HTMLDivElement>(null);
  const { data, error, isPending, isPlaceholderData, refetch } = useFirstPage(projectId, question);
  const total = data?.total ?? 0;
  const height = ROW_HEIGHTS[view.density];
  const layout = useMemo(
    () => layoutOf(view.columns, view.pinned, view.widths),
    [view.columns, view.pinned, view.widths],
  );
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
  const rowAt = useRows(projectId, question, data, shown[0]?.index ?? 0, shown.at(-1)?.index ?? 0);
  const drawn = shown.map((item) => rowAt(item.index));
  const { startIndex, endIndex } = rows.range ?? { startIndex: 0, endIndex: -1 };
  const inView = shown
    .filter((item) => item.index >= startIndex && item.index <= endIndex)
    .map((item) => rowAt(item.index)?.label ?? '')
    .join(' ');
  useEffect(() => {
    onRows(inView.split(' ').filter(Boolean), total);
  }, [inView, total, onRows]);
  useLookedAt(drawn);
  const [span, onScroll] = useSpan(scroller, layout, total > 0);
  const scrollTo = useCallback(
    (index: number, options?: { align: 'center' }) => {
      rows.scrollToIndex(index, options);
    },
    [rows],
  );
  const toTop = useCallback(() => scroller.current?.scrollTo({ top: 0 }), []);
  const place = `${projectId} ${JSON.stringify(question)}`;
  const cursor = useCursor({ rowAt, keyOf, total, place, selected, onSelect, scrollTo, toTop });
  const marks = useMarks({ projectId, question, rowAt, marked, onMark });
  const { onKeyDown, onClick, onDoubleClick } = useSheetActs({ scroller, rowAt, total, drawn, height, cursor, marks });

  if (error && !data) {
    return <LoadFailed title={t('The names could not be loaded')} error={error} onRetry={refetch} />;
  }
  if (!isPending && total === 0) return <NoRows />;
  const active = shown[drawn.findIndex((row) => row !== undefined && row.label === selected)];
  return (
    <Box
      ref={scroller}
      role="grid"
      tabIndex={0}
      className="sheet"
      aria-label={t('Names')}
      aria-multiselectable
      aria-rowcount={total + 1}
      aria-colcount={layout.columns.length + 2}
      aria-busy={isPending || isPlaceholderData}
      aria-activedescendant={active ? `row-${active.index}` : undefined}
      onKeyDown={onKeyDown}
      onScroll={onScroll}
      style={{ '--cols': layout.template, '--row': `${height}px` } as object}>
      <SheetHead
        layout={layout}
        question={question}
        onAsk={onAsk}
        best={{ word: t('best first, varied'), title: ORDER }}
        onWidth={(id, px) => onView({ widths: { ...view.widths, [id]: px } })}
      />
      {/* The grid takes the keys, as grids do; the pointer is listened for here, for all rows at once. */}
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions, jsx-a11y/click-events-have-key-events */}
      <div
        role="rowgroup"
        className="sheet-body"
        style={{ height: rows.getTotalSize() }}
        onClick={onClick}
        onDoubleClick={onDoubleClick}>
        {shown.map((item, i) => {
          const row = drawn[i];
          return (
            <SheetRow
              key={item.key}
              id={`row-${item.index}`}
              row={row}
              index={item.index}
              top={item.start - HEAD}
              layout={layout}
              span={span}
              context={grading}
              dense={view.density === 'dense'}
              selected={row !== undefined && row.label === selected}
              marked={row !== undefined && marked.has(row.label)}
            />
          );
        })}
      </div>
    </Box>
  );
}
