import type { CheckRequest, Question } from '../api';
import { AddressFields, type AskOf, type ChangeOf } from './addressFields';

/** What is asked of the sheet; it lives in the address, so that a link shows the same. What is not asked is left out. */
export type SheetQuestion = Readonly<Omit<Question, 'offset' | 'limit'>>;
export type Filter = keyof SheetQuestion;

export const EVERYTHING: SheetQuestion = {};

/** The fields of an address for what is asked of the sheet. */
export const SHEET_FIELDS = new AddressFields<SheetQuestion>({
  texts: [
    'sort',
    'text',
    'starts',
    'ends',
    'least',
    'recipes',
    'added',
    'open_in',
    'status',
    'hyphen',
    'digit',
    'premium',
    'mark',
  ],
  numbers: [
    'letters_min',
    'letters_max',
    'syllables_min',
    'syllables_max',
    'words_min',
    'words_max',
    'grade_min',
    'price_min',
    'price_max',
    'later_min',
    'later_max',
    'whole_min',
    'whole_max',
    'demand_min',
  ],
  flags: ['reverse', 'open_all'],
});

/** Whether anything narrows the list. */
export const narrows = (question: SheetQuestion): boolean => SHEET_FIELDS.filtersOf(question) > 0;

/** A filter's list, which an address sets apart by commas. */
export const listOf = (value: string | undefined): string[] => (value ? value.split(',') : []);

/** The list with an item more, or less when it is there; nothing when none is left. */
export function toggled(value: string | undefined, item: string): string | undefined {
  const list = listOf(value);
  const next = list.includes(item) ? list.filter((one) => one !== item) : [...list, item];
  return next.length ? next.join(',') : undefined;
}

/** The lowest scores asked for, by measure. */
export const leastOf = (question: SheetQuestion): Record<string, number> =>
  Object.fromEntries(listOf(question.least).map((pair) => [pair.split(':')[0] ?? '', Number(pair.split(':')[1])]));

/** Another lowest score for a measure; none when it is 0. */
export function withLeast(question: SheetQuestion, measure: string, score: number): SheetQuestion {
  const least = { ...leastOf(question), [measure]: score };
  const pairs = Object.entries(least)
    .filter(([, low]) => low > 0)
    .map(([name, low]) => `${name}:${low}`);
  return changed(question, { least: pairs.length ? pairs.join(',') : undefined });
}

export type Change = ChangeOf<SheetQuestion>;

const NOTHING: readonly unknown[] = [undefined, '', false];

/** The question with some of it changed; undefined takes a part away. */
export function changed(question: SheetQuestion, part: Change): SheetQuestion {
  const next = Object.entries({ ...question, ...part }).filter(([, value]) => !NOTHING.includes(value));
  return Object.fromEntries(next);
}

/** A check of the rows the sheet shows, or of anything else that can be asked for. */
export type CheckWish = Partial<CheckRequest> & { shown?: SheetQuestion };

export type Ask = AskOf<SheetQuestion>;
