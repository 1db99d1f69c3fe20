import { type Asked, type Change, type Filter, leastOf, withLeast } from '../../shared/lib/asked';
import { measureOf } from '../../shared/lib/concepts';

export const MARK_WORDS: readonly (readonly [NonNullable<Asked['mark']>, string])[] = [
  ['', 'all'],
  ['fresh', 'not looked at'],
  ['later', 'put by for later'],
  ['kept', 'on the shortlist'],
  ['dismissed', 'dismissed'],
];

interface Told {
  key: string;
  word: string;
  without: Change;
}

const lists = (value: string): string => value.split(',').join(' or ');

/** What narrows the list, in words; what the funnel or the field above shows already is left out. */
export function toldFilters(asked: Asked): Told[] {
  const told: Told[] = [];
  const say = (field: Filter, word: string, also: Change = {}) => {
    told.push({ key: field, word, without: { [field]: undefined, ...also } });
  };
  if (asked.starts) say('starts', `begins with ${asked.starts}`);
  if (asked.ends) say('ends', `ends with ${asked.ends}`);
  for (const range of ['letters', 'syllables', 'words'] as const) {
    const [low, high] = [asked[`${range}_min`], asked[`${range}_max`]];
    if (low !== undefined || high !== undefined)
      told.push({
        key: range,
        word:
          low === undefined
            ? `up to ${high ?? ''} ${range}`
            : high === undefined
              ? `from ${low} ${range}`
              : `${low} to ${high} ${range}`,
        without: { [`${range}_min`]: undefined, [`${range}_max`]: undefined },
      });
  }
  if (asked.grade_min !== undefined) say('grade_min', `grade from ${asked.grade_min}`);
  for (const [name, score] of Object.entries(leastOf(asked)))
    told.push({
      key: name,
      word: `${(measureOf(name)?.word ?? name).toLowerCase()} from ${score}`,
      without: { least: withLeast(asked, name, 0).least },
    });
  if (asked.recipes) say('recipes', `made by ${lists(asked.recipes)}`);
  if (asked.added) say('added', `with ${lists(asked.added)}`);
  if (asked.open_in)
    say(
      'open_in',
      `open in ${
        asked.open_in === 'any' || asked.open_in === 'all'
          ? `${asked.open_in} of mine`
          : asked.open_in
              .split(',')
              .map((e) => `.${e}`)
              .join(asked.open_all ? ' and ' : ' or ')
      }`,
      { open_all: undefined },
    );
  if (asked.status) say('status', lists(asked.status));
  if (asked.price_max !== undefined) say('price_max', `first year up to ${asked.price_max}`);
  if (asked.hyphen) say('hyphen', asked.hyphen === 'yes' ? 'with a hyphen' : 'no hyphen');
  if (asked.digit) say('digit', asked.digit === 'yes' ? 'with a digit' : 'no digit');
  if (asked.mark) say('mark', MARK_WORDS.find(([value]) => value === asked.mark)?.[1] ?? asked.mark);
  return told;
}
