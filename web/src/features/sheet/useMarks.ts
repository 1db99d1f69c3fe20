import { useRef } from 'react';

import type { SheetQuestion } from '../../shared/lib/question';
import { labelsOf } from '../../shared/lib/labels';
import type { RowAt } from './useSheet';

const MOST_MARKED = 10_000;
/** As many rows may well be there already; more are asked for. */
const MOST_THERE = 1_000;

interface List {
  projectId: number;
  question: SheetQuestion;
  rowAt: RowAt;
  marked: ReadonlySet<string>;
  onMark: (marked: ReadonlySet<string>) => void;
}

export interface Marks {
  /** A range begins here. */
  anchor: (index: number) => void;
  toggle: (index: number, label: string) => void;
  /** From where the range begins to here. */
  to: (index: number) => void;
  range: (from: number, to: number) => void;
}

/** Marking rows one by one and in ranges, those that have not come yet too. */
export function useMarks({ projectId, question, rowAt, marked, onMark }: List): Marks {
  const anchor = useRef(0);
  // Of ranges whose labels are under way only the last one asked for counts.
  const latest = useRef(0);
  const range = (from: number, to: number) => {
    const count = Math.min(to - from + 1, MOST_MARKED);
    const loaded = Array.from({ length: Math.min(count, MOST_THERE) }, (_, i) => rowAt(from + i)?.label);
    latest.current += 1;
    const mine = latest.current;
    if (count <= MOST_THERE && loaded.every((label) => label !== undefined)) onMark(new Set(loaded));
    else
      void labelsOf(projectId, question, from, count).then((labels) => {
        if (latest.current === mine) onMark(new Set(labels));
      });
  };
  return {
    anchor: (index) => {
      anchor.current = index;
    },
    toggle: (index, label) => {
      const next = new Set(marked);
      if (!next.delete(label)) next.add(label);
      anchor.current = index;
      onMark(next);
    },
    to: (index) => {
      range(Math.min(anchor.current, index), Math.max(anchor.current, index));
    },
    range,
  };
}
