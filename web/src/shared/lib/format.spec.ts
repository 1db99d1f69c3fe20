import { describe, expect, it } from 'vitest';

import { formatAge, formatCount, formatDay, formatMoney } from './format';

const NOW = Date.parse('2026-11-25T12:00:00Z');

describe('formatAge', () => {
  it.each([
    ['2026-11-25T11:59:30Z', 'just now'],
    ['2026-11-25T12:00:40Z', 'just now'],
    ['2026-11-25T11:56:00Z', '4 min. ago'],
    ['2026-11-25T09:00:00Z', '3 hr. ago'],
    ['2026-11-24T11:00:00Z', 'yesterday'],
    ['2023-11-25T12:00:00Z', '1,096 days ago'],
  ])('says of %s: %s', (iso, said) => {
    expect(formatAge(iso, NOW)).toBe(said);
  });
});

it('gives counts their separators', () => {
  expect(formatCount(1234567)).toBe('1,234,567');
});

it('shows a registry date as the day it is in UTC', () => {
  expect(formatDay('2027-03-01T23:59:00Z')).toBe('Mar 1, 2027');
});

it('writes money as it is, and what is no currency without breaking', () => {
  expect([formatMoney('12.50', 'EUR'), formatMoney('12', 'EUR'), formatMoney(null, 'EUR')]).toEqual([
    '€12.50',
    '€12',
    'not known',
  ]);
  expect(formatMoney('12.5', '12x')).toBe('12.5 12x');
});
