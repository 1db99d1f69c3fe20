import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import type { Costs, SellerKind } from '../../shared/api';
import { ProjectContext } from '../../shared/lib/projectContext';
import { renderIn, serve } from '../../shared/testing/render';
import { sampleKept, sampleProject } from '../../shared/testing/samples';
import { PlanPage } from './PlanPage';
import { fullNamesOf, readWish, writeWish } from './planQuestion';
import { wayInWords } from './inWords';

const seller = (code: string, name: string, more: Partial<SellerKind> = {}): SellerKind => ({
  code,
  name,
  country: 'IE',
  currency: 'EUR',
  privacy: 'included',
  tax: 'added',
  years_chosen: 1,
  dated: '2026-11-29',
  fetched_at: '2026-11-29T10:00:00Z',
  stale: false,
  trouble: '',
  changes: [],
  changed_on: null,
  ...more,
});

const SELLERS = [
  seller('lantern', 'Lantern Names', {
    changes: [
      { kind: 'rose', extension: 'com', action: 'renew', years_from: 1, years_to: 10, before: '11', after: '14' },
    ],
    changed_on: '2026-11-03',
  }),
  seller('weir', 'Weir & Daughter', { stale: true, trouble: 'prices: The look-up service failed.' }),
];

const step = (action: 'register' | 'renew' | 'move', code: string, year: number, amount: string) => ({
  on: `${year}-11-29`,
  action,
  seller: code,
  years: 1,
  until: `${year + 1}-11-29`,
  amount,
  order: {
    seller: code,
    currency: 'EUR',
    subtotal: amount,
    total: amount,
    tax_known: true,
    lines: [
      {
        kind: action === 'register' ? 'registration' : action === 'move' ? 'move' : 'renewal',
        full_name: 'inkpost.com',
        amount,
        reason: 'list',
        args: { years: '1', price: amount, per: 'year' },
      },
    ],
  },
});

const holding = (code: string, total: string | null) => ({
  seller: code,
  total,
  a_year: total && '10',
  first: total && '2',
  dearest: total && '20',
  ticked: code === 'lantern' ? '120.00' : total,
  extras:
    code === 'lantern' ? [{ name: 'Post box', about: 'Ten addresses for mail.', needed: false, total: '80.00' }] : [],
});

const COSTS: Costs = {
  currency: 'EUR',
  years: 3,
  rates_of: '2026-10-30',
  names: [
    {
      full_name: 'inkpost.com',
      sellers: [holding('lantern', '41.24'), holding('weir', '44.28')],
      cheapest: {
        total: '30.96',
        by_year: ['1.44', '14.76', '14.76'],
        steps: [
          step('register', 'lantern', 2026, '1.44'),
          step('move', 'weir', 2027, '14.76'),
          step('renew', 'weir', 2028, '14.76'),
        ],
      },
    },
    { full_name: 'quietsky.net', sellers: [holding('lantern', null), holding('weir', '50.00')], cheapest: null },
  ],
  plan: { total: '80.96', weight: '80.96', bound: '78.10', orders: [], nowhere: [] },
};

function setUp(
  kept = [sampleKept({ label: 'inkpost', extension: 'com' }), sampleKept({ label: 'quietsky', extension: 'net' })],
) {
  const requests = serve((method, path) => {
    if (path.endsWith('/shortlist')) return { body: kept };
    if (path === '/api/sellers') return { body: { sellers: SELLERS, may_edit: false } };
    if (path === '/api/extensions') return { body: { countries: [{ code: 'IE', name: 'Ireland' }], extensions: [] } };
    return method === 'POST' ? { body: COSTS } : { body: {} };
  });
  renderIn(
    <ProjectContext value={sampleProject({})}>
      <PlanPage />
    </ProjectContext>,
  );
  return () =>
    requests
      .filter((r) => r.method === 'POST')
      .map((r) => r.body as { full_names: string[]; years: number; sellers: string[] });
}

it('sets sellers side by side, marks the least, and tells the cheapest way', async () => {
  setUp();
  const table = await screen.findByRole('table', { name: 'Costs' });
  const [, first, second] = within(table).getAllByRole('row');
  expect(first).toHaveTextContent('inkpost.comused€30.96€41.24€44.28');
  expect(second).toHaveTextContent('quietsky.netheldnowhere–€50');
  const way = screen.getByRole('list', { name: 'The cheapest way' });
  expect(
    within(way)
      .getAllByRole('listitem')
      .map((li) => li.textContent),
  ).toEqual([
    'Register at Lantern Names for 1 year.',
    'Move to Weir & Daughter on Nov 29, 2027.',
    'Renew at Weir & Daughter on Nov 29, 2028 for 1 year.',
  ]);
  expect(screen.getByText(/All 2 names over 3 years: €80.96/)).toHaveTextContent('No plan costs less than €78.10.');
  expect(screen.getByText(/€120 instead of €41.24/)).toHaveTextContent('It is not needed to hold the name.');
  const lists = screen.getByRole('list', { name: 'Sellers' });
  expect(lists).toHaveTextContent('.com, renew rose from 11 to 14 EUR');
  expect(lists).toHaveTextContent('not heard from for days');
});

it('asks anew for other years, and without a name that is left out', async () => {
  const asked = setUp();
  await userEvent.click(await screen.findByRole('checkbox', { name: 'quietsky.net in the plan' }));
  await waitFor(() => {
    expect(asked().at(-1)?.full_names).toEqual(['inkpost.com']);
  });
  await userEvent.click(screen.getByRole('combobox', { name: 'Years' }));
  await userEvent.click(await screen.findByRole('option', { name: '9' }));
  await waitFor(() => {
    expect(asked().at(-1)?.years).toBe(9);
  });
});

it('leaves out a seller, but never the last', async () => {
  const asked = setUp();
  const group = await screen.findByRole('group', { name: 'Sellers to consider' });
  await userEvent.click(within(group).getByRole('button', { name: 'Weir & Daughter', pressed: true }));
  await waitFor(() => {
    expect(asked().at(-1)?.sellers).toEqual(['lantern']);
  });
  expect(screen.queryByRole('columnheader', { name: 'Weir & Daughter' })).not.toBeInTheDocument();
  expect(within(group).getByRole('button', { name: 'Lantern Names' })).toBeDisabled();
});

it('says what to do while nothing is kept', async () => {
  setUp([]);
  expect(await screen.findByText('Nothing to plan yet')).toBeInTheDocument();
});

it('keeps what is planned in the address', () => {
  const brief = { owner: { country: 'IE', kind: '', work: 'any', budget: null } } as Parameters<typeof readWish>[1];
  const usual = readWish(new URLSearchParams('years=99&currency=XXX&trouble=-3'), brief, 'SEK');
  expect(usual).toMatchObject({ years: 10, country: 'IE', currency: 'SEK', trouble: 0, moving: true, privacy: true });
  const written = writeWish(new URLSearchParams('years=3'), { country: '', moving: false, out: ['a.com', 'b.net'] });
  expect(readWish(written, brief, '')).toMatchObject({ years: 3, country: '', moving: false, out: ['a.com', 'b.net'] });
  expect(fullNamesOf([sampleKept({ label: 'a', extension: '' })], ['ie'])).toEqual(['a.ie']);
});

it('tells renewals in a row once', () => {
  const steps = [2027, 2028, 2029].map((year) => step('renew', 'weir', year, '9'));
  expect(wayInWords(steps, () => 'Weir')).toEqual(['From Nov 29, 2027 renew at Weir, a year at a time, 3 times.']);
});
