import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import type { OwnedName, OwnedPage as Page, Renewal } from '../../shared/api';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { OwnedPage } from './OwnedPage';
import { readQuestion, writeQuestion } from './useOwned';

const owned = (fields: Partial<OwnedName> = {}): OwnedName => ({
  id: 1,
  full_name: 'inkpost.com',
  shown: 'inkpost.com',
  project: null,
  project_name: '',
  origin: 'imported',
  seller: 'Lantern Names',
  registered_at: '2020-01-02T00:00:00Z',
  expires_at: '2027-01-02T00:00:00Z',
  phase: 'held',
  phase_until: null,
  renewal: 'ask',
  ceiling: null,
  ceiling_currency: '',
  locked: true,
  privacy: null,
  signed: false,
  servers: ['ns1.barn.example', 'ns2.barn.example'],
  tags: ['press'],
  yearly: '25.23',
  yearly_currency: 'EUR',
  asked_at: null,
  trouble: '',
  differs: [],
  said: {},
  ...fields,
});
const page = (rows: OwnedName[] = [owned()], fields: Partial<Page> = {}): Page => ({
  rows,
  total: rows.length,
  every: rows.length,
  size: 100,
  ...fields,
});
const renewal: Renewal = {
  names: [
    {
      id: 1,
      full_name: 'inkpost.com',
      shown: 'inkpost.com',
      action: 'renew',
      until: '2027-01-02T00:00:00Z',
      amount: '25.23',
      currency: 'EUR',
      why_not: '',
      elsewhere: 'Hazel Lane',
      here: '126.15',
      there: '67.68',
    },
  ],
  totals: [{ seller: 'Lantern Names', amount: '25.23', currency: 'EUR' }],
  years: 1,
  sign: 'agreed',
  currency: 'EUR',
};

function setUp(shown: Page, act: (method: string, path: string) => Answer | undefined = () => undefined) {
  const requests = serve((method, path) => {
    const answer = act(method, path);
    if (answer) return answer;
    if (path === '/api/owned/months') return { body: { currency: 'EUR', months: [] } };
    if (path === '/api/projects') return { body: [{ id: 3, name: 'Pressroom' }] };
    if (path === '/api/owned/facets')
      return { body: { extension: [{ value: 'com', count: 1 }], seller_name: [], renewal: [], tag: [], project: [] } };
    if (path === '/api/owned/renewing') return { body: renewal };
    if (path === '/api/owned/off') return { body: { batch: 'b1' } };
    if (path.startsWith('/api/owned') && method !== 'GET')
      return { body: { count: 1, failed: [], new: 2, changed: 1, problems: [], wrong: 0, orders: [7] } };
    return { body: path.startsWith('/api/owned') ? shown : {} };
  });
  renderIn(<OwnedPage />, '/owned');
  return requests;
}
const sent = (requests: ReturnType<typeof serve>, path: string) =>
  requests.filter((r) => r.path === path && r.method !== 'GET').map((r) => r.body);

it('keeps what is asked for in the address, without what is usual', () => {
  const question = readQuestion(new URLSearchParams('text=ink&when=30&sort=-cost&page=2&differs=true&renewed=never'));
  expect(question).toMatchObject({ text: 'ink', when: '30', sort: '-cost', page: 2, differs: true, renewed: '' });
  expect(writeQuestion(question).toString()).toBe('text=ink&when=30&differs=true&sort=-cost&page=2');
  expect(writeQuestion(readQuestion(new URLSearchParams('sort=random&page=-3'))).toString()).toBe('');
});

it('narrows and sorts by asking the server', async () => {
  const requests = setUp(page());
  await userEvent.type(await screen.findByLabelText('Find'), 'ink');
  await waitFor(() => expect(requests.some((r) => r.path.includes('text=ink'))).toBe(true));
  await userEvent.click(screen.getByRole('button', { name: 'A year' }));
  await waitFor(() => expect(requests.some((r) => r.path.includes('sort=cost'))).toBe(true));
});

it('shows what a renewal costs before it is ordered, and where it would be less', async () => {
  const requests = setUp(page());
  await userEvent.click(await screen.findByLabelText('Choose inkpost.com'));
  await userEvent.click(screen.getByRole('button', { name: 'Renew …' }));
  const dialog = within(await screen.findByRole('dialog'));
  expect(await dialog.findByText('Over five years €126 here, €67.68 after moving to Hazel Lane')).toBeVisible();
  await userEvent.click(dialog.getByRole('button', { name: 'Order the renewal' }));
  await waitFor(() => expect(sent(requests, '/api/owned/renew')).toEqual([{ ids: [1], years: 1, sign: 'agreed' }]));
});

it('renews by itself only up to what is typed, and takes names off with a way back', async () => {
  const requests = setUp(page(), (method) =>
    method === 'PATCH'
      ? {
          status: 400,
          body: {
            code: 'refused',
            message: 'No.',
            problems: [{ path: 'ceiling', code: 'blank', message: 'Write something here.' }],
          },
        }
      : undefined,
  );
  await userEvent.click(await screen.findByLabelText('Choose all of the page'));
  const bar = within(screen.getByRole('toolbar'));
  await userEvent.click(bar.getByRole('combobox', { name: 'Renewal' }));
  await userEvent.click(screen.getByRole('option', { name: 'by itself …' }));
  await userEvent.click(bar.getByRole('button', { name: 'Agree' }));
  expect(await bar.findByText('Write something here.')).toBeVisible();
  await userEvent.click(bar.getByRole('button', { name: 'Off the list' }));
  await userEvent.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(sent(requests, '/api/owned/back')).toEqual([{ batch: 'b1' }]));
});

it('tells where the registry says otherwise, and takes it over', async () => {
  const requests = setUp(
    page([
      owned({
        differs: ['expires', 'locked'],
        said: { by: 'registry', expires: '2028-01-02T00:00:00Z', locked: false },
      }),
    ]),
  );
  await userEvent.click(await screen.findByRole('button', { name: 'inkpost.com' }));
  expect(await screen.findByText(/Runs out Jan 2, 2027 by the list, Jan 2, 2028 by the registry/)).toBeVisible();
  await userEvent.click(screen.getByRole('button', { name: 'Take it over' }));
  await waitFor(() => expect(sent(requests, '/api/owned/take-over')).toEqual([{ ids: [1] }]));
});

it('lets a name go only when it is typed, with the consequences told', async () => {
  const requests = setUp(page([owned({ phase: 'redemption', phase_until: '2027-02-01T00:00:00Z' })]));
  await userEvent.click(await screen.findByRole('button', { name: 'inkpost.com' }));
  expect(await screen.findByText(/It can be had back, for a higher price, until Feb 1, 2027/)).toBeVisible();
  await userEvent.click(screen.getByRole('button', { name: 'Let it go …' }));
  expect(screen.getByText(/Sites and mail under it stop/)).toBeVisible();
  expect(screen.getByRole('button', { name: 'Let it go' })).toBeDisabled();
  await userEvent.type(screen.getByLabelText('Type inkpost.com'), 'inkpost.com');
  await userEvent.click(screen.getByRole('button', { name: 'Let it go' }));
  await waitFor(() => expect(sent(requests, '/api/owned/1/let-go')).toEqual([{ typed: 'inkpost.com' }]));
});

it('takes a table, and tells line by line what was wrong', async () => {
  const requests = setUp(page([], { every: 0 }), (_method, path) =>
    path === '/api/owned/table'
      ? { body: { new: 1, changed: 0, wrong: 1, problems: [{ where: 'line 3, full name', message: 'No.' }] } }
      : undefined,
  );
  await userEvent.click(await screen.findByRole('button', { name: 'Add names' }));
  const file = new File(['full name\ninkpost.com\n-\n'], 'mine.csv', { type: 'text/csv' });
  await userEvent.upload(screen.getByLabelText('A table of names'), file);
  expect(await screen.findByText('line 3, full name: No.')).toBeVisible();
  expect(sent(requests, '/api/owned/table')).toEqual([{ text: 'full name\ninkpost.com\n-\n' }]);
});

const move = {
  to: 'hazel',
  sellers: [
    { code: 'hazel', name: 'Hazel Lane' },
    { code: 'weir', name: 'Weir & Daughter' },
  ],
  traps: [{ code: 'servers', bars: false, message: 'It uses the name servers of its seller.' }],
  at_home: false,
  amount: '13.53',
  currency: 'EUR',
  why_not: 'Its code is missing.',
  sign: 'agreed',
};

it('moves a name by its code, with what it costs and what to know of it told before', async () => {
  const requests = setUp(page(), (method, path) => {
    if (path !== '/api/owned/1/moving' || method !== 'POST') return undefined;
    const coded = sent(requests, path).some((body) => (body as { code: string }).code === 'secret');
    return { body: { ...move, why_not: coded ? '' : move.why_not } };
  });
  await userEvent.click(await screen.findByRole('button', { name: 'inkpost.com' }));
  await userEvent.click(screen.getByRole('button', { name: 'Move it to another seller …' }));
  const dialog = within(await screen.findByRole('dialog'));
  expect(await dialog.findByText('It uses the name servers of its seller.')).toBeVisible();
  expect(dialog.getByText('Its code is missing.')).toBeVisible();
  expect(dialog.getByText('€13.53 with tax; a year more comes with it')).toBeVisible();
  expect(dialog.getByRole('button', { name: 'Order the move' })).toBeDisabled();
  await userEvent.type(dialog.getByLabelText('Its code'), 'secret');
  await waitFor(() => expect(dialog.getByRole('button', { name: 'Order the move' })).toBeEnabled());
  await userEvent.click(dialog.getByRole('button', { name: 'Order the move' }));
  await waitFor(() =>
    expect(sent(requests, '/api/owned/1/move')).toEqual([{ to: 'hazel', code: 'secret', sign: 'agreed' }]),
  );
});

it('says who asks for a name, lets it stay or go, and shows its code only when it is asked for', async () => {
  const said = { by: 'seller', statuses: ['pendingTransfer'] };
  const traps = [{ code: 'open_first', bars: true, message: 'It is locked against moving. Open it first.' }];
  const requests = setUp(page([owned({ said })]), (_method, path) =>
    path === '/api/owned/1/code' ? { body: { code: 'word-1', traps } } : undefined,
  );
  await userEvent.click(await screen.findByRole('button', { name: 'inkpost.com' }));
  await userEvent.click(screen.getByRole('button', { name: 'Keep it here' }));
  await waitFor(() => expect(sent(requests, '/api/owned/1/leaving')).toEqual([{ allow: false }]));
  expect(screen.queryByText('word-1')).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: 'Its code for moving away' }));
  expect(await screen.findByText('word-1')).toBeVisible();
  expect(screen.getByText('It is locked against moving. Open it first.')).toBeVisible();
  await userEvent.click(screen.getByRole('button', { name: 'Hide it' }));
  await waitFor(() => expect(screen.queryByText('word-1')).toBeNull());
});

it('finds names at our sellers, and says where not every seller could be asked', async () => {
  const requests = setUp(page(), (_method, path) =>
    path === '/api/owned/find' ? { body: { count: 1, unsure: 2 } } : undefined,
  );
  await userEvent.click(await screen.findByLabelText('Choose inkpost.com'));
  await userEvent.click(screen.getByRole('button', { name: 'Find at our sellers' }));
  expect(await screen.findByText('One was found at our sellers. Of 2 not every seller could be asked.')).toBeVisible();
  expect(sent(requests, '/api/owned/find')).toEqual([{ ids: [1] }]);
});
