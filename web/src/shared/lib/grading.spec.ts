import { sampleBrief } from '../testing/samples';
import { describe, expect, it } from 'vitest';

import type { Weighing } from '../api';
import { gradeOf, sharesOf, weightsOf } from './grading';

it('grades as the server does', () => {
  // Worked by hand, as in the tests of the core: ((100^0.4 + 0) / 2)^(1 / 0.4).
  expect(gradeOf({ a: 100, b: 0 }, { weights: { a: 1, b: 1 }, exponent: 0.4 })).toBeCloseTo(100 / 2 ** 2.5);
  expect(gradeOf({ a: 60, b: 60 }, { weights: { a: 3, b: 1 }, exponent: 0.4 })).toBeCloseTo(60);
  expect(gradeOf({ a: 80, b: null }, { weights: { a: 1, b: 9 }, exponent: 0.4 })).toBeCloseTo(80);
  expect(gradeOf({ a: 80, b: 20 }, { weights: { a: 1, b: 0 }, exponent: 0.4 })).toBeCloseTo(80);
});

it('shares the grade out by weight, alike when all weigh nothing', () => {
  expect(sharesOf({ a: 3, b: 1 })).toEqual({ a: 0.75, b: 0.25 });
  expect(sharesOf({ a: 0, b: 0 })).toEqual({ a: 0.5, b: 0.5 });
});

describe('the weights that count', () => {
  const weighing: Weighing = { exponent: 0.4, presets: { mix: { length: 5 }, brand: { length: 6 }, descriptive: { length: 3 } }, examples: {} };
  const brief = sampleBrief({ name: 'Pressroom' });

  it("are the person's own, or those of the purpose", () => {
    expect(weightsOf(brief, weighing)).toEqual({ length: 5 });
    expect(weightsOf({ ...brief, purpose: 'brand' }, weighing)).toEqual({ length: 6 });
    expect(weightsOf({ ...brief, weights: { fit: 10 } }, weighing)).toEqual({ fit: 10 });
  });

  it('are none while they are on their way', () => {
    expect(weightsOf(brief, undefined)).toEqual({});
  });
});

it('never grades above the plain average', () => {
  const scores = { length: 90, spelling: 15, fit: 60, sound: 94, memory: 40, clarity: 100 };
  const weights = { length: 3, spelling: 6, fit: 10, sound: 3, memory: 3, clarity: 6 };
  const shares = sharesOf(weights);
  const average = Object.entries(scores).reduce((sum, [name, score]) => sum + (shares[name] ?? 0) * score, 0);
  expect(gradeOf(scores, { weights, exponent: 0.4 })).toBeLessThan(average);
  expect(gradeOf(scores, { weights, exponent: 1 })).toBeCloseTo(average);
});
