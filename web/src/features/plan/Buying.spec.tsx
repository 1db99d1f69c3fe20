import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import { sampleBrief } from '../../shared/testing/samples';
import { allBuyingInWords, Buying, buyingInWords } from './Buying';
import { readWish, writeWish } from './planQuestion';

const auction = {
  kind: 'auction' as const,
  market: 'Hillfair',
  low: '120.00',
  high: null,
  ceiling: null,
  over: false,
  bids: 4,
  ends: new Date(Date.now() + 7_200_000).toISOString(),
  told: '2026-11-29T10:00:00Z',
};

it.each([
  [auction, '€120 is bid so far; how high it goes is not known.'],
  [{ ...auction, high: '300.00', ceiling: '300.00' }, 'Between €120, which is bid, and €300, your most.'],
  [{ ...auction, ceiling: '90.00', over: true }, '€120 is bid already: more than the €90 you would bid at most.'],
  [{ ...auction, low: null }, 'It is in an auction; what is bid is not told.'],
  [{ ...auction, kind: 'fixed' as const, high: '120.00' }, 'Its holder sells it for €120.'],
  [{ ...auction, kind: 'asking' as const, low: null }, 'Its holder hears offers: what it takes is not known.'],
])('says what a name takes', (one, said) => {
  expect(buyingInWords(one, 'EUR')).toBe(said);
});

it('asks what one would bid at most', async () => {
  const onCeiling = vi.fn();
  render(<Buying fullName="inkpost.com" buying={auction} currency="EUR" onCeiling={onCeiling} />);
  expect(screen.getByText(/auction at Hillfair, ends in 2 hr\./)).toBeVisible();
  await userEvent.type(screen.getByRole('textbox', { name: 'Most bid for inkpost.com' }), '30x0{Enter}');
  expect(onCeiling).toHaveBeenCalledWith(300);
});

it.each([
  [null, ''],
  [{ names: 1, low: '120.00', high: '120.00', unknown: 0 }, 'Buying the one somebody holds takes €120 beside.'],
  [{ names: 2, low: '120.00', high: '400.00', unknown: 0 }, 'Buying the 2 somebody holds takes €120 to €400 beside.'],
  [
    { names: 2, low: '120.00', high: null, unknown: 1 },
    'Buying the 2 somebody holds takes €120 at the least; how much at the most is not known. Of one of them no price is told.',
  ],
])('says what all of them take', (buying, said) => {
  expect(allBuyingInWords({ buying, currency: 'EUR' })).toBe(said);
});

it('keeps what one bids at most in the address', () => {
  const brief = sampleBrief();
  const params = writeWish(new URLSearchParams(), { ceilings: { 'inkpost.com': 300, 'reed.net': 0 } });
  expect(params.get('bids')).toBe('inkpost.com:300');
  expect(readWish(params, brief, 'EUR').ceilings).toEqual({ 'inkpost.com': 300 });
  expect(readWish(new URLSearchParams('bids=x:y,a.com:-3,b.com:7'), brief, '').ceilings).toEqual({ 'b.com': 7 });
});
