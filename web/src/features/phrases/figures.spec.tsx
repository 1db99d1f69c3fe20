import { expect, it } from 'vitest';

import { cover } from '../../shared/testing/phrases';
import { monthNames, searchesOf, viewWord } from './figures';
import { coverInWords } from './GroupsPart';

it('writes figures as they were told', () => {
  expect(searchesOf({ low: 1000, high: 10000 })).toBe('1,000 – 10,000');
  expect(searchesOf({ low: 100, high: null })).toBe('100 and more');
  expect(searchesOf({ low: 0, high: 0 })).toBe('0');
  expect(searchesOf({ low: null, high: null })).toBe('unknown');
  expect(viewWord('Almanac|IE|')).toBe('Almanac · IE');
  expect(monthNames('2026-10')[0]).toBe('Nov 25');
  expect(monthNames('2026-10')[11]).toBe('Oct 26');
  expect(coverInWords({ ...cover, within: 0, near: 0 })).toBe('40 in 100 are its own.');
});
