import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useVirtualizer } from '@tanstack/react-virtual';
import {
  type KeyboardEvent,
  type MouseEvent,
  type UIEvent,
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';

import { commandOf, useLetterKeys } from '../../shared/lib/keymap';
import type { Row } from '../../shared/api';
import type { Doing } from '../../shared/lib/acts';
import { type Ask, type Asked, type Change, FIELDS, narrows } from '../../shared/lib/asked';
import type { Grading } from '../../shared/lib/grading';
import { labelsOf } from '../../shared/lib/labels';
import type { Before } from '../../shared/lib/useActs';
import { Blank } from '../../shared/ui/Blank';
import { layoutOf, type Span, spanOf } from './columns';
import { SheetHead } from './SheetHead';
import { SheetRow } from './SheetRow';
import { useFirstPage, useRows } from './useSheet';
import { ROW_HEIGHTS, type View } from './useView';

const HEAD = 30;
const MOST_MARKED = 10_000;
const LOOKED_AFTER = 1_200;

interface Props {
  projectId: number;
  view: View;
  onView: (part: Partial<View>) => void;
  grading: Grading;
  hasWords: boolean;
  hasRecipes: boolean;
  asked: Asked;
  onAsk: Ask;
  selected: string | null;
  onSelect: (label: string | null) => void;
  onAct: (doing: Doing, labels: readonly string[], before?: readonly Before[]) => void;
  onCheck: (labels: string[]) => void;
  onCheckCell: (label: string, extension: string) => void;
  marked: ReadonlySet<string>;
  onMark: (marked: ReadonlySet<string>) => void;
  /** Told of the labels in view, and of how many rows match. */
  onRows: (labels: readonly string[], total: number) => void;
  onVary: () => void;
  /** The name's own page. */
  onOpen: (label: string) => void;
  /** Names side by side. */
  onCompare: (labels: readonly string[]) => void;
}

/** Where the cursor was in each list, for as long as the page is open. */
const places = new Map<string, number>();

const NOTHING = Object.fromEntries(FIELDS.map((field) => [field, undefined])) as Change;

function Nothing({ hasWords, hasRecipes, asked, onAsk }: Pick<Props, 'hasWords' | 'hasRecipes' | 'asked' | 'onAsk'>) {
  if (!hasRecipes)
    return <Blank title="All recipes are off">Switch one on, on the left: names are made by recipes.</Blank>;
  if (narrows(asked)) {
    return (
      <Blank
        title="No name passes these filters"
        action={
          <Button
            variant="outlined"
            onClick={() => {
              onAsk(NOTHING);
            }}>
            Show all names
          </Button>
        }>
        {(asked.open_in ?? asked.status)
          ? 'Names show as open once they were checked and the registry said so.'
          : 'Try fewer letters, or another of the counts above the sheet.'}
      </Blank>
    );
  }
  return hasWords ? (
    <Blank title="No name keeps these limits">
      Allow more letters or words on the left, or take back a word to avoid.
    </Blank>
  ) : (
    <Blank title="Add a word on the left">Two or three are enough to begin with. The names come at once.</Blank>
  );
}

/** The sheet: names by columns, as many rows as there are, only those in view drawn. */
export function Sheet({
  projectId,
  view,
  onView,
  grading,
  hasWords,
  hasRecipes,
  asked,
  onAsk,
  selected,
  onSelect,
  onAct,
  onCheck,
  onCheckCell,
  marked,
  onMark,
  onRows,
  onVary,
  onOpen,
  onCompare,
}: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const { data, error, isPending, isPlaceholderData, refetch } = useFirstPage(projectId, asked);
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
  // Of many columns only those in sight are drawn.
  const [span, setSpan] = useState<Span>(() => spanOf(layout, 0, 0));
  const draw = useCallback(() => {
    const next = spanOf(layout, scroller.current?.scrollLeft ?? 0, scroller.current?.clientWidth ?? 0);
    setSpan((now) => (now.from === next.from && now.to === next.to ? now : next));
  }, [layout]);
  const there = total > 0;
  useLayoutEffect(() => {
    if (!there || !scroller.current) return;
    const seen = new ResizeObserver(draw);
    seen.observe(scroller.current);
    draw();
    return () => {
      seen.disconnect();
    };
  }, [draw, there]);
  const shown = rows.getVirtualItems();
  const rowAt = useRows(projectId, asked, data, shown[0]?.index ?? 0, shown.at(-1)?.index ?? 0);
  const at = useRef(0);
  const { startIndex, endIndex } = rows.range ?? { startIndex: 0, endIndex: -1 };
  const inView = shown
    .filter((item) => item.index >= startIndex && item.index <= endIndex)
    .map((item) => rowAt(item.index)?.label ?? '')
    .join(' ');
  useEffect(() => {
    onRows(inView.split(' ').filter(Boolean), total);
  }, [inView, total, onRows]);
  const top = rowAt(0);
  const question = JSON.stringify(asked);
  const place = `${projectId} ${question}`;
  useEffect(() => {
    if (selected === null && top && !places.has(place)) onSelect(top.label);
  }, [selected, top, onSelect, place]);
  // A row far away is chosen once it has come.
  const [wanted, setWanted] = useState<number | null>(null);
  const wantedRow = wanted === null ? undefined : rowAt(wanted);
  useEffect(() => {
    if (!wantedRow) return;
    onSelect(wantedRow.label);
    setWanted(null);
  }, [wantedRow, onSelect]);
  // A name the cursor rests on has been looked at.
  const resting = shown
    .map((item) => rowAt(item.index))
    .find((row) => row?.label === selected && row.verdict === '')?.label;
  useEffect(() => {
    if (!resting) return;
    const timer = setTimeout(() => {
      onAct('seen', [resting]);
    }, LOOKED_AFTER);
    return () => {
      clearTimeout(timer);
    };
  }, [resting, onAct]);
  // Who comes back to a list is where they were in it; another question begins at its top.
  const shownAt = useRef<string | null>(null);
  useEffect(() => {
    if (!there || shownAt.current === place) return;
    const first = shownAt.current === null;
    shownAt.current = place;
    const index = first ? Math.min(places.get(place) ?? 0, total - 1) : 0;
    at.current = index;
    if (index > 0) {
      rows.scrollToIndex(index, { align: 'center' });
      setWanted(index);
    } else scroller.current?.scrollTo({ top: 0 });
  }, [there, place, rows, total]);

  // Keys may come faster than the page is drawn anew, so what they speak of is remembered here.
  const chosen = useRef(selected);
  useEffect(() => {
    chosen.current = selected;
  }, [selected]);
  const choose = (index: number, label: string) => {
    at.current = index;
    places.set(place, index);
    chosen.current = label;
    setWanted(null);
    onSelect(label);
  };
  // Where a range of marked names begins, and the last range asked for.
  const anchor = useRef(0);
  const ranges = useRef(0);
  const markRange = (from: number, to: number) => {
    const count = Math.min(to - from + 1, MOST_MARKED);
    const loaded = Array.from({ length: Math.min(count, 1000) }, (_, i) => rowAt(from + i)?.label);
    ranges.current += 1;
    const mine = ranges.current;
    if (count <= 1000 && loaded.every((label) => label !== undefined)) onMark(new Set(loaded));
    else
      void labelsOf(projectId, asked, from, count).then((labels) => {
        if (ranges.current === mine) onMark(new Set(labels));
      });
  };
  const markTo = (index: number) => {
    markRange(Math.min(anchor.current, index), Math.max(anchor.current, index));
  };
  const toggle = (index: number, label: string) => {
    const next = new Set(marked);
    if (!next.delete(label)) next.add(label);
    anchor.current = index;
    onMark(next);
  };
  const go = (index: number, extend = false) => {
    const next = Math.min(total - 1, Math.max(0, index));
    rows.scrollToIndex(next);
    if (extend) markTo(next);
    else anchor.current = next;
    const row = rowAt(next);
    if (row) {
      choose(next, row.label);
      return;
    }
    at.current = next;
    setWanted(next);
  };
  const current = (): Row | undefined => {
    const row = rowAt(at.current);
    return row?.label === chosen.current ? row : undefined;
  };
  /** What a key speaks of: the names marked, or the one chosen. */
  const meant = (row: Row | undefined): readonly string[] => (marked.size > 0 ? [...marked] : row ? [row.label] : []);
  const before = (labels: readonly string[]): Row[] => {
    const there = new Set(labels);
    return shown.map((item) => rowAt(item.index)).filter((r): r is Row => r !== undefined && there.has(r.label));
  };
  const sendAway = (labels: readonly string[]) => {
    onAct(asked.mark === 'dismissed' ? 'restore' : 'dismiss', labels);
    if (marked.size) onMark(new Set());
    setWanted(Math.max(0, Math.min(at.current, total - labels.length - 1)));
  };
  const letters = useLetterKeys();
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.target instanceof HTMLInputElement || (event.target instanceof HTMLElement && event.target.dataset.head))
      return;
    const command = commandOf('sheet', event, letters);
    if (!command) return;
    const screen = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 330) / height) - 2);
    const moves: Partial<Record<typeof command, number>> = {
      down: at.current + 1,
      up: at.current - 1,
      screenDown: at.current + screen,
      screenUp: at.current - screen,
      first: 0,
      last: total - 1,
    };
    const row = current();
    const labels = meant(row);
    const to = moves[command];
    if (to !== undefined) go(to, event.shiftKey);
    else if (command === 'markAll' && total > 0) markRange(0, total - 1);
    else if (command === 'mark' && row) toggle(at.current, row.label);
    else if (command === 'forget' && marked.size) onMark(new Set());
    else if (command === 'keep' && labels.length) onAct(marked.size === 0 && row?.kept ? 'unkeep' : 'keep', labels);
    else if (command === 'later' && labels.length) onAct('later', labels, before(labels));
    else if (command === 'check' && labels.length) onCheck([...labels]);
    else if (command === 'dismiss' && labels.length) sendAway(labels);
    else if (command === 'compare' && labels.length) onCompare(labels);
    else if (command === 'vary' && row) onVary();
    else if (command === 'heads')
      (
        scroller.current?.querySelector<HTMLElement>('[aria-sort$=ing] [data-head]') ??
        scroller.current?.querySelector<HTMLElement>('[data-head]')
      )?.focus();
    else if (command === 'open' && row) onOpen(row.label);
    else return;
    event.preventDefault();
  };
  const onClick = (event: MouseEvent) => {
    if (!(event.target instanceof Element)) return;
    const index = Number(event.target.closest<HTMLElement>('[data-index]')?.dataset.index ?? NaN);
    const row = rowAt(index);
    if (!row) return;
    const button = event.target.closest<HTMLElement>('[data-act]');
    if (button?.dataset.act === 'keep') onAct(row.kept ? 'unkeep' : 'keep', [row.label]);
    else if (button?.dataset.act === 'check') onCheckCell(row.label, button.dataset.extension ?? '');
    else {
      if (event.shiftKey) markTo(index);
      else if (event.ctrlKey || event.metaKey) toggle(index, row.label);
      else anchor.current = index;
      choose(index, row.label);
    }
  };
  // Only when it went sideways: setting it anew makes every cell be reckoned anew.
  const aside = useRef(0);
  const onScroll = ({ currentTarget }: UIEvent<HTMLElement>) => {
    if (currentTarget.scrollLeft === aside.current) return;
    aside.current = currentTarget.scrollLeft;
    currentTarget.style.setProperty('--scrolled', `${aside.current}px`);
    draw();
  };
  const onDoubleClick = (event: MouseEvent) => {
    const row =
      event.target instanceof Element
        ? rowAt(Number(event.target.closest<HTMLElement>('[data-index]')?.dataset.index ?? NaN))
        : undefined;
    if (row && event.target instanceof Element && !event.target.closest('[data-act]')) onOpen(row.label);
  };

  if (error && !data) {
    return (
      <Blank
        alert
        title="The names could not be loaded"
        action={
          <Button
            variant="outlined"
            onClick={() => {
              void refetch();
            }}>
            Try again
          </Button>
        }>
        {error.message}
      </Blank>
    );
  }
  if (!isPending && total === 0)
    return <Nothing hasWords={hasWords} hasRecipes={hasRecipes} asked={asked} onAsk={onAsk} />;
  const activeRow = shown.find((item) => rowAt(item.index)?.label === selected);
  return (
    <Box
      ref={scroller}
      role="grid"
      tabIndex={0}
      className="sheet"
      aria-label="Names"
      aria-multiselectable
      aria-rowcount={total + 1}
      aria-colcount={layout.columns.length + 2}
      aria-busy={isPending || isPlaceholderData}
      aria-activedescendant={activeRow ? `row-${activeRow.index}` : undefined}
      onKeyDown={onKeyDown}
      onScroll={onScroll}
      style={{ '--cols': layout.template, '--row': `${height}px` } as object}>
      <SheetHead
        layout={layout}
        asked={asked}
        onAsk={onAsk}
        onWidth={(id, px) => {
          onView({ widths: { ...view.widths, [id]: px } });
        }}
      />
      {/* The grid takes the keys, as grids do; the pointer is listened for here, for all rows at once. */}
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions, jsx-a11y/click-events-have-key-events */}
      <div
        role="rowgroup"
        className="sheet-body"
        style={{ height: rows.getTotalSize() }}
        onClick={onClick}
        onDoubleClick={onDoubleClick}>
        {shown.map((item) => {
          const row = rowAt(item.index);
          return (
            <SheetRow
              key={item.key}
              id={`row-${item.index}`}
              row={row}
              index={item.index}
              top={item.start - HEAD}
              layout={layout}
              span={span}
              grading={grading}
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
