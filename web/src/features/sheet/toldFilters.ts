import { type Asked, type Change, type Filter, leastOf, withLeast } from '../../shared/lib/asked';
import { measureOf } from '../../shared/lib/concepts';
import { language, t } from '../../shared/texts';

export const MARK_WORDS: readonly (readonly [NonNullable<Asked['mark']>, string])[] = [
  ['', t('all')],
  ['fresh', t('not looked at')],
  ['later', t('put by for later')],
  ['kept', t('on the shortlist')],
  ['dismissed', t('dismissed')],
];

const RANGES = { letters: t('letters'), syllables: t('syllables'), words: t('words') };

interface Told {
  key: string;
  word: string;
  without: Change;
}

/** "a, b or c", or with "and", as the language has it. */
const lists = (items: readonly string[], type: 'disjunction' | 'conjunction' = 'disjunction'): string =>
  new Intl.ListFormat(language(), { type }).format(items);
const eitherOf = (value: string): string => lists(value.split(','));

/** What narrows the list, in words; what the funnel or the field above shows already is left out. */
export function toldFilters(asked: Asked): Told[] {
  const told: Told[] = [];
  const say = (field: Filter, word: string, also: Change = {}) => {
    told.push({ key: field, word, without: { [field]: undefined, ...also } });
  };
  if (asked.starts) say('starts', t('begins with {starts}', { starts: asked.starts }));
  if (asked.ends) say('ends', t('ends with {ends}', { ends: asked.ends }));
  for (const range of ['letters', 'syllables', 'words'] as const) {
    const [low, high] = [asked[`${range}_min`], asked[`${range}_max`]];
    if (low !== undefined || high !== undefined)
      told.push({
        key: range,
        word:
          low === undefined
            ? t('up to {high} {what}', { high, what: RANGES[range] })
            : high === undefined
              ? t('from {low} {what}', { low, what: RANGES[range] })
              : t('{low} to {high} {what}', { low, high, what: RANGES[range] }),
        without: { [`${range}_min`]: undefined, [`${range}_max`]: undefined },
      });
  }
  if (asked.grade_min !== undefined) say('grade_min', t('grade from {grade}', { grade: asked.grade_min }));
  for (const [name, score] of Object.entries(leastOf(asked)))
    told.push({
      key: name,
      word: t('{word} from {score}', { word: (measureOf(name)?.word ?? name).toLowerCase(), score }),
      without: { least: withLeast(asked, name, 0).least },
    });
  if (asked.recipes) say('recipes', t('made by {recipes}', { recipes: eitherOf(asked.recipes) }));
  if (asked.added) say('added', t('with {kinds}', { kinds: eitherOf(asked.added) }));
  if (asked.open_in)
    say(
      'open_in',
      asked.open_in === 'any'
        ? t('open in any of mine')
        : asked.open_in === 'all'
          ? t('open in all of mine')
          : t('open in {extensions}', {
              extensions: lists(
                asked.open_in.split(',').map((e) => `.${e}`),
                asked.open_all ? 'conjunction' : 'disjunction',
              ),
            }),
      { open_all: undefined },
    );
  if (asked.status) say('status', eitherOf(asked.status));
  if (asked.price_max !== undefined) say('price_max', t('first year up to {price}', { price: asked.price_max }));
  if (asked.hyphen) say('hyphen', asked.hyphen === 'yes' ? t('with a hyphen') : t('no hyphen'));
  if (asked.digit) say('digit', asked.digit === 'yes' ? t('with a digit') : t('no digit'));
  if (asked.mark) say('mark', MARK_WORDS.find(([value]) => value === asked.mark)?.[1] ?? asked.mark);
  return told;
}
