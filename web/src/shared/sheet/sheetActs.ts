import type { MouseEvent } from 'react';

import type { Command } from '../lib/keymap';

/** Where a key takes the cursor from `at`, if it does, in a sheet of `total` rows, `screen` of them in sight. */
export function moveOf(command: Command<'sheet'>, at: number, screen: number, total: number): number | undefined {
  const moves: Partial<Record<Command<'sheet'>, number>> = {
    down: at + 1,
    up: at - 1,
    screenDown: at + screen,
    screenUp: at - screen,
    first: 0,
    last: total - 1,
  };
  return moves[command];
}

/** The place of the row that was pressed, and the button of it, if one was. */
export function pressedIn({ target }: MouseEvent): [number, HTMLElement | null] {
  if (!(target instanceof Element)) return [-1, null];
  const index = Number(target.closest<HTMLElement>('[data-index]')?.dataset.index ?? NaN);
  return [index, target.closest<HTMLElement>('[data-act]')];
}

/** Go to the heads of the columns: to the one by which the sheet is ordered, if there is one. */
export function toHeads(sheet: HTMLElement | null): void {
  const sorted = sheet?.querySelector<HTMLElement>('[aria-sort$=ing] [data-head]');
  (sorted ?? sheet?.querySelector<HTMLElement>('[data-head]'))?.focus();
}
