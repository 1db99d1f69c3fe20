import type { Brief } from '../../shared/api';
import type { Difference } from '../../shared/ui/Elsewhere';

const list = (items: readonly string[]) => items.join(', ') || 'none';

/** The parts of a brief as they are told side by side. */
const PARTS: readonly { word: string; of: (brief: Brief) => string }[] = [
  { word: 'In one sentence', of: (b) => b.about || 'none' },
  { word: 'Words', of: (b) => list(b.keywords.map((k) => `${k.text} (${k.weight})`)) },
  { word: 'Purpose', of: (b) => b.purpose },
  {
    word: 'What counts',
    of: (b) => list(Object.entries(b.weights).map(([name, weight]) => `${name} ${weight}`)),
  },
  { word: 'Extensions', of: (b) => list(b.extensions.map((e) => `.${e}`)) },
  {
    word: 'Limits',
    of: (b) =>
      `${b.limits.letters_min} to ${b.limits.letters_max} letters, ${b.limits.words} words, ${b.limits.hyphens} hyphens, ${b.limits.digits} digits`,
  },
  { word: 'Recipes off', of: (b) => list(b.making.off) },
  {
    word: 'Dial and letters',
    of: (b) => `${b.making.daring}, ${b.making.added_max}, ${list(b.making.shapes)}`,
  },
  { word: 'Places', of: (b) => list(b.places) },
  { word: 'To avoid', of: (b) => list(b.avoid) },
  {
    word: 'Owner',
    of: (b) => list([b.owner.country, b.owner.kind, b.owner.work, String(b.owner.budget ?? '')].filter(Boolean)),
  },
  { word: 'If taken', of: (b) => list(b.fallback) },
  {
    word: 'World',
    of: (b) =>
      list([
        ...b.world.on.map((f) => `${f} on`),
        ...b.world.off.map((f) => `${f} off`),
        ...b.world.drop.map((w) => `without ${w}`),
        ...Object.entries(b.world.weights).map(([w, n]) => `${w} (${n})`),
        ...Object.values(b.world.own).flat(),
      ]),
  },
  {
    word: 'Meanings',
    of: (b) => list(b.keywords.map((k) => `${k.text}: ${k.senses.length} chosen, ${k.drop.length} dropped`)),
  },
];

/** Two briefs, part by part, in words. */
export const briefParts = (mine: Brief, theirs: Brief): Difference[] =>
  PARTS.map(({ word, of }) => ({ word, here: of(mine), there: of(theirs) }));
