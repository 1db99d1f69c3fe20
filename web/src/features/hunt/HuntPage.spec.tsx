import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

import type { Hunted, Markets } from '../../shared/api';
import { ProjectContext } from '../../shared/lib/projectContext';
import { renderIn, serve } from '../../shared/testing/render';
import { sampleHunted, sampleProject } from '../../shared/testing/samples';
import { HuntPage } from './HuntPage';

const SOON = new Date(Date.now() + 5 * 3_600_000).toISOString();
const rows: Hunted[] = [
  sampleHunted(
    { label: 'inkpost', suits: 92, cost: '1200.00' },
    { price: '1200.00', used_for: 'adult', risk: 'It had adult content.' },
  ),
  sampleHunted(
    { label: 'paperbarn', extension: 'net' },
    { kind: 'auction', price: '90.00', currency: 'USD', bids: 4, ends: SOON },
  ),
  sampleHunted(
    { label: 'quietriver', grade: null, scores: {} },
    { kind: 'asking', first_registered: null, links: null },
  ),
];
const markets: Markets = {
  may_edit: true,
  coming: false,
  markets: [
    { code: 'oldgate', name: 'Oldgate', names: 3200, told_at: SOON, followed: true, trouble: '' },
    { code: 'ebb', name: 'Ebb', names: 20, told_at: SOON, followed: true, trouble: 'The look-up service failed.' },
  ],
  files: [],
};

const SIDES = ['clientHeight', 'clientWidth'] as const;

afterEach(() => {
  for (const side of SIDES) Reflect.deleteProperty(HTMLElement.prototype, side);
});

beforeEach(() => {
  // A page without a layout has no size of its own: some rows are in sight.
  for (const side of SIDES) Object.defineProperty(HTMLElement.prototype, side, { configurable: true, value: 900 });
  vi.stubGlobal('matchMedia', () => ({ matches: false, addEventListener() {}, removeEventListener() {} }));
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );
});

function open({
  found = rows,
  search = '',
  told = markets,
}: Partial<{ found: Hunted[]; search: string; told: Markets }> = {}) {
  const requests = serve((method, path) => {
    if (path.includes('/hunt/counts'))
      return {
        body: { kind: { fixed: 1, auction: 1, asking: 1 }, market: { oldgate: 3 }, extension: { com: 2, net: 1 } },
      };
    if (path.includes('/hunt')) return { body: { rows: found, total: found.length, currency: 'EUR' } };
    if (path.startsWith('/api/markets')) return { body: told, status: method === 'POST' ? 202 : 200 };
    return { body: { labels: ['inkpost'] } };
  });
  renderIn(
    <ProjectContext value={sampleProject({ id: 7 })}>
      <HuntPage />
    </ProjectContext>,
    `/projects/7/hunt${search}`,
  );
  return requests;
}

/** The row of a name, once it has come. */
const rowOf = async (grid: HTMLElement, label: string): Promise<HTMLElement> =>
  waitFor(() => {
    const found = within(grid)
      .getAllByRole('row')
      .find((row) => row.textContent.includes(label));
    if (!found) throw new Error(`no row of ${label}`);
    return found;
  });

it('shows what is offered with its price, what is left, and a dash for what is not told', async () => {
  open();
  const grid = await screen.findByRole('grid', { name: 'Offers and drops' });
  const auction = await rowOf(grid, 'paperbarn');
  expect(auction).toHaveTextContent('auction');
  expect(auction).toHaveTextContent('$90');
  expect(auction).toHaveTextContent('in 5 hr.');
  const asking = await rowOf(grid, 'quietriver');
  expect(within(asking).getAllByTitle('The list does not tell').length).toBeGreaterThan(2);
  expect(within(asking).getByTitle('Not graded')).toBeVisible();
});

it('warns of the past of the name under the cursor, and keeps it', async () => {
  const requests = open();
  const panel = await screen.findByRole('complementary', { name: 'The name' });
  expect(await within(panel).findByRole('alert')).toHaveTextContent('It had adult content.');
  await userEvent.click(within(panel).getByRole('button', { name: 'Keep' }));
  await waitFor(() => {
    expect(requests.find((r) => r.method === 'POST')?.path).toBe('/api/projects/7/shortlist');
  });
  expect(await within(panel).findByRole('button', { name: 'On the shortlist' })).toBeVisible();
});

it('moves by the arrows, and asks in the order of a head that is pressed', async () => {
  const requests = open();
  const grid = await screen.findByRole('grid', { name: 'Offers and drops' });
  await rowOf(grid, 'paperbarn');
  grid.focus();
  await userEvent.keyboard('{ArrowDown}');
  const panel = screen.getByRole('complementary', { name: 'The name' });
  expect(await within(panel).findByText('auction at Oldgate Names')).toBeVisible();
  await userEvent.click(within(grid).getByRole('button', { name: 'Price' }));
  await waitFor(() => {
    expect(requests.some((r) => r.path.includes('sort=price'))).toBe(true);
  });
});

it('asks by filters that combine, and shows all again', async () => {
  const requests = open();
  await userEvent.click(await screen.findByRole('button', { name: 'auction 1' }));
  await userEvent.click(screen.getByRole('button', { name: '.net 1' }));
  await userEvent.type(screen.getByRole('textbox', { name: 'Price up to' }), '250');
  await userEvent.click(screen.getByRole('checkbox', { name: /leave out/ }));
  await waitFor(() => {
    const asked = requests.filter((r) => r.path.includes('/hunt?')).at(-1)?.path ?? '';
    for (const part of ['kinds=auction', 'extensions=net', 'price_max=250', 'clean=true'])
      expect(asked).toContain(part);
  });
  expect(screen.getByRole('button', { name: 'auction 1' })).toHaveAttribute('aria-pressed', 'true');
  await userEvent.click(screen.getByRole('button', { name: 'Show all' }));
  expect(screen.getByRole('button', { name: 'auction 1' })).toHaveAttribute('aria-pressed', 'false');
  expect(screen.getByRole('textbox', { name: 'Price up to' })).toHaveValue('');
});

it('says why there is nothing', async () => {
  open({ found: [], search: '?kinds=auction' });
  expect(await screen.findByText('Nothing passes these filters')).toBeVisible();
});

it('says so where no market has told of names', async () => {
  open({ found: [], told: { may_edit: false, coming: false, markets: [], files: [] } });
  expect(await screen.findByText('No market has told of names yet')).toBeVisible();
  expect(screen.queryByText('Bring its list …')).toBeNull();
});

it('waits for the first lists, and shows what they tell once they are read', async () => {
  vi.useFakeTimers({ shouldAdvanceTime: true });
  const found: Hunted[] = [];
  const told: Markets = { may_edit: false, coming: true, markets: [], files: [] };
  open({ found, told });
  expect(await screen.findByText('Lists of markets are being fetched')).toBeVisible();
  found.push(...rows);
  Object.assign(told, { coming: false, markets: markets.markets });
  await vi.advanceTimersByTimeAsync(2_000);
  await rowOf(await screen.findByRole('grid', { name: 'Offers and drops' }), 'paperbarn');
  vi.useRealTimers();
});

it('tells of markets and their troubles, and brings a list by its short name', async () => {
  const requests = open();
  const told = await screen.findByRole('list', { name: 'Markets' });
  expect(told).toHaveTextContent('The look-up service failed.');
  expect(screen.getByRole('button', { name: 'Bring its list …' })).toBeDisabled();
  await userEvent.type(screen.getByRole('textbox', { name: 'Short name of the market' }), 'My Fair!');
  await userEvent.upload(
    screen.getByLabelText(/A list of offers or drops/),
    new File(['1'], 'list.csv', { type: 'text/csv' }),
  );
  await waitFor(() => {
    expect(requests.find((r) => r.method === 'POST')?.path).toBe('/api/markets/myfair/list?name=myfair');
  });
});

it('tells how a list fared', async () => {
  const file = {
    market: 'oldgate',
    name: 'list.csv',
    lines: 10,
    taken: 9,
    new: 4,
    changed: 3,
    gone: 2,
    wrong: 1,
    problems: [{ path: 'line 3, price', code: 'feed_unpriced', args: {}, message: '“call” is no price.' }],
    brought_at: SOON,
    step: '',
  };
  const files: Markets['files'] = [
    { ...file, state: 'done' },
    { ...file, market: 'ebb', state: 'failed' },
    { ...file, market: 'fair', state: 'reading', step: 'comparing', problems: [] },
  ];
  open({ told: { ...markets, files } });
  const list = await screen.findByRole('list', { name: 'Lists that came' });
  expect(list).toHaveTextContent('9 names: 4 new, 3 changed, 2 gone; something was wrong in 1 place');
  expect(list).toHaveTextContent('line 3, price: “call” is no price.');
  expect(list).toHaveTextContent('the list before it stays in force');
  expect(list).toHaveTextContent('is compared with the one before');
});

it('shows the hunt as it was looked at last, and keeps a view under a name', async () => {
  const requests = serve((_method, path, body) => {
    if (path.endsWith('/views')) return { body: { view: '', views: [], ...(body as object) } };
    if (path.includes('/hunt/counts')) return { body: { kind: {}, market: {}, extension: {} } };
    if (path.includes('/hunt')) return { body: { rows, total: rows.length, currency: 'EUR' } };
    return { body: markets };
  });
  const sheets = {
    hunt: { view: 'kinds=auction&cols=grade,price', views: [{ name: 'cheap', search: 'price_max=50' }] },
  };
  renderIn(
    <ProjectContext value={sampleProject({ id: 7, sheets })}>
      <HuntPage />
    </ProjectContext>,
    '/projects/7/hunt',
  );
  const grid = await screen.findByRole('grid', { name: 'Offers and drops' });
  await rowOf(grid, 'inkpost');
  expect(requests.find((r) => r.path.includes('/hunt?'))?.path).toContain('kinds=auction');
  expect(within(grid).getAllByRole('columnheader')).toHaveLength(4);
  await userEvent.click(screen.getByRole('button', { name: 'View' }));
  expect(await screen.findByRole('button', { name: 'cheap' })).toBeVisible();
  await userEvent.type(screen.getByLabelText('Keep this view as'), 'auctions{Enter}');
  await waitFor(() => {
    const sent = requests
      .filter((r) => r.method === 'PUT')
      .map((r) => r.body as { place: string; views?: { name: string }[] });
    expect(sent.find((one) => one.views)?.views?.map((v) => v.name)).toEqual(['cheap', 'auctions']);
    expect(new Set(sent.map((one) => one.place))).toEqual(new Set(['hunt']));
  });
});
