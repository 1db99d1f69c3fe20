import { type KeyboardEvent, type MouseEvent, type RefObject } from 'react';

import type { Row } from '../../shared/api';
import { commandOf, useLetterKeys } from '../../shared/lib/keymap';
import { useBench } from './bench';
import type { Cursor } from '../../shared/sheet/useCursor';
import type { Marks } from './useMarks';
import type { RowAt } from './useSheet';

interface List {
  scroller: RefObject<HTMLElement | null>;
  rowAt: RowAt;
  total: number;
  /** The rows drawn. */
  drawn: readonly (Row | undefined)[];
  /** Of a row, in pixels. */
  height: number;
  cursor: Cursor<Row>;
  marks: Marks;
}

/** What keys and the pointer do in the sheet. */
export function useSheetActs({ scroller, rowAt, total, drawn, height, cursor, marks }: List) {
  const { question, marked, onMark, onAct, onCheck, onCheckCell, onVary, onOpen, onCompare } = useBench();
  const letters = useLetterKeys();
  /** What a key speaks of: the names marked, or the one chosen. */
  const meant = (row: Row | undefined): readonly string[] => (marked.size > 0 ? [...marked] : row ? [row.label] : []);
  const before = (labels: readonly string[]): Row[] => {
    const there = new Set(labels);
    return drawn.filter((row): row is Row => row !== undefined && there.has(row.label));
  };
  const sendAway = (labels: readonly string[]) => {
    onAct(question.mark === 'dismissed' ? 'restore' : 'dismiss', labels);
    if (marked.size) onMark(new Set());
    cursor.await(Math.max(0, Math.min(cursor.at(), total - labels.length - 1)));
  };
  const toHeads = () => {
    const heads = scroller.current;
    const sorted = heads?.querySelector<HTMLElement>('[aria-sort$=ing] [data-head]');
    (sorted ?? heads?.querySelector<HTMLElement>('[data-head]'))?.focus();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const { target } = event;
    if (target instanceof HTMLInputElement || (target instanceof HTMLElement && target.dataset.head)) return;
    const command = commandOf('sheet', event, letters);
    if (!command) return;
    const at = cursor.at();
    const screen = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 330) / height) - 2);
    const moves: Partial<Record<typeof command, number>> = {
      down: at + 1,
      up: at - 1,
      screenDown: at + screen,
      screenUp: at - screen,
      first: 0,
      last: total - 1,
    };
    const row = cursor.row();
    const labels = meant(row);
    const to = moves[command];
    if (to !== undefined) {
      const next = cursor.go(to);
      if (event.shiftKey) marks.to(next);
      else marks.anchor(next);
    } else if (command === 'markAll' && total > 0) marks.range(0, total - 1);
    else if (command === 'mark' && row) marks.toggle(at, row.label);
    else if (command === 'forget' && marked.size) onMark(new Set());
    else if (command === 'keep' && labels.length) onAct(marked.size === 0 && row?.kept ? 'unkeep' : 'keep', labels);
    else if (command === 'later' && labels.length) onAct('later', labels, before(labels));
    else if (command === 'check' && labels.length) onCheck([...labels]);
    else if (command === 'dismiss' && labels.length) sendAway(labels);
    else if (command === 'compare' && labels.length) onCompare(labels);
    else if (command === 'vary' && row) onVary();
    else if (command === 'heads') toHeads();
    else if (command === 'open' && row) onOpen(row.label);
    else return;
    event.preventDefault();
  };
  const hit = ({ target }: MouseEvent): [number, Row | undefined, HTMLElement | null] => {
    if (!(target instanceof Element)) return [-1, undefined, null];
    const index = Number(target.closest<HTMLElement>('[data-index]')?.dataset.index ?? NaN);
    return [index, rowAt(index), target.closest<HTMLElement>('[data-act]')];
  };
  const onClick = (event: MouseEvent) => {
    const [index, row, button] = hit(event);
    if (!row) return;
    if (button?.dataset.act === 'keep') onAct(row.kept ? 'unkeep' : 'keep', [row.label]);
    else if (button?.dataset.act === 'check') onCheckCell(row.label, button.dataset.extension ?? '');
    else {
      if (event.shiftKey) marks.to(index);
      else if (event.ctrlKey || event.metaKey) marks.toggle(index, row.label);
      else marks.anchor(index);
      cursor.choose(index, row.label);
    }
  };
  const onDoubleClick = (event: MouseEvent) => {
    const [, row, button] = hit(event);
    if (row && !button) onOpen(row.label);
  };
  return { onKeyDown, onClick, onDoubleClick };
}
