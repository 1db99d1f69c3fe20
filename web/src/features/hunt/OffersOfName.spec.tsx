import { render, screen } from '@testing-library/react';
import { expect, it } from 'vitest';

import { sampleHunted, sampleJudged } from '../../shared/testing/samples';
import { dropTold } from './huntColumns';
import { OffersOfName } from './OffersOfName';

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
