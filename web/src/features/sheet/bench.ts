import { createContext, useContext } from 'react';

import type { Doing } from '../../shared/lib/acts';
import type { Ask, SheetQuestion } from '../../shared/lib/question';
import type { Grading } from '../../shared/lib/grading';
import type { Before } from '../../shared/lib/useActs';
import type { View } from '../../shared/sheet/useView';

/** What the parts of a bench's list share: what is asked, how it looks, what is chosen, and what can be done with names. */
export interface Bench {
  projectId: number;
  hasWords: boolean;
  hasRecipes: boolean;
  question: SheetQuestion;
  onAsk: Ask;
  view: View;
  onView: (part: Partial<View>) => void;
  grading: Grading;
  selected: string | null;
  onSelect: (label: string | null) => void;
  marked: ReadonlySet<string>;
  onMark: (marked: ReadonlySet<string>) => void;
  onAct: (doing: Doing, labels: readonly string[], before?: readonly Before[]) => void;
  onCheck: (labels: string[]) => void;
  onCheckCell: (label: string, extension: string) => void;
  /** Told of the labels in view, and of how many rows match. */
  onRows: (labels: readonly string[], total: number) => void;
  onVary: () => void;
  /** The name's own page. */
  onOpen: (label: string) => void;
  /** Names side by side. */
  onCompare: (labels: readonly string[]) => void;
}

const BenchContext = createContext<Bench | null>(null);

export const BenchProvider = BenchContext.Provider;

export function useBench(): Bench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error('there is no bench around this');
  return bench;
}
