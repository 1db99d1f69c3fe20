import { expect, it } from 'vitest';

import { gradeOf, sharesOf } from './grading';

it('grades as the server does', () => {
  // Worked by hand, as in the tests of the core: ((100^0.4 + 0) / 2)^(1 / 0.4).
  expect(gradeOf({ a: 100, b: 0 }, { a: 1, b: 1 }, 0.4)).toBeCloseTo(100 / 2 ** 2.5);
  expect(gradeOf({ a: 60, b: 60 }, { a: 3, b: 1 }, 0.4)).toBeCloseTo(60);
  expect(gradeOf({ a: 80, b: null }, { a: 1, b: 9 }, 0.4)).toBeCloseTo(80);
  expect(gradeOf({ a: 80, b: 20 }, { a: 1, b: 0 }, 0.4)).toBeCloseTo(80);
});

it('shares the grade out by weight, alike when all weigh nothing', () => {
  expect(sharesOf({ a: 3, b: 1 })).toEqual({ a: 0.75, b: 0.25 });
  expect(sharesOf({ a: 0, b: 0 })).toEqual({ a: 0.5, b: 0.5 });
});
