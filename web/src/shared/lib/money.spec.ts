import { expect, it } from 'vitest';

import { cheapestOf, currencyOf, thousandths } from './money';

const cell = (first_year: string | null, currency = 'EUR', status = 'open') => ({
  first_year,
  currency,
  status,
});

it('takes amounts as the digits they are', () => {
  expect(thousandths('12.1')).toBe(12100);
  expect(thousandths('0.3')).toBe(thousandths('0.1') + thousandths('0.2'));
});

it('never sets prices of unlike currencies against each other', () => {
  const mixed = [cell('9', 'SEK'), cell('20'), cell('12.50'), cell('1', 'EUR', 'taken'), cell(null)];
  expect(currencyOf(mixed)).toBe('EUR');
  expect(cheapestOf(mixed)).toMatchObject({ first_year: '12.50', currency: 'EUR' });
  expect(cheapestOf(mixed, 'SEK')).toMatchObject({ first_year: '9' });
  expect(cheapestOf([cell('9', 'SEK'), cell('20')])).toMatchObject({ currency: 'EUR' });
  expect([currencyOf([cell(null)]), cheapestOf([cell(null)])]).toEqual(['', undefined]);
});
