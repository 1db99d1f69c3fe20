import { render, screen } from '@testing-library/react';
import { expect, it } from 'vitest';

import { sampleHunted, sampleJudged } from '../../shared/testing/samples';
import { dropTold } from './huntColumns';
import { Going } from '../../shared/ui/Going';
import { OffersOfName } from './OffersOfName';
import { spanInWords } from './LengthPrices';
import { halfInWords } from './Scarcity';

const offer = sampleHunted(
  { label: 'inkpost' },
  { price: '800.00', risk: 'It sent unwanted mail.', used_for: 'bulk_mail' },
).offer;

it('says that nobody tells of a name', () => {
  render(<OffersOfName name={sampleJudged({ label: 'inkpost' })} />);
  expect(screen.getByText('No market’s list tells of this name.')).toBeVisible();
});

it('tells every offer with what it is warned of, and how it changed', () => {
  const change = { full_name: 'inkpost.com', market: 'Oldgate Names', at: '2026-11-28T10:00:00Z' };
  render(
    <OffersOfName
      name={sampleJudged({
        label: 'inkpost',
        offers: [offer, { ...offer, market: 'ebb', kind: 'dropping', price: null, state: 'pending', risk: '' }],
        offer_changes: [
          { ...change, what: 'price', before: '1000.000 EUR', after: '800.000 EUR' },
          { ...change, what: 'kind', before: 'asking', after: 'fixed' },
          { ...change, what: 'extended', before: '2026-12-01T10:00:00Z', after: '2026-12-01T10:05:00Z' },
          { ...change, what: 'drops', before: '2026-12-01T00:00:00Z', after: '2026-12-03T00:00:00Z' },
          { ...change, what: 'gone', before: '1000.000 EUR', after: '' },
        ],
      })}
    />,
  );
  expect(screen.getByText(/^€800, first registered/)).toBeVisible();
  expect(screen.getByRole('alert')).toHaveTextContent('unwanted mail');
  expect(screen.getByText(/released soon/)).toBeVisible();
  const changes = screen.getAllByRole('listitem', { hidden: true }).map((li) => li.textContent);
  expect(changes[0]).toContain('the price went from €1,000 to €800');
  expect(changes[1]).toContain('from offers heard to for sale');
  expect(changes[4]).toContain('no longer offered; the last price was €1,000');
});

it.each([
  [null, null, ''],
  ['2026-12-03T00:00:00Z', '2026-12-04T00:00:00Z', 'Dec 3, 2026'],
  ['2026-12-03T00:00:00Z', '2026-12-06T00:00:00Z', 'Dec 3, 2026 to Dec 5, 2026'],
])('says a drop of %s to %s as far as it is told', (from, to, told) => {
  expect(dropTold({ ...offer, drops_from: from, drops_to: to })).toBe(told);
});

const like = {
  days: 30,
  share: 0.034,
  low: 0.02,
  high: 0.06,
  names: 1_214,
  extension: 'com',
  letters_from: 8,
  words: null,
  grade_from: null,
  grade_to: null,
  letters_to: 10,
};

it('says in one sentence how fast names like it go, with the number behind it', () => {
  render(<Going going={[{ ...like, days: 7, share: 0 }, like]} />);
  expect(
    screen.getByText(
      'Of 1,214 names like it that were open (8 to 10 letters, under .com), 3 in 100 were taken within 30 days (range 2 to 6).',
    ),
  ).toBeVisible();
});

it('says which names were taken to be like it', () => {
  render(<Going going={[{ ...like, letters_to: 8, extension: '', words: 2, grade_from: 60, grade_to: 75 }]} />);
  expect(screen.getByText(/that were open \(8 letters, 2 words, a grade of 60 to 74\)/)).toBeVisible();
});

it('says nothing where too few were followed', () => {
  const { container } = render(<Going going={[]} />);
  expect(container).toBeEmptyDOMElement();
});

const left = {
  extension: 'press',
  shape: '????',
  whole: 456_976,
  days: ['2026-11-14', '2026-11-21', '2026-11-28'],
  free: [400_000, 390_000, 380_000],
  projected: true,
  half_gone: '2027-03-10',
  earliest: '2027-02-01',
  latest: null,
};

it.each([
  [
    left,
    '.press: 83 in 100 are left; if it goes on so, half are gone about Mar 10, 2027 (an estimate: Feb 1, 2027 to never).',
  ],
  [{ ...left, half_gone: null }, '.press: 83 in 100 are left; as it goes, half will not be gone within fifty years.'],
  [{ ...left, projected: false }, '.press: 83 in 100 are left; too few days are known for an estimate.'],
  [{ ...left, free: [9] }, '.press: 0 in 100 are left; half are gone already.'],
])('says when half will be gone, as an estimate', (one, said) => {
  expect(halfInWords(one)).toBe(said);
});

it('says what names of some letters ask', () => {
  const of = (letters: number, middle: number) => ({
    extension: 'com',
    letters,
    names: 600,
    low: middle / 2,
    middle,
    high: middle * 2,
  });
  const told = { currency: 'EUR', prices: [of(4, 2000), of(9, 300.5), { ...of(5, 10), extension: 'ie' }] };
  expect(spanInWords('com', told)).toBe(
    '.com: of 1,200 for sale, those of 4 letters ask €2,000 in the middle, half of them €1,000 to €4,000; those of 9 letters €301.',
  );
  expect(spanInWords('ie', told)).toBe(
    '.ie: of 600 for sale, those of 5 letters ask €10 in the middle, half of them €5 to €20.',
  );
  expect(spanInWords('net', told)).toBe('');
});
