import { sampleBrief } from '../testing/samples';
import { expect, it } from 'vitest';

import graded from '../testing/graded.json';
import { concepts } from './concepts';
import { gradeOf, sharesOf, weightsOf } from './grading';

it.each(graded)('grades as the server does: $grade', ({ scores, weights, grade }) => {
  const given: Record<string, number | null> = scores;
  expect(gradeOf(given, { weights, exponent: concepts().exponent })).toBeCloseTo(grade, 6);
});

it('grades as worked by hand, with the exponent 0.4', () => {
  // ((100^0.4 + 0) / 2)^(1 / 0.4).
  expect(gradeOf({ a: 100, b: 0 }, { weights: { a: 1, b: 1 }, exponent: 0.4 })).toBeCloseTo(100 / 2 ** 2.5);
  expect(gradeOf({ a: 80, b: null }, { weights: { a: 1, b: 9 }, exponent: 0.4 })).toBeCloseTo(80);
});

it('shares the grade out by weight, alike when all weigh nothing', () => {
  expect(sharesOf({ a: 3, b: 1 })).toEqual({ a: 0.75, b: 0.25 });
  expect(sharesOf({ a: 0, b: 0 })).toEqual({ a: 0.5, b: 0.5 });
});

it("counts the person's own weights, or those of the purpose", () => {
  const brief = sampleBrief({ name: 'Pressroom' });
  expect(Object.keys(weightsOf(brief))).toEqual(concepts().measures.map((m) => m.name));
  expect(weightsOf({ ...brief, purpose: 'descriptive' }).fit).toBe(
    concepts().measures.find((m) => m.name === 'fit')?.weights.descriptive,
  );
  expect(weightsOf({ ...brief, weights: { fit: 10 } })).toEqual({ fit: 10 });
});

it('never grades above the plain average', () => {
  const scores = { length: 90, spelling: 15, fit: 60, sound: 94, memory: 40, clarity: 100 };
  const weights = { length: 3, spelling: 6, fit: 10, sound: 3, memory: 3, clarity: 6 };
  const shares = sharesOf(weights);
  const average = Object.entries(scores).reduce((sum, [name, score]) => sum + (shares[name] ?? 0) * score, 0);
  expect(gradeOf(scores, { weights, exponent: 0.4 })).toBeLessThan(average);
  expect(gradeOf(scores, { weights, exponent: 1 })).toBeCloseTo(average);
});
