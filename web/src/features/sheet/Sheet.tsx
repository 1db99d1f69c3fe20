import { useEffect, useMemo } from 'react';

import type { Row } from '../../shared/api';
import { useBench } from './bench';
import { layoutOf } from './columns';
import { NoRows } from './NoRows';
import { useMarks } from './useMarks';
import { useFirstPage } from './useSheet';
import { useSheetActs } from './useSheetActs';
import { ROW_HEIGHTS } from '../../shared/sheet/useView';
import { SheetGrid } from '../../shared/sheet/SheetGrid';
import { useCursor } from '../../shared/sheet/useCursor';
import { useSheetWindow } from '../../shared/sheet/useSheetWindow';
import { pageQuery } from '../../shared/lib/queries';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { t } from '../../shared/texts';

const BEST = {
  word: t('best first, varied'),
  title: t(
    'The best come first, by the grade and by how well their words go together; names like those above them are set back, so that each screen shows different ones. Press Grade for the order of the grade alone.',
  ),
};
const keyOf = (row: Row) => row.label;
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
  const { data, error, isPending, isPlaceholderData, refetch } = useFirstPage(projectId, question);
  const layout = useMemo(
    () => layoutOf(view.columns, view.pinned, view.widths),
    [view.columns, view.pinned, view.widths],
  );
  const queryOf = (page: number) => pageQuery(projectId, question, page);
  const window = useSheetWindow({ queryOf, first: data, height: ROW_HEIGHTS[view.density], layout });
  const { scroller, total, drawn, rowAt, scrollTo, toTop, screen } = window;
  const inView = window.inSight.map((row) => row?.label ?? '').join(' ');
  useEffect(() => {
    onRows(inView.split(' ').filter(Boolean), total);
  }, [inView, total, onRows]);
  useLookedAt(drawn);
  const place = `${projectId} ${JSON.stringify(question)}`;
  const cursor = useCursor({ rowAt, keyOf, total, place, selected, onSelect, scrollTo, toTop });
  const marks = useMarks({ projectId, question, rowAt, marked, onMark });
  const { onKeyDown, onClick, onDoubleClick } = useSheetActs({ scroller, rowAt, total, drawn, screen, cursor, marks });

  if (error && !data) {
    return <LoadFailed title={t('The names could not be loaded')} error={error} onRetry={refetch} />;
  }
  if (!isPending && total === 0) return <NoRows />;
  return (
    <SheetGrid
      label={t('Names')}
      name="row"
      window={window}
      drawn={drawn}
      layout={layout}
      context={grading}
      question={question}
      onAsk={onAsk}
      best={BEST}
      view={view}
      onView={onView}
      busy={isPending || isPlaceholderData}
      isSelected={(row) => row.label === selected}
      isMarked={(row) => marked.has(row.label)}
      onKeyDown={onKeyDown}
      onClick={onClick}
      onDoubleClick={onDoubleClick}
    />
  );
}
