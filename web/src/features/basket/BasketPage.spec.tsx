import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import type { Basket, BasketItem } from '../../shared/api';
import { BasketButton } from '../../shared/basket/BasketButton';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { BasketLink } from './BasketLink';
import { BasketPage } from './BasketPage';
import { onPaper } from './BasketRow';

const now = new Date().toISOString();
const reviewed: BasketItem['reviewed'] = {
  status: 'unasked',
  reason: '',
  at: null,
  changed: [],
  missing: [],
  asks: [],
  sign: '',
  may: false,
  here: false,
  not_here: '',
};
const item = (fields: Partial<BasketItem> = {}): BasketItem => ({
  id: 4,
  project: 3,
  project_name: 'Pressroom',
  full_name: 'ink-0.com',
  shown: 'ink-0.com',
  years: 1,
  renewal: 'ask',
  privacy: false,
  servers: [],
  coupon: '',
  contacts: null,
  seller: '',
  sold_by: 'Larkspur',
  amount: '9.84',
  whole: '49.20',
  premium: false,
  reviewed,
  spelled: [
    { letter: 'i', said: 'I' },
    { letter: '-', said: 'hyphen' },
  ],
  ...fields,
});
const basket = (fields: Partial<Basket> = {}): Basket => ({
  items: [item()],
  orders: [
    {
      seller: 'Larkspur',
      here: false,
      currency: 'EUR',
      total: '9.84',
      tax_known: true,
      lines: [
        { kind: 'registration', full_name: 'ink-0.com', amount: '8.00' },
        { kind: 'tax', full_name: '', amount: '1.84' },
      ],
    },
  ],
  currency: 'EUR',
  country: 'IE',
  years: 5,
  total: '9.84',
  whole: '49.20',
  nowhere: [],
  waiting: 0,
  ready: false,
  ready_here: false,
  most: 100,
  ...fields,
});

function setUp(shown: Basket, act: (method: string, path: string) => Answer | undefined = () => undefined) {
  const requests = serve((method, path) => {
    const answer = act(method, path);
    if (answer) return answer;
    if (path === '/api/sellers')
      return { body: { sellers: [{ code: 'larkspur', name: 'Larkspur', dated: '2026-11-01' }], follows: false } };
    if (path === '/api/projects') return { body: [{ id: 3, name: 'Pressroom' }] };
    if (path === '/api/contacts') return { body: { contacts: [], sets: [], everybody: false } };
    return { body: method === 'DELETE' ? { batch: 'b1' } : shown };
  });
  renderIn(<BasketPage />, '/basket');
  return requests;
}
const sent = (requests: ReturnType<typeof serve>, method: string, path: string) =>
  requests.filter((r) => r.method === method && r.path === path).map((r) => r.body);

it('shows what is bought where, what is paid now line by line, and over the years', async () => {
  const requests = setUp(basket());
  expect(await screen.findByText('€9.84 now')).toBeVisible();
  const paid = screen.getByRole('region', { name: 'What is paid to whom' });
  expect(paid).toHaveTextContent('ink-0.com registration€8');
  expect(paid).toHaveTextContent('tax€1.84');
  expect(screen.getByText('1 of 100 names. Nothing that costs more is chosen for you.')).toBeVisible();
  await userEvent.click(screen.getByRole('combobox', { name: 'All of it over' }));
  await userEvent.click(screen.getByRole('option', { name: '10 years' }));
  await waitFor(() => expect(requests.some((r) => r.path === '/api/basket?years=10')).toBe(true));
});

it('changes one, all of them, takes one out and brings it back', async () => {
  const requests = setUp(basket());
  const list = await screen.findByRole('list', { name: 'Names in the basket' });
  await userEvent.click(within(list).getByRole('combobox', { name: 'Years' }));
  await userEvent.click(screen.getByRole('option', { name: '3' }));
  await waitFor(() => expect(sent(requests, 'PATCH', '/api/basket/items/4')).toEqual([{ years: 3 }]));
  await userEvent.click(screen.getByRole('button', { name: 'For all of them at once' }));
  const [forAll] = screen.getAllByRole('textbox', { name: 'Name servers' });
  if (!forAll) throw new Error('nowhere to write them');
  await userEvent.type(forAll, 'ns1.x.net, ns2.x.net');
  await userEvent.tab();
  await waitFor(() =>
    expect(sent(requests, 'PATCH', '/api/basket')).toEqual([{ servers: ['ns1.x.net', 'ns2.x.net'] }]),
  );
  await userEvent.click(within(list).getByRole('button', { name: 'Take ink-0.com out' }));
  await userEvent.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(sent(requests, 'POST', '/api/basket/back')).toEqual([{ batch: 'b1' }]));
});

it('spells what was looked at, tells what changed, and has it agreed to', async () => {
  const changed = 'It costs more than planned: 11.07 EUR, not 9.84 EUR.';
  const found = { ...reviewed, status: 'open', at: now, changed: [changed], sign: 'abc' };
  const requests = setUp(basket({ items: [item({ reviewed: found })] }));
  expect(await screen.findByRole('img', { name: 'ink-0.com, spelled: I, hyphen' })).toBeVisible();
  const alerts = screen.getAllByRole('alert').map((one) => one.textContent);
  expect(alerts.join(' ')).toContain(changed);
  expect(alerts.join(' ')).toContain('Not everything can be bought as it stands');
  await userEvent.click(screen.getByRole('button', { name: 'Agree' }));
  await waitFor(() => expect(sent(requests, 'POST', '/api/basket/items/4/agree')).toEqual([{ sign: 'abc' }]));
  await userEvent.click(screen.getByRole('button', { name: 'Look at all of it once more' }));
  await waitFor(() => expect(sent(requests, 'POST', '/api/basket/review')).toHaveLength(1));
});

it('offers nothing to agree to where nothing can be bought, and waits for sellers', async () => {
  const found = { ...reviewed, status: 'taken', at: now, changed: ['It cannot be registered now: it is taken.'] };
  setUp(basket({ items: [item({ reviewed: found })], waiting: 2 }));
  expect(await screen.findByText('It cannot be registered now: it is taken.')).toBeVisible();
  expect(screen.queryByRole('button', { name: 'Agree' })).not.toBeInTheDocument();
  expect(screen.getByText('Sellers are asked what 2 names cost …')).toBeVisible();
  expect(screen.queryByText(/Not everything can be bought/)).not.toBeInTheDocument();
});

it('says who may not have a name, and what may be asked', async () => {
  const found = { ...reviewed, missing: ['For owners in Canada.'], asks: ['A pledge.'] };
  setUp(basket({ items: [item({ reviewed: found, amount: null, whole: null })] }));
  expect(await screen.findByText('This stands against it: For owners in Canada.')).toBeVisible();
  expect(screen.getByText('The registry may ask: A pledge.')).toBeVisible();
  expect(screen.getByText('nobody sells it so')).toBeVisible();
});

it('is ready when everything is as planned, and says what to do when it is empty', async () => {
  const found = { ...reviewed, status: 'open', at: now, may: true };
  setUp(basket({ items: [item({ reviewed: found })], ready: true }));
  expect(await screen.findByText(/Everything is as planned/)).toBeVisible();
});

it('is empty with a way on', async () => {
  setUp(basket({ items: [] }));
  expect(await screen.findByText('The basket is empty')).toBeVisible();
});

it('is read from paper', () => {
  expect(onPaper(item({ years: 2, coupon: 'INK', servers: ['ns1.x.net', 'ns2.x.net'] }))).toBe(
    '☐ 2 years   ☐ not renewed by itself   ☐ nothing added for the public record   ☐ name servers ns1.x.net, ns2.x.net   ☐ coupon INK',
  );
});

it('is filled by a button that says when names are there already, and counted in the bar', async () => {
  const requests = serve((method) =>
    method === 'POST' ? { status: 201, body: { count: 0, there: ['inkpost.com'] } } : { body: basket() },
  );
  renderIn(
    <>
      <BasketLink />
      <BasketButton projectId={3} names={['inkpost.com']} />
    </>,
  );
  expect(await screen.findByRole('link', { name: 'Basket 1' })).toHaveAttribute('href', '/basket');
  await userEvent.click(screen.getByRole('button', { name: 'Into the basket' }));
  expect(await screen.findByText('inkpost.com: in the basket already.')).toBeVisible();
  expect(sent(requests, 'POST', '/api/projects/3/basket')).toEqual([{ names: ['inkpost.com'], seller: '', years: 1 }]);
});

it('puts full names in as they are typed, and keeps what is refused', async () => {
  const requests = setUp(basket(), (method, path) =>
    method === 'POST' && path === '/api/projects/3/basket'
      ? {
          status: 400,
          body: { code: 'refused', message: 'No.', problems: [{ path: 'names.0', code: 'x', message: 'No name.' }] },
        }
      : undefined,
  );
  await userEvent.type(await screen.findByLabelText('Put in full names'), 'ink post.com{Enter}');
  expect(await screen.findByText('No name.')).toBeVisible();
  expect(screen.getByLabelText('Put in full names')).toHaveValue('ink post.com');
  expect(sent(requests, 'POST', '/api/projects/3/basket')).toEqual([
    { names: ['ink', 'post.com'], seller: '', years: 1 },
  ]);
});

it('orders here what is ready, and says why something is not', async () => {
  const found = { ...reviewed, at: now, status: 'open', may: true, here: true };
  const requests = setUp(
    basket({ items: [item({ reviewed: found })], ready: true, ready_here: true }),
    (method, path) => (method === 'POST' && path === '/api/orders' ? { body: { orders: [{ id: 7 }] } } : undefined),
  );
  await userEvent.click(await screen.findByRole('button', { name: 'Order here' }));
  await waitFor(() => expect(sent(requests, 'POST', '/api/orders')).toHaveLength(1));
});

it('names what keeps it from being ordered here', async () => {
  const found = { ...reviewed, at: now, status: 'open', may: true, not_here: 'Nobody is named whom it is for.' };
  setUp(basket({ items: [item({ reviewed: found })], ready: true }));
  expect(await screen.findByText(/Nobody is named whom it is for/)).toBeVisible();
  expect(screen.queryByRole('button', { name: 'Order here' })).toBeNull();
});
