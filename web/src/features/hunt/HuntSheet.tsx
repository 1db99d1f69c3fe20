import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, type MouseEvent, useCallback, useEffect, useMemo, useRef } from 'react';

import type { Hunted } from '../../shared/api';
import { commandOf, useLetterKeys } from '../../shared/lib/keymap';
import { SheetHead } from '../../shared/sheet/SheetHead';
import { SheetRow } from '../../shared/sheet/SheetRow';
import { useCursor } from '../../shared/sheet/useCursor';
import { useRows } from '../../shared/sheet/useRows';
import { useSpan } from '../../shared/sheet/useSpan';
import { ROW_HEIGHTS, type View } from '../../shared/sheet/useView';
import { EmptyState } from '../../shared/ui/EmptyState';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { t } from '../../shared/texts';
import { type HuntContext, huntLayout } from './huntColumns';
import { filtersOf, type HuntAsk, type HuntQuestion, NO_FILTERS } from './huntQuestion';
import { huntQuery, useFirstHunt } from './useHunt';

const HEAD = 30;
const BEST = {
  word: t('best first'),
  title: t('By the words of a name and what is told of its past. Press a head for another order.'),
};

/** What a row of the hunt is known by: a market tells of a full name once. */
export const keyOf = (row: Hunted): string => `${row.label}.${row.extension} ${row.offer.market}`;

interface Props {
  projectId: number;
  question: HuntQuestion;
  onAsk: HuntAsk;
  view: View;
  onView: (part: Partial<View>) => void;
  context: HuntContext;
  chosen: Hunted | null;
  onChoose: (row: Hunted | null) => void;
  onKeep: (row: Hunted) => void;
  onOpen: (row: Hunted) => void;
  /** Where no market tells of anything. */
  none: boolean;
}

/** The sheet of offers and drops: made of the parts of the sheet of names. */
export function HuntSheet(props: Props) {
  const { projectId, question, onAsk, view, onView, context, chosen, onChoose, onKeep, onOpen, none } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const { data, error, isPending, isPlaceholderData, refetch } = useFirstHunt(projectId, question);
  const total = data?.total ?? 0;
  const height = ROW_HEIGHTS[view.density];
  const layout = useMemo(
    () => huntLayout(view.columns, view.pinned, view.widths),
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
  const rowAt = useRows(
    (page: number) => huntQuery(projectId, question, page),
    data,
    shown[0]?.index ?? 0,
    shown.at(-1)?.index ?? 0,
  );
  const [span, onScroll] = useSpan(scroller, layout, total > 0);
  const scrollTo = useCallback(
    (index: number, options?: { align: 'center' }) => {
      rows.scrollToIndex(index, options);
    },
    [rows],
  );
  const toTop = useCallback(() => scroller.current?.scrollTo({ top: 0 }), []);
  const drawn = shown.map((item) => rowAt(item.index));
  const latest = useRef(drawn);
  useEffect(() => {
    latest.current = drawn;
  });
  const onSelect = useCallback(
    (key: string | null) => {
      onChoose(latest.current.find((row) => row !== undefined && keyOf(row) === key) ?? null);
    },
    [onChoose],
  );
  const selected = chosen ? keyOf(chosen) : null;
  const place = `hunt ${projectId} ${JSON.stringify(question)}`;
  const cursor = useCursor({ rowAt, keyOf, total, place, selected, onSelect, scrollTo, toTop });
  const letters = useLetterKeys();

  if (error && !data) return <LoadFailed title={t('The offers could not be loaded')} error={error} onRetry={refetch} />;
  if (!isPending && total === 0)
    return filtersOf(question) > 0 ? (
      <EmptyState
        title={t('Nothing passes these filters')}
        action={
          <Button variant="outlined" onClick={() => onAsk(NO_FILTERS)}>
            {t('Show everything')}
          </Button>
        }>
        {t('What a list does not tell of a name fails a filter that asks for it.')}
      </EmptyState>
    ) : (
      <EmptyState title={none ? t('No market has told of names yet') : t('Nothing is offered just now')}>
        {t('Lists of markets are fetched every hour; an administrator can bring others.')}
      </EmptyState>
    );

  const screen = () => Math.max(1, Math.floor((scroller.current?.clientHeight ?? 330) / height) - 2);
  const onKeyDown = (event: KeyboardEvent) => {
    const { target } = event;
    if (target instanceof HTMLElement && target.dataset.head) return;
    const command = commandOf('sheet', event, letters);
    if (!command) return;
    const at = cursor.at();
    const moves: Partial<Record<typeof command, number>> = {
      down: at + 1,
      up: at - 1,
      screenDown: at + screen(),
      screenUp: at - screen(),
      first: 0,
      last: total - 1,
    };
    const row = cursor.row();
    const to = moves[command];
    if (to !== undefined) cursor.go(to);
    else if (command === 'keep' && row) onKeep(row);
    else if (command === 'open' && row) onOpen(row);
    else if (command === 'heads') scroller.current?.querySelector<HTMLElement>('[data-head]')?.focus();
    else return;
    event.preventDefault();
  };
  const hit = ({ target }: MouseEvent): [number, Hunted | undefined, HTMLElement | null] => {
    if (!(target instanceof Element)) return [-1, undefined, null];
    const index = Number(target.closest<HTMLElement>('[data-index]')?.dataset.index ?? NaN);
    return [index, rowAt(index), target.closest<HTMLElement>('[data-act]')];
  };
  const active = shown[drawn.findIndex((row) => row !== undefined && keyOf(row) === selected)];
  return (
    <Box
      ref={scroller}
      role="grid"
      tabIndex={0}
      className="sheet"
      aria-label={t('Offers and drops')}
      aria-rowcount={total + 1}
      aria-colcount={layout.columns.length + 2}
      aria-busy={isPending || isPlaceholderData}
      aria-activedescendant={active ? `hunted-${active.index}` : undefined}
      onKeyDown={onKeyDown}
      onScroll={onScroll}
      style={{ '--cols': layout.template, '--row': `${height}px` } as object}>
      <SheetHead
        layout={layout}
        question={question}
        onAsk={onAsk}
        best={BEST}
        onWidth={(id, px) => onView({ widths: { ...view.widths, [id]: px } })}
      />
      {/* The grid takes the keys, as grids do; the pointer is listened for here, for all rows at once. */}
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions, jsx-a11y/click-events-have-key-events */}
      <div
        role="rowgroup"
        className="sheet-body"
        style={{ height: rows.getTotalSize() }}
        onClick={(event) => {
          const [index, row, button] = hit(event);
          if (!row) return;
          if (button?.dataset.act === 'keep') onKeep(row);
          else cursor.choose(index, keyOf(row));
        }}
        onDoubleClick={(event) => {
          const [, row, button] = hit(event);
          if (row && !button) onOpen(row);
        }}>
        {shown.map((item, i) => {
          const row = drawn[i];
          return (
            <SheetRow
              key={item.key}
              id={`hunted-${item.index}`}
              row={row && { ...row, dot: row.extension }}
              index={item.index}
              top={item.start - HEAD}
              layout={layout}
              span={span}
              context={context}
              dense={view.density === 'dense'}
              selected={row !== undefined && keyOf(row) === selected}
              marked={false}
            />
          );
        })}
      </div>
    </Box>
  );
}
