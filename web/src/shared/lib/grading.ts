import type { Brief, Weighing } from '../api';

export interface MeasureWords {
  name: string;
  word: string;
  /** What it asks, in a few words. */
  asks: string;
}

/** The measures in their order. */
export const MEASURES: readonly MeasureWords[] = [
  { name: 'length', word: 'Length', asks: 'How much is there to type and to say?' },
  { name: 'spelling', word: 'Spelling', asks: 'Would someone who hears it write it right?' },
  { name: 'fit', word: 'Keyword fit', asks: 'How much does it say of your words and your world?' },
  { name: 'sense', word: 'Sense', asks: 'Does it mean something here, in natural English?' },
  { name: 'sound', word: 'Sound', asks: 'Can it be said, and in one way?' },
  { name: 'memory', word: 'Memory', asks: 'Is it remembered?' },
  { name: 'clarity', word: 'Clarity', asks: 'Is it read in one way only?' },
];

export type Weights = Readonly<Record<string, number>>;
/** How grades are made, once that is known. */
export interface Grading {
  weights: Weights;
  exponent: number;
}
export type Scores = Readonly<Record<string, number | null>>;

/** The weights that count: the person's own, or those of the purpose. */
export const weightsOf = (brief: Brief, weighing: Weighing | undefined): Weights =>
  Object.keys(brief.weights).length > 0 ? brief.weights : (weighing?.presets[brief.purpose] ?? {});

/** Each measure's share of the grade, 0 to 1, as the server works it out. */
export function sharesOf(weights: Weights): Weights {
  const total = Object.values(weights).reduce((sum, weight) => sum + weight, 0);
  const count = Object.keys(weights).length;
  return Object.fromEntries(Object.entries(weights).map(([name, weight]) => [name, total ? weight / total : 1 / count]));
}

/** The grade as the server works it out: the weighted power mean of the scores that were given. */
export function gradeOf(scores: Scores, { weights, exponent }: Grading): number {
  const given = Object.entries(scores).filter((score): score is [string, number] => score[1] !== null);
  const shares = sharesOf(Object.fromEntries(given.map(([name]) => [name, weights[name] ?? 0])));
  const mean = given.reduce((sum, [name, score]) => sum + (shares[name] ?? 0) * score ** exponent, 0);
  return mean ** (1 / exponent);
}
