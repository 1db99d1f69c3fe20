import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import type { Happening, KeptWatch, PrivateFeed, Telling } from '../../shared/api';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { Bell } from './Bell';
import { WatchingPage } from './WatchingPage';

const now = new Date().toISOString();
const watch = (fields: Partial<KeptWatch> = {}): KeptWatch => ({
  id: 5,
  project: 3,
  project_name: 'Pressroom',
  kind: 'name',
  title: 'inkpost.com',
  reason: 'the favourite',
  ends_on: '2027-03-01',
  ended_at: null,
  created_at: now,
  names: 1,
  next_at: now,
  question: {},
  first: 'inkpost.com',
  ...fields,
});
const happening = (fields: Partial<Happening> = {}): Happening => ({
  id: 9,
  watch: 5,
  title: 'inkpost.com',
  project: 3,
  label: 'inkpost',
  extension: 'com',
  what: 'status',
  text: 'inkpost.com is open: it can be registered. It was taken.',
  at: now,
  read: false,
  question: {},
  ...fields,
});
const telling = (fields: Partial<Telling> = {}): Telling => ({
  can_mail: true,
  reader: '',
  zone: 'Europe/Dublin',
  address: '',
  how: 'off',
  hour: 8,
  confirmed: false,
  trouble: '',
  letters: [],
  ...fields,
});
const known = { status: 'dropping', drops_from: '2027-01-02T00:00:00Z', drops_to: '2027-01-02T20:00:00Z' };

function setUp({
  watches = [watch()],
  rows = [happening()],
  told = telling(),
  feeds = [],
  address = '/watching',
  act,
}: Partial<{
  watches: KeptWatch[];
  rows: Happening[];
  told: Telling;
  feeds: PrivateFeed[];
  address: string;
  act: (method: string, path: string) => Answer | undefined;
}> = {}) {
  const standing = { names: 12, most_names: 10_000, watches: 1, spent: 40, budget: 2_000 };
  const requests = serve((method, path) => {
    const answer = act?.(method, path);
    if (answer) return answer;
    if (path === '/api/watches') return { body: { watches, standing } };
    if (path.startsWith('/api/watches/5/names'))
      return {
        body: {
          rows: [{ label: 'inkpost', extension: 'com', known, asked_at: now, next_at: now, trouble: '' }],
          total: 120,
        },
      };
    if (path.startsWith('/api/happenings?')) return { body: { rows, unread: rows.filter((r) => !r.read).length } };
    if (path === '/api/happenings/read') return { body: { rows: [], unread: 0 } };
    if (path === '/api/telling' || path === '/api/telling/confirm') return { body: told };
    if (path.startsWith('/api/feeds')) return { body: { feeds } };
    if (path === '/api/projects') return { body: [{ id: 3, name: 'Pressroom' }] };
    if (path === '/api/sellers')
      return { body: { sellers: [{ code: 'larkspur', name: 'Larkspur', dated: '2026-11-01' }], follows: false } };
    if (path === '/api/extensions') return { body: { extensions: [{ extension: 'com' }, { extension: 'ie' }] } };
    return { body: watch() };
  });
  renderIn(<WatchingPage />, address);
  return requests;
}

const sent = (requests: ReturnType<typeof serve>, method: string, path: string) =>
  requests.filter((r) => r.method === method && r.path === path).map((r) => r.body);

it('tells what happened, marks it as read, and leads to where more is told', async () => {
  const search = happening({
    id: 8,
    label: '',
    extension: '',
    what: 'found',
    title: 'short ones',
    text: 'One name new in “short ones”: ink.ie.',
    read: true,
    question: { letters_max: '4' },
  });
  const requests = setUp({ rows: [happening(), search] });
  const list = await screen.findByRole('list', { name: 'What happened' });
  const [first, second] = within(list).getAllByRole('link');
  expect(first).toHaveTextContent('New: inkpost.com is open');
  expect(first).toHaveAttribute('href', '/projects/3/names/inkpost.com');
  expect(second).not.toHaveTextContent('New:');
  expect(second).toHaveAttribute('href', '/projects/3/hunt?letters_max=4');
  await waitFor(() => expect(sent(requests, 'POST', '/api/happenings/read')).toEqual([{ upto: 9 }]));
  expect(screen.getByText('12 of 10,000 full names; 40 of 2,000 look-ups of today used')).toBeVisible();
});

it('shows the names of a watch, changes why, ends it with a way back, and deletes what is over', async () => {
  const over = watch({ id: 6, title: 'short ones', kind: 'hunt', ended_at: now, names: 0, reason: '' });
  const requests = setUp({ watches: [watch(), over] });
  const list = await screen.findByRole('list', { name: 'What you watch' });
  await userEvent.click(within(list).getByRole('button', { name: '1 full name' }));
  const table = await screen.findByRole('table', { name: 'Names of inkpost.com' });
  expect(table).toHaveTextContent('dropping');
  expect(table).toHaveTextContent('may become open Jan 2, 2027');
  expect(table).toHaveTextContent('when it has its turn');
  await userEvent.click(screen.getByRole('button', { name: 'Those after' }));
  await waitFor(() => expect(requests.at(-1)?.path).toBe('/api/watches/5/names?offset=50&limit=50'));
  await userEvent.click(within(list).getByRole('button', { name: 'Change' }));
  const why = within(list).getByLabelText('Why');
  await userEvent.clear(why);
  await userEvent.type(why, 'ours');
  await userEvent.click(within(list).getByRole('button', { name: 'Keep it so' }));
  await waitFor(() => expect(sent(requests, 'PATCH', '/api/watches/5')).toEqual([{ reason: 'ours' }]));
  await userEvent.click(within(list).getByRole('button', { name: 'End it' }));
  await userEvent.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() =>
    expect(sent(requests, 'PATCH', '/api/watches/5').slice(1)).toEqual([{ ended: true }, { ended: false }]),
  );
  const gone = screen.getByRole('list', { name: 'What is over', hidden: true });
  await userEvent.click(within(gone).getByText('Delete'));
  expect(sent(requests, 'DELETE', '/api/watches/6')).toHaveLength(0);
  await userEvent.click(within(gone).getByText('Delete it with what it told'));
  await waitFor(() => expect(sent(requests, 'DELETE', '/api/watches/6')).toHaveLength(1));
});

it('watches what is typed, and says which of it makes no sense without losing it', async () => {
  const requests = setUp({
    watches: [],
    act: (method, path) =>
      method === 'POST' && path === '/api/projects/3/watches'
        ? {
            status: 400,
            body: {
              code: 'problems',
              message: 'No.',
              problems: [{ path: 'names.1', code: 'label_edge_hyphen', args: {}, message: 'No hyphen first.' }],
            },
          }
        : undefined,
  });
  await userEvent.click(await screen.findByRole('button', { name: 'Watch something' }));
  const form = screen.getByRole('form', { name: 'Watch something' });
  const names = within(form).getByLabelText('Full names');
  await userEvent.type(names, 'inkpost.com, -x.com');
  expect(form).toHaveTextContent('2 names');
  await userEvent.click(within(form).getByRole('button', { name: 'Watch it' }));
  expect(await within(form).findByText('-x.com: No hyphen first.')).toBeVisible();
  expect(names).toHaveValue('inkpost.com, -x.com');
  expect(sent(requests, 'POST', '/api/projects/3/watches')).toEqual([
    expect.objectContaining({ kind: 'name', names: ['inkpost.com', '-x.com'] }),
  ]);
});

it('watches what a seller asks', async () => {
  const requests = setUp();
  await userEvent.click(await screen.findByRole('button', { name: 'Watch something' }));
  const form = screen.getByRole('form', { name: 'Watch something' });
  const pick = async (field: string, option: string) => {
    await userEvent.click(within(form).getByRole('combobox', { name: field }));
    await userEvent.click(await screen.findByRole('option', { name: option }));
  };
  await pick('What is watched', 'seller’s price');
  expect(within(form).getByRole('button', { name: 'Watch it' })).toBeDisabled();
  await pick('Seller', 'Larkspur');
  await pick('Extension', '.ie');
  await userEvent.click(within(form).getByRole('button', { name: 'Watch it' }));
  await waitFor(() =>
    expect(sent(requests, 'POST', '/api/projects/3/watches')).toEqual([
      expect.objectContaining({ kind: 'price', seller: 'larkspur', extension: 'ie', action: 'renew' }),
    ]),
  );
});

it('takes an address, waits until it is confirmed, and says why letters are held back', async () => {
  const requests = setUp();
  const field = await screen.findByLabelText('Mail address');
  await userEvent.type(field, 'edda@quietpress.example{Enter}');
  await waitFor(() =>
    expect(sent(requests, 'PATCH', '/api/telling')).toEqual([
      expect.objectContaining({ address: 'edda@quietpress.example', how: 'at_once' }),
    ]),
  );
});

it('confirms the address of a letter', async () => {
  const requests = setUp({
    told: telling({ address: 'e@x.example', how: 'at_once' }),
    address: '/watching?confirm=abc',
  });
  expect(await screen.findByText(/A letter is on its way to e@x.example/)).toBeVisible();
  await userEvent.click(screen.getByRole('button', { name: 'Yes, write to e@x.example' }));
  await waitFor(() => expect(sent(requests, 'POST', '/api/telling/confirm')).toEqual([{ code: 'abc' }]));
});

it('says what became of letters', async () => {
  setUp({
    told: telling({
      address: 'e@x.example',
      how: 'daily',
      confirmed: true,
      trouble: '550 no such box',
      letters: [{ subject: 'One', address: 'e@x.example', state: 'unsure', made_at: now, sent_at: null, trouble: '' }],
    }),
  });
  expect(await screen.findByText(/the other side said “550 no such box”/)).toBeVisible();
  expect(screen.getByText(/may have arrived/)).toBeInTheDocument();
  expect(screen.getByRole('combobox', { name: 'From' })).toHaveTextContent('08:00');
});

it('offers no letters where none are sent', async () => {
  setUp({ told: telling({ can_mail: false }) });
  expect(await screen.findByText('This installation sends no letters.')).toBeVisible();
});

it('makes addresses for readers, and revokes them when asked twice', async () => {
  const requests = setUp({
    feeds: [{ id: 2, kind: 'calendar', path: '/api/feeds/tok/dates.ics', made_at: now, read_at: null }],
  });
  const field = await screen.findByLabelText('Calendar of dates');
  expect(field).toHaveValue(`${window.location.origin}/api/feeds/tok/dates.ics`);
  await userEvent.click(screen.getByRole('button', { name: 'Revoke' }));
  expect(sent(requests, 'DELETE', '/api/feeds/2')).toHaveLength(0);
  await userEvent.click(screen.getByRole('button', { name: 'Nobody may read it any more' }));
  await waitFor(() => expect(sent(requests, 'DELETE', '/api/feeds/2')).toHaveLength(1));
  await userEvent.click(screen.getByRole('button', { name: 'New feed' }));
  await waitFor(() => expect(sent(requests, 'POST', '/api/feeds')).toEqual([{ kind: 'atom' }]));
});

it('rings with how much is new, and what is seen is read', async () => {
  const requests = serve((_, path) =>
    path === '/api/happenings/read'
      ? { body: { rows: [], unread: 0 } }
      : { body: { rows: [happening(), happening({ id: 7, read: true })], unread: 1 } },
  );
  renderIn(<Bell />);
  const bell = await screen.findByRole('button', { name: '1 new thing happened to what you watch' });
  expect(sent(requests, 'POST', '/api/happenings/read')).toEqual([]);
  await userEvent.click(bell);
  expect(await screen.findByRole('link', { name: 'All you watch' })).toHaveAttribute('href', '/watching');
  await waitFor(() => expect(sent(requests, 'POST', '/api/happenings/read')[0]).toEqual({ upto: 9 }));
});
