import { expect, it } from 'vitest';

import { changeInWords } from '../../shared/lib/priceChange';
import { conditionsInWords, oddsInWords, takesInWords } from './couponWords';
import { lineInWords, sourceInWords } from './inWords';
import { readWish, usedOf, writeWish } from './planQuestion';
import { COUPON } from '../../shared/testing/plan';

it.each([
  ['registration', 'list', { price: '9', per: 'year', years: '2' }, 'registration: €9 a year, 2 years'],
  ['renewal', 'list', { price: '9', per: 'term', years: '1' }, 'renewal: €9 for 1 year'],
  ['registration', 'premium', { later: '90' }, 'registration: a premium name, €90 each later year'],
  [
    'registration',
    'premium',
    { later: '90', listed: '9.5' },
    'registration: a premium name, €90 each later year; usual ones €9.50',
  ],
  ['registration', 'quoted', { listed: '9' }, 'registration: as the seller asks for this name; its list says €9'],
  ['registration', 'quoted', {}, 'registration: as the seller asks for this name'],
  ['promotion', 'first_year', { price: '1' }, 'promotion: the first year for €1'],
  ['promotion', 'first_names', { price: '1' }, 'promotion: the first names of an order for €1 each'],
  ['promotion', 'new_customers', { price: '1' }, 'promotion: for new customers, €1'],
  ['coupon', 'coupon', { code: 'INK' }, 'coupon INK'],
  ['tax', 'charged', { percent: '23.00', country: 'IE' }, 'tax: 23 % as in Ireland'],
  ['tax', 'reverse', {}, 'tax: accounted for by the buyer'],
  ['tax', 'abroad', {}, 'tax: none is asked for outside the Union'],
  ['tax_within', 'within', { held: '1.87' }, 'tax: €1.87 of it is in the price'],
  ['tax', 'unknown', {}, 'tax: which one there is, is not known; the price is net'],
  ['a kind of tomorrow', 'a reason of tomorrow', {}, 'a kind of tomorrow'],
])('says what a line of %s is for by the reason %s', (kind, reason, args, said) => {
  expect(lineInWords({ kind, full_name: '', amount: '1', reason, args }, 'EUR')).toBe(said);
});

it('tells where the price of a line is from', () => {
  const line = { kind: 'registration', full_name: '', amount: '1', args: { dated: '2026-11-29' } };
  expect(sourceInWords({ ...line, reason: 'list' })).toBe('list of Nov 29, 2026');
  expect(sourceInWords({ ...line, reason: 'premium' })).toBe('asked for this name');
  expect(sourceInWords({ ...line, reason: 'coupon' })).toBe('');
});

it.each([
  ['came', 'org', 'register', 1, 1, null, '8', '.org, registration, 1 year: now offered for €8'],
  ['went', 'net', 'move', 1, 10, '9', null, '.net, moving in, 1 to 10 years: no longer offered'],
  ['fell', '*', 'privacy', 1, 10, '3', '2.50', 'privacy, 1 to 10 years: fell from €3 to €2.50'],
])('says that a price %s for .%s', (kind, extension, action, from, to, before, after, said) => {
  const change = { kind, extension, action, years_from: from, years_to: to, before, after } as Parameters<
    typeof changeInWords
  >[0];
  expect(changeInWords(change, 'EUR')).toBe(said);
});

it('goes by what the brief says of years and budget, unless the address says otherwise', () => {
  const brief = { owner: { country: 'IE', kind: '', work: 'any', budget: null, years: 3, budget_whole: 250 } };
  const wish = readWish(new URLSearchParams('less=a,b'), brief, '');
  // The brief says how long, and for how much in all.
  expect([wish.years, wish.budget, wish.less]).toEqual([3, 250, ['a', 'b']]);
  expect(writeWish(new URLSearchParams(), { budget: 0, ahead: 0 }).toString()).toBe('budget=0');
});

it('takes the budget of the brief, which is in euros, for no other currency', () => {
  const brief = { owner: { country: '', kind: '', work: 'any', budget: null, years: 5, budget_whole: 250 } };
  const wish = (search: string, liked = '') => readWish(new URLSearchParams(search), brief, liked);
  expect([wish('').budget, wish('currency=SEK').budget, wish('', 'USD').budget]).toEqual([250, 0, 0]);
  expect(wish('currency=SEK&budget=900').budget).toBe(900);
});

it('has the first name used where none of those chosen is planned', () => {
  const wish = { used: ['gone.com', 'b.com'] } as unknown as Parameters<typeof usedOf>[0];
  expect(usedOf(wish, ['a.com', 'b.com'])).toEqual(['b.com']);
  expect(usedOf(wish, ['a.com', 'c.com'])).toEqual(['a.com']);
  expect(usedOf(wish, [])).toEqual([]);
});

it.each([
  [{}, '10 % off'],
  [{ takes: 'amount' as const, value: '5' }, '€5 off the order'],
  [{ takes: 'price' as const, value: '1.5' }, 'the first year for €1.50'],
])('says what a coupon takes off: %o', (fields, said) => {
  expect(takesInWords({ ...COUPON, ...fields }, 'EUR')).toBe(said);
});

it('says each condition of a coupon, and that it has no end', () => {
  const plain = { extensions: [], least_names: 1, least_sum: '0', new_customers: false, on_promotions: true };
  expect(conditionsInWords({ ...COUPON, ...plain, ends: null }, 'EUR')).toEqual(['registering', 'without an end']);
  const long = { ...COUPON, ...plain, actions: ['renew', 'move'], years_from: 2, years_to: 5, starts: '2027-02-01' };
  expect(conditionsInWords(long, 'EUR')).toEqual([
    'renewing, moving in',
    'for 2 to 5 years',
    'from Feb 1, 2027',
    'until Jan 31, 2027',
  ]);
  expect(conditionsInWords({ ...long, years_from: 5, combines: true }, 'EUR')).toContain('for 5 years');
});

it('says how likely a coupon works only where somebody has said so', () => {
  expect(oddsInWords({ mean: 0.5, low: 0.05, high: 0.95, reports: 0 })).toBe('nobody has said yet');
  expect(oddsInWords({ mean: 0.667, low: 0.22, high: 0.97, reports: 1 })).toBe('67 % (22 to 97), 1 report');
});
