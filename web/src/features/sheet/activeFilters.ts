import { type SheetQuestion, type Change, type Filter, leastOf, withLeast } from '../../shared/lib/question';
import { measureOf } from '../../shared/lib/concepts';
import { language, t } from '../../shared/texts';

export const MARK_WORDS: readonly (readonly [NonNullable<SheetQuestion['mark']>, string])[] = [
  ['', t('all')],
  ['fresh', t('not looked at')],
  ['later', t('put by for later')],
  ['kept', t('on the shortlist')],
  ['dismissed', t('dismissed')],
];

const RANGES = { letters: t('letters'), syllables: t('syllables'), words: t('words') };

type Spanned = 'price' | 'later' | 'whole';
const SPANS: Record<Spanned, string> = { price: t('first year'), later: t('later years'), whole: t('all years') };

interface ActiveFilter {
  key: string;
  word: string;
  without: Change;
}

/** "a, b or c", or with "and", as the language has it. */
const lists = (items: readonly string[], type: 'disjunction' | 'conjunction' = 'disjunction'): string =>
  new Intl.ListFormat(language(), { type }).format(items);
const eitherOf = (value: string): string => lists(value.split(','));

/** What narrows the list, in words; what the funnel or the field above shows already is left out. */
export function activeFilters(question: SheetQuestion): ActiveFilter[] {
  const filters: ActiveFilter[] = [];
  const say = (field: Filter, word: string, also: Change = {}) => {
    filters.push({ key: field, word, without: { [field]: undefined, ...also } });
  };
  if (question.starts) say('starts', t('begins with {starts}', { starts: question.starts }));
  if (question.ends) say('ends', t('ends with {ends}', { ends: question.ends }));
  for (const range of ['letters', 'syllables', 'words'] as const) {
    const [low, high] = [question[`${range}_min`], question[`${range}_max`]];
    if (low !== undefined || high !== undefined)
      filters.push({
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
  if (question.grade_min !== undefined) say('grade_min', t('grade from {grade}', { grade: question.grade_min }));
  for (const [name, score] of Object.entries(leastOf(question)))
    filters.push({
      key: name,
      word: t('{word} from {score}', { word: (measureOf(name)?.word ?? name).toLowerCase(), score }),
      without: { least: withLeast(question, name, 0).least },
    });
  if (question.recipes) say('recipes', t('made by {recipes}', { recipes: eitherOf(question.recipes) }));
  if (question.added) say('added', t('with {kinds}', { kinds: eitherOf(question.added) }));
  if (question.open_in)
    say(
      'open_in',
      question.open_in === 'any'
        ? t('open in any of mine')
        : question.open_in === 'all'
          ? t('open in all of mine')
          : t('open in {extensions}', {
              extensions: lists(
                question.open_in.split(',').map((e) => `.${e}`),
                question.open_all ? 'conjunction' : 'disjunction',
              ),
            }),
      { open_all: undefined },
    );
  if (question.status) say('status', eitherOf(question.status));
  for (const [name, word] of Object.entries(SPANS)) {
    const [low, high] = [question[`${name as Spanned}_min`], question[`${name as Spanned}_max`]];
    if (low !== undefined || high !== undefined)
      filters.push({
        key: name,
        word:
          low === undefined
            ? t('{what} up to {high, number}', { what: word, high })
            : high === undefined
              ? t('{what} from {low, number}', { what: word, low })
              : t('{what} {low, number} to {high, number}', { what: word, low, high }),
        without: { [`${name}_min`]: undefined, [`${name}_max`]: undefined },
      });
  }
  if (question.demand_min !== undefined)
    say('demand_min', t('looked for {low, number} times a month or more', { low: question.demand_min }));
  if (question.premium) say('premium', question.premium === 'yes' ? t('premium') : t('not premium only'));
  if (question.hyphen) say('hyphen', question.hyphen === 'yes' ? t('with a hyphen') : t('no hyphen'));
  if (question.digit) say('digit', question.digit === 'yes' ? t('with a digit') : t('no digit'));
  if (question.mark) say('mark', MARK_WORDS.find(([value]) => value === question.mark)?.[1] ?? question.mark);
  return filters;
}
