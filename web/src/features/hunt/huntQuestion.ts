import type { HuntQuestion as Asked } from '../../shared/api';
import { AddressFields, type AskOf, useAsked } from '../../shared/lib/addressFields';

/** What is asked of the hunt; it lives in the address, so that a link shows the same. */
export type HuntQuestion = Readonly<Omit<Asked, 'offset' | 'limit'>>;
export type HuntField = keyof HuntQuestion;
export type HuntAsk = AskOf<HuntQuestion>;

export const HUNT_FIELDS = new AddressFields<HuntQuestion>({
  texts: ['sort', 'text', 'starts', 'ends', 'kinds', 'markets', 'extensions', 'also', 'hyphen', 'digit'],
  numbers: [
    'letters_min',
    'letters_max',
    'words_min',
    'words_max',
    'price_min',
    'price_max',
    'bids_min',
    'bids_max',
    'within',
    'age_min',
    'links_min',
    'sites_min',
  ],
  flags: ['reverse', 'clean'],
});

const STEPS: ReadonlySet<string> = new Set([
  'sort',
  'reverse',
  'kinds',
  'markets',
  'extensions',
  'also',
  'within',
  'hyphen',
  'digit',
  'clean',
]);

/** What is asked of the hunt, and a way to change parts of it. */
export const useHuntQuestion = () => useAsked(HUNT_FIELDS, STEPS);
