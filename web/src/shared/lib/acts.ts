import { t } from '../texts';

/** What can be done to names of a list, each with what takes it back. */
export type Doing = 'keep' | 'unkeep' | 'dismiss' | 'restore' | 'later' | 'seen' | 'unseen';

export interface Act {
  doing: Doing;
  labels: readonly string[];
}

/** Something done that can be undone, and done again after that. */
export interface Step {
  done: Act;
  undo: readonly Act[];
}

export interface History {
  past: readonly Step[];
  future: readonly Step[];
}

const MOST_STEPS = 200;
const key = (projectId: number): string => `vinetag.history.${projectId}`;
const histories = new Map<number, History>();
const listeners = new Set<() => void>();

/** What was done in a project; kept for the browser's session, so that a reload loses no undo. */
export function historyOf(projectId: number): History {
  const known = histories.get(projectId);
  if (known) return known;
  let read: History = { past: [], future: [] };
  try {
    read = JSON.parse(sessionStorage.getItem(key(projectId)) ?? '') as History;
  } catch {
    /* nothing was done yet, or storage is closed to us */
  }
  histories.set(projectId, read);
  return read;
}

export function setHistory(projectId: number, history: History): void {
  const kept = { past: history.past.slice(-MOST_STEPS), future: history.future };
  histories.set(projectId, kept);
  try {
    sessionStorage.setItem(key(projectId), JSON.stringify(kept));
  } catch {
    /* storage is full or closed: undo lasts until the page is left */
  }
  listeners.forEach((tell) => {
    tell();
  });
}

export function listenToHistory(tell: () => void): () => void {
  listeners.add(tell);
  return () => {
    listeners.delete(tell);
  };
}

const SAID: Record<Doing, (names: { n: number; names: string }) => string> = {
  keep: (of) => t('{n, plural, one {{names} was} other {{names} were}} kept', of),
  unkeep: (of) => t('{n, plural, one {{names} was} other {{names} were}} taken off the shortlist', of),
  dismiss: (of) => t('{n, plural, one {{names} was} other {{names} were}} dismissed', of),
  restore: (of) => t('{n, plural, one {{names} was} other {{names} were}} brought back', of),
  later: (of) => t('{n, plural, one {{names} was} other {{names} were}} put by for later', of),
  seen: (of) => t('{n, plural, one {{names} was} other {{names} were}} marked as looked at', of),
  unseen: (of) => t('{n, plural, one {{names} was} other {{names} were}} marked as not looked at', of),
};

/** "inkpost was dismissed", "12 names were kept". */
export const tell = ({ doing, labels }: Act): string =>
  SAID[doing]({
    n: labels.length,
    names:
      labels.length === 1 ? (labels[0] ?? '') : t('{n, plural, one {# name} other {# names}}', { n: labels.length }),
  });
