import { screen, within } from '@testing-library/react';
import { expect, it } from 'vitest';

import type { OwnedMonths } from '../../shared/api';
import { renderIn, serve } from '../../shared/testing/render';
import { MonthsChart } from './MonthsChart';

const month = (n: number, amount: string, names: number, unknown = 0) => ({
  month: new Date(Date.UTC(2026, 10 + n, 1)).toISOString().slice(0, 10),
  amount,
  names,
  unknown,
});
const months = (fill: (n: number) => ReturnType<typeof month>): OwnedMonths => ({
  currency: 'EUR',
  months: Array.from({ length: 24 }, (_, n) => fill(n)),
});

it('sums the next twelve months, and says of how many names the price is not known', async () => {
  serve(() => ({
    body: months((n) => (n === 0 ? month(n, '25.23', 2, 1) : month(n, n === 13 ? '99.00' : '0.00', 0))),
  }));
  renderIn(<MonthsChart />);
  const part = within(await screen.findByRole('region', { name: 'What renewing costs by month' }));
  expect(part.getByText(/€25.23 in the next twelve months/)).toHaveTextContent(
    'Of one name it is not known what that costs.',
  );
  const table = within(part.getByRole('table', { hidden: true }));
  const rows = table.getAllByRole('row', { hidden: true }).map((row) => row.textContent);
  expect(rows[1]).toBe('Nov 262€25.23');
  expect(rows).toHaveLength(25);
  expect(rows[14]).toBe('Dec 270€99');
});

it('is not there where nothing is to be renewed', async () => {
  const requests = serve(() => ({ body: months((n) => month(n, '0.00', 0)) }));
  const { container } = renderIn(<MonthsChart />);
  await screen.findByText((_, node) => node === container || requests.length > 0).catch(() => null);
  expect(screen.queryByRole('region')).toBeNull();
});
