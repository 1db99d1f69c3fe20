import type { Brief } from '../../shared/api';
import type { Difference } from '../../shared/ui/Elsewhere';
import { t } from '../../shared/texts';

const list = (items: readonly string[]) => items.join(', ') || t('none');

/** The parts of a brief as they are told side by side. */
const PARTS: readonly { word: string; of: (brief: Brief) => string }[] = [
  { word: t('In one sentence'), of: (b) => b.about || t('none') },
  { word: t('Words'), of: (b) => list(b.keywords.map((k) => `${k.text} (${k.weight})`)) },
  { word: t('Purpose'), of: (b) => b.purpose },
  {
    word: t('What counts'),
    of: (b) => list(Object.entries(b.weights).map(([name, weight]) => `${name} ${weight}`)),
  },
  { word: t('Extensions'), of: (b) => list(b.extensions.map((e) => `.${e}`)) },
  {
    word: t('Limits'),
    of: (b) =>
      t('{lettersMin} to {lettersMax} letters, {words} words, {hyphens} hyphens, {digits} digits', {
        lettersMin: b.limits.letters_min,
        lettersMax: b.limits.letters_max,
        words: b.limits.words,
        hyphens: b.limits.hyphens,
        digits: b.limits.digits,
      }),
  },
  { word: t('Recipes off'), of: (b) => list(b.making.off) },
  {
    word: t('Dial and letters'),
    of: (b) => `${b.making.daring}, ${b.making.added_max}, ${list(b.making.shapes)}`,
  },
  { word: t('Places'), of: (b) => list(b.places) },
  { word: t('To avoid'), of: (b) => list(b.avoid) },
  {
    word: t('Owner'),
    of: (b) =>
      list(
        [
          b.owner.country,
          b.owner.kind,
          b.owner.work,
          String(b.owner.budget ?? ''),
          String(b.owner.budget_whole ?? ''),
        ].filter(Boolean),
      ),
  },
  { word: t('If taken'), of: (b) => list(b.fallback) },
  {
    word: t('World'),
    of: (b) =>
      list([
        ...b.world.on.map((f) => t('{field} on', { field: f })),
        ...b.world.off.map((f) => t('{field} off', { field: f })),
        ...b.world.drop.map((w) => t('without {word}', { word: w })),
        ...Object.entries(b.world.weights).map(([w, n]) => `${w} (${n})`),
        ...Object.values(b.world.own).flat(),
      ]),
  },
  {
    word: t('Meanings'),
    of: (b) =>
      list(
        b.keywords.map((k) =>
          t('{k}: {senses} chosen, {drop} dropped', { k: k.text, senses: k.senses.length, drop: k.drop.length }),
        ),
      ),
  },
];

/** Two briefs, part by part, in words. */
export const briefParts = (mine: Brief, theirs: Brief): Difference[] =>
  PARTS.map(({ word, of }) => ({ word, here: of(mine), there: of(theirs) }));
