import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import type { PlacedOrder } from '../../shared/api';
import { isMoving } from '../../shared/basket/useOrders';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { name, order } from '../../shared/testing/orders';
import { OrderCard, standing } from './OrderCard';

it('says in one sentence how far an order is', () => {
  expect(standing(order())).toBe('To be paid');
  expect(standing(order({ stage: 'called_off' }))).toBe('Called off; its names are back in the basket');
  expect(standing(order({ stage: 'called_off', names: [name({ action: 'renew' })] }))).toBe('Called off');
  const two = [name({ state: 'registered' }), name({ id: 2, state: 'pending' })];
  expect(standing(order({ stage: 'paid', names: two }))).toBe('Being worked on: 1 of 2 done');
  expect(standing(order({ stage: 'done', names: two }))).toBe('1 of 2 names done');
});

it('is asked again only while something may come of it', () => {
  expect(isMoving(order())).toBe(false);
  expect(isMoving(order({ payment: 'open' }))).toBe(true);
  expect(isMoving(order({ payment: 'declined' }))).toBe(false);
  expect(isMoving(order({ stage: 'paid' }))).toBe(true);
  expect(isMoving(order({ stage: 'paid', names: [name({ state: 'registered' })] }))).toBe(false);
  expect(isMoving(order({ stage: 'done' }))).toBe(false);
});

function setUp(shown: PlacedOrder, act: (method: string, path: string) => Answer | undefined = () => undefined) {
  const requests = serve((method, path) => act(method, path) ?? { body: shown });
  renderIn(<OrderCard order={shown} />, '/orders');
  return requests;
}

it('pays from credit where that may be used, and tells why where it does not do', async () => {
  const requests = setUp(order(), (method, path) =>
    method === 'POST' && path.endsWith('/pay-by-credit')
      ? {
          status: 409,
          body: { code: 'no_credit', message: 'The credit with Lantern Names is 3.00 EUR.', problems: [] },
        }
      : undefined,
  );
  await userEvent.click(screen.getByRole('button', { name: 'From the credit with Lantern Names' }));
  expect(await screen.findByText('The credit with Lantern Names is 3.00 EUR.')).toBeVisible();
  await userEvent.click(screen.getByRole('button', { name: 'Call it off' }));
  await waitFor(() => expect(requests.some((r) => r.path === '/api/orders/7/call-off')).toBe(true));
});

it('shows a name without its project plainly, with its term and what was chosen', () => {
  setUp(order({ stage: 'paid', names: [name({ told: 'The seller cannot be reached.' })] }));
  expect(screen.queryByRole('link', { name: 'inkpost.com' })).toBeNull();
  const [row] = screen.getAllByRole('row');
  expect(row).toHaveTextContent('2 years, out of the public record');
  expect(row).toHaveTextContent('paid, not sent yet');
  expect(row).toHaveTextContent('The seller cannot be reached.');
  expect(screen.getByRole('progressbar', { name: 'How far the order is' })).toHaveAttribute('aria-valuenow', '0');
});

it('leads to the order from a list of them, and to what was written out', () => {
  setUp(order({ stage: 'done', receipts: ['receipt'], paid: '14.76' }));
  expect(screen.getByRole('link', { name: '2026-000007' })).toHaveAttribute('href', '/orders/7');
  expect(screen.getByRole('link', { name: 'Receipt' })).toHaveAttribute('href', '/orders/7/receipts/receipt');
  expect(screen.getByText('paid €14.76, given back €0')).toBeVisible();
});
