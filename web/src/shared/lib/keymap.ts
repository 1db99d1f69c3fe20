import { useEffect, useRef } from 'react';

import { usePreferences } from './preferences';
import { t } from '../texts';

/** Where keys are heard. */
export type Place = 'bench' | 'sheet' | 'dots' | 'reading' | 'duels';

interface Binding {
  /** As events name them; "ctrl+" before one that is held with the control or the command key. */
  keys: readonly string[];
  /** As a person reads them. */
  shown: string;
  does: string;
}

const binding = (keys: readonly string[], shown: string, does: string): Binding => ({ keys, shown, does });

/** Every key, once: what hears them and what helps with them both read it here. */
export const KEYMAP = {
  sheet: {
    up: binding(['ArrowUp'], '↑', t('the name above')),
    down: binding(['ArrowDown'], '↓', t('the name below')),
    screenUp: binding(['PageUp'], t('Page up'), t('a screen up')),
    screenDown: binding(['PageDown'], t('Page down'), t('a screen down')),
    first: binding(['Home'], t('Home'), t('the first name')),
    last: binding(['End'], t('End'), t('the last name')),
    mark: binding(['m'], t('m, or shift with ↑ ↓'), t('mark the name, or several in a row')),
    forget: binding(['Escape'], t('Escape'), t('forget the marks')),
    markAll: binding(['ctrl+a'], t('ctrl and a'), t('mark every name shown')),
    keep: binding(['t', ' '], t('t or space'), t('tie a tag: keep the name or those marked, or take it off')),
    dismiss: binding(['x'], 'x', t('dismiss the name, or those marked; among the dismissed, bring back')),
    later: binding(['l'], 'l', t('put by for later')),
    check: binding(['c'], 'c', t('check the name, or those marked')),
    vary: binding(['v'], 'v', t('vary the name: names near it')),
    compare: binding(['g'], 'g', t('compare: the names marked side by side')),
    heads: binding(
      ['o'],
      'o',
      t(
        'to the heads of the columns: ← → from one to the next, Enter orders by it, shift with ← → sizes it, ↓ back to the names',
      ),
    ),
    open: binding(['Enter'], t('Enter'), t('everything about the name, on its own page')),
  },
  bench: {
    read: binding(['r'], 'r', t('read one by one')),
    undo: binding(['u', 'ctrl+z'], t('u, or ctrl and z'), t('undo, back through the session')),
    redo: binding(['U', 'ctrl+y', 'ctrl+Z'], t('shift and u, or ctrl and y'), t('redo')),
    filters: binding(['f'], 'f', t('all filters, or the words again')),
    find: binding(['/'], '/', t('to the letters to look for; Escape empties them')),
    help: binding(['?'], '?', t('this list')),
  },
  dots: {
    keep: binding(['t'], 't', t('keep the name, or take it off')),
  },
  reading: {
    keep: binding(['t'], 't', t('keep')),
    dismiss: binding(['x'], 'x', t('drop')),
    later: binding(['l'], 'l', t('later')),
    pass: binding(['ArrowRight', 'ArrowDown', ' '], '→', t('the next name')),
    back: binding(['ArrowLeft', 'ArrowUp'], '←', t('the name before')),
    takeBack: binding(['u'], 'u', t('undo')),
    why: binding(['w', 'Enter'], 'w', t('the reasons')),
    say: binding(['s'], 's', t('say it')),
    leave: binding(['Escape'], t('Escape'), t('back to the bench')),
  },
  duels: {
    one: binding(['ArrowLeft'], '←', t('the left name')),
    other: binding(['ArrowRight'], '→', t('the right name')),
    neither: binding(['ArrowDown'], '↓', t('neither')),
    takeBack: binding(['u'], 'u', t('take the last answer back')),
  },
} as const satisfies Record<Place, Record<string, Binding>>;

export type Command<P extends Place> = keyof (typeof KEYMAP)[P] & string;
export type Pressed = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey'>;

const bindings = (place: Place): [string, Binding][] => Object.entries(KEYMAP[place]);

/** Whether a key is a single character, which speech and slips of the hand type too (WCAG 2.1.4); the space bar is none. */
const isLetter = (key: string): boolean => key.length === 1 && key !== ' ';

/** What a key does at a place, if anything; single letters do nothing where they are switched off. */
export function commandOf<P extends Place>(place: P, event: Pressed, letters: boolean): Command<P> | null {
  if (event.altKey) return null;
  const key = event.ctrlKey || event.metaKey ? `ctrl+${event.key}` : event.key;
  if (isLetter(key) && !letters) return null;
  return (bindings(place).find(([, { keys }]) => keys.includes(key))?.[0] ?? null) as Command<P> | null;
}

/** The keys of a place as help lists them; those that are switched off are left out where another key does the same. */
export function keysOf(
  place: Place,
  letters: boolean,
): readonly { command: string; shown: string; does: string; off: boolean }[] {
  return bindings(place).map(([command, { keys, shown, does }]) => ({
    command,
    shown,
    does,
    off: !letters && keys.every(isLetter),
  }));
}

/** Whether keys of one letter are heard. */
export const useLetterKeys = (): boolean => usePreferences().preferences?.letter_keys ?? true;

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) ||
    target.closest('[role=dialog], [role=menu], [role=listbox]') !== null);

/** Hears the keys of a place wherever the focus is, but where one types; `act` says whether it did something. */
export function useCommands<P extends Place>(
  place: P,
  act: (command: Command<P>, event: KeyboardEvent) => boolean,
): void {
  const letters = useLetterKeys();
  const latest = useRef(act);
  useEffect(() => {
    latest.current = act;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || isTyping(event.target)) return;
      const command = commandOf(place, event, letters);
      if (command && latest.current(command, event)) event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => {
      window.removeEventListener('keydown', onKey);
    };
  }, [place, letters]);
}
