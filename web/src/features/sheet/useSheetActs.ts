import { type KeyboardEvent, type MouseEvent, type RefObject } from 'react';

import type { Row } from '../../shared/api';
import { commandOf, useLetterKeys } from '../../shared/lib/keymap';
import { useBench } from './bench';
import { moveOf, pressedIn, toHeads } from '../../shared/sheet/sheetActs';
import type { Cursor } from '../../shared/sheet/useCursor';
import type { Marks } from './useMarks';
import type { RowAt } from './useSheet';

interface List {
  scroller: RefObject<HTMLElement | null>;
  rowAt: RowAt;
  total: number;
  /** The rows drawn. */
  drawn: readonly (Row | undefined)[];
  /** How many rows a screen further is. */
  screen: () => number;
  cursor: Cursor<Row>;
  marks: Marks;
}

/** What keys and the pointer do in the sheet. */
export function useSheetActs({ scroller, rowAt, total, drawn, screen, cursor, marks }: List) {
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
  const onKeyDown = (event: KeyboardEvent) => {
    const { target } = event;
    if (target instanceof HTMLInputElement || (target instanceof HTMLElement && target.dataset.head)) return;
    const command = commandOf('sheet', event, letters);
    if (!command) return;
    const at = cursor.at();
    const row = cursor.row();
    const labels = meant(row);
    const to = moveOf(command, at, screen(), total);
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
    else if (command === 'heads') toHeads(scroller.current);
    else if (command === 'open' && row) onOpen(row.label);
    else return;
    event.preventDefault();
  };
  const onClick = (event: MouseEvent) => {
    const [index, button] = pressedIn(event);
    const row = rowAt(index);
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
    const [index, button] = pressedIn(event);
    const row = rowAt(index);
    if (row && !button) onOpen(row.label);
  };
  return { onKeyDown, onClick, onDoubleClick };
}
