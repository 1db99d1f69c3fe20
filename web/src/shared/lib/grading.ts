import type { Brief } from '../api';
import { concepts, measures } from './concepts';

export type Weights = Readonly<Record<string, number>>;
/** How grades are made. */
export interface Grading {
  weights: Weights;
  exponent: number;
}
export type Scores = Readonly<Record<string, number | null>>;

/** The weights where a person set none. */
export const presetOf = (purpose: Brief['purpose']): Weights =>
  Object.fromEntries(measures().map(({ name, weights }) => [name, weights[purpose] ?? 0]));

/** The weights that count: the person's own, or those of the purpose. */
export const weightsOf = (brief: Pick<Brief, 'weights' | 'purpose'>): Weights =>
  Object.keys(brief.weights).length > 0 ? brief.weights : presetOf(brief.purpose);

/** How a brief's grades are made, with its weights or others tried out. */
export const gradingOf = (brief: Pick<Brief, 'weights' | 'purpose'>, tried: Weights | null = null): Grading => ({
  weights: tried ?? weightsOf(brief),
  exponent: concepts().exponent,
});

/** Each measure's share of the grade, 0 to 1, as the server works it out. */
export function sharesOf(weights: Weights): Weights {
  const total = Object.values(weights).reduce((sum, weight) => sum + weight, 0);
  const count = Object.keys(weights).length;
  return Object.fromEntries(
    Object.entries(weights).map(([name, weight]) => [name, total ? weight / total : 1 / count]),
  );
}

/** The grade as the server works it out: the weighted power mean of the scores that were given. */
export function gradeOf(scores: Scores, { weights, exponent }: Grading): number {
  const given = Object.entries(scores).filter((score): score is [string, number] => score[1] !== null);
  const shares = sharesOf(Object.fromEntries(given.map(([name]) => [name, weights[name] ?? 0])));
  const mean = given.reduce((sum, [name, score]) => sum + (shares[name] ?? 0) * score ** exponent, 0);
  return mean ** (1 / exponent);
}
