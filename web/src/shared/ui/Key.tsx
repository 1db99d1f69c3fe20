import { type Command, KEYMAP, type Place, useLetterKeys } from '../lib/keymap';

/** The key of a command beside what it does; nothing where it is switched off. */
export function Key<P extends Place>({ place, of }: { place: P; of: Command<P> }) {
  const letters = useLetterKeys();
  const { shown } = KEYMAP[place][of] as { shown: string };
  return letters || shown.length > 1 || !/[a-z/?]/i.test(shown) ? <kbd>{shown}</kbd> : null;
}
