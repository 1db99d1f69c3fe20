import { useCallback, useMemo } from 'react';

import type { HuntQuestion as Asked } from '../../shared/api';
import { useAddress } from '../../shared/lib/useAddress';

/** What is asked of the hunt; it lives in the address, so that a link shows the same. */
export type HuntQuestion = Readonly<Omit<Asked, 'offset' | 'limit'>>;
export type HuntField = keyof HuntQuestion;
export type HuntChange = { [K in HuntField]?: HuntQuestion[K] | undefined };
export type HuntAsk = (part: HuntChange | ((now: HuntQuestion) => HuntChange)) => void;

const FLAGS: readonly HuntField[] = ['reverse', 'clean'];
const NUMBERS: readonly HuntField[] = [
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
];
const TEXTS: readonly HuntField[] = [
  'sort',
  'text',
  'starts',
  'ends',
  'kinds',
  'markets',
  'extensions',
  'also',
  'hyphen',
  'digit',
];
const FIELDS: readonly HuntField[] = [...TEXTS, ...NUMBERS, ...FLAGS];
export const NO_FILTERS: HuntChange = Object.fromEntries(
  FIELDS.filter((field) => field !== 'sort' && field !== 'reverse').map((field) => [field, undefined]),
);

export function readHunt(params: URLSearchParams): HuntQuestion {
  const found: Record<string, string | number | boolean> = {};
  for (const field of TEXTS) if (params.get(field)) found[field] = params.get(field) ?? '';
  for (const field of FLAGS) if (params.get(field) === '1') found[field] = true;
  for (const field of NUMBERS) {
    const value = params.get(field);
    if (value && Number.isFinite(Number(value))) found[field] = Number(value);
  }
  return found;
}

/** The fields of an address for a question. */
export const writeHunt = (question: HuntQuestion): [string, string][] =>
  FIELDS.flatMap((field): [string, string][] => {
    const value = question[field];
    return value === undefined || value === '' || value === false
      ? []
      : [[field, value === true ? '1' : String(value)]];
  });

/** How many filters narrow the hunt. */
export const filtersOf = (question: HuntQuestion): number =>
  writeHunt(question).filter(([field]) => field !== 'sort' && field !== 'reverse').length;

/** The question in the address, and a way to change parts of it; what else the address holds stays. */
export function useHuntQuestion(): [HuntQuestion, HuntAsk] {
  const [params, turn] = useAddress();
  const question = useMemo(() => readHunt(params), [params]);
  const ask = useCallback<HuntAsk>(
    (part) => {
      turn((now) => {
        const before = readHunt(now);
        const next = { ...before, ...(typeof part === 'function' ? part(before) : part) } as HuntQuestion;
        const written = new URLSearchParams(writeHunt(next));
        for (const [name, value] of now) if (!(FIELDS as readonly string[]).includes(name)) written.append(name, value);
        return written;
      });
    },
    [turn],
  );
  return [question, ask];
}
