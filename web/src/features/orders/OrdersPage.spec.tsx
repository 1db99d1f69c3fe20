import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { expect, it, vi } from 'vitest';

import type { PlacedOrder } from '../../shared/api';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { name, order } from '../../shared/testing/orders';
import { OrderPage, OrdersPage } from './OrdersPage';
import { ReceiptPage } from './ReceiptPage';

function setUp(shown: PlacedOrder, act: (method: string, path: string) => Answer | undefined = () => undefined) {
  const requests = serve(
    (method, path) => act(method, path) ?? { body: path === '/api/orders' ? { orders: [shown] } : shown },
  );
  renderIn(
    <Routes>
      <Route path="orders/:order" element={<OrderPage />} />
    </Routes>,
    '/orders/7',
  );
  return requests;
}

it('sends somebody to the payment page, and says what became of the last try', async () => {
  const assign = vi.fn();
  vi.stubGlobal('location', { assign, href: window.location.href, origin: window.location.origin });
  setUp(order({ payment: 'declined', by_credit: false }), (method, path) =>
    method === 'POST' && path.endsWith('/pay') ? { body: { page: 'http://pay.example/1' } } : undefined,
  );
  expect(await screen.findByText('The last payment was declined. Nothing was paid.')).toBeVisible();
  await userEvent.click(screen.getByRole('button', { name: 'Pay €14.76' }));
  await waitFor(() => expect(assign).toHaveBeenCalledWith('http://pay.example/1'));
  expect(screen.queryByRole('button', { name: /From the credit/ })).toBeNull();
  vi.unstubAllGlobals();
});

it('tells what became of each name, and what was given back', async () => {
  setUp(
    order({
      stage: 'done',
      paid: '29.52',
      refunded: '14.76',
      receipts: ['receipt', 'credit_note'],
      names: [
        name({ state: 'registered', state_words: 'registered', expires_at: '2027-11-29T00:00:00Z' }),
        name({
          id: 2,
          shown: 'ink.com',
          state: 'refunded',
          state_words: 'not registered, money given back',
          told: 'Somebody registered it meanwhile.',
        }),
      ],
    }),
  );
  const [first, second] = await screen.findAllByRole('row');
  expect(first).toHaveTextContent('registered · until Nov 29, 2027');
  expect(second).toHaveTextContent('Somebody registered it meanwhile.');
  expect(screen.getByText('1 of 2 names done')).toBeVisible();
  expect(screen.getByText('paid €29.52, given back €14.76')).toBeVisible();
  expect(screen.getByRole('link', { name: 'Credit note' })).toHaveAttribute('href', '/orders/7/receipts/credit_note');
});

it('calls off what is not sent, and carries on what a fault of ours stopped', async () => {
  const requests = setUp(
    order({ stage: 'paid', stopped: true, names: [name({ state: 'paid', state_words: 'paid, not sent yet' })] }),
  );
  await userEvent.click(await screen.findByRole('button', { name: 'Call off what is not sent yet' }));
  await userEvent.click(screen.getByRole('button', { name: 'Carry on' }));
  await waitFor(() =>
    expect(requests.filter((r) => r.method === 'POST').map((r) => r.path)).toEqual([
      '/api/orders/7/call-off',
      '/api/orders/7/carry-on',
    ]),
  );
});

it('says when nothing was ordered yet', async () => {
  serve(() => ({ body: { orders: [] } }));
  renderIn(<OrdersPage />, '/orders');
  expect(await screen.findByText('Nothing was ordered yet')).toBeVisible();
});

it('writes a receipt out with its tax', async () => {
  serve(() => ({
    body: {
      buyer: {
        kind: 'person',
        name: 'Edda Birchwell',
        organisation: '',
        street: '4 Quay Lane',
        street2: '',
        city: 'Port Ferris',
        region: '',
        postcode: '',
        country: 'IE',
        phone: '',
        email: '',
        identifiers: {},
      },
      document: {
        kind: 'receipt',
        number: 'R2026-000001',
        order: '2026-000007',
        written_at: '2026-11-29T10:00:00Z',
        paid_at: '2026-11-29T10:00:00Z',
        paid_by: 'page',
        seller: 'Lantern Names',
        seller_country: 'IE',
        currency: 'EUR',
        net: '12.00',
        total: '14.76',
        tax: { percent: '23', country: 'IE', rule: 'charged', amount: '2.76' },
        lines: [
          {
            full_name: 'inkpost.com',
            as_typed: 'inkpost.com',
            what: 'register',
            years: 2,
            net: '12.00',
            tax: '2.76',
            amount: '14.76',
          },
        ],
      },
    },
  }));
  renderIn(
    <Routes>
      <Route path="orders/:order/receipts/:kind" element={<ReceiptPage />} />
    </Routes>,
    '/orders/7/receipts/receipt',
  );
  expect(await screen.findByRole('heading', { name: 'Receipt R2026-000001' })).toBeVisible();
  expect(screen.getByText('4 Quay Lane')).toBeVisible();
  const rows = within(screen.getByRole('table'))
    .getAllByRole('row')
    .map((row) => row.textContent);
  expect(rows).toContain('inkpost.comregistration, 2 years€12');
  expect(rows).toContain('tax, 23 %€2.76');
  expect(rows).toContain('Paid€14.76');
});
