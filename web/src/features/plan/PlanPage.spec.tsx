import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import type { CostQuestion, Costs, CouponKind } from '../../shared/api';
import { ProjectContext } from '../../shared/lib/projectContext';
import { renderIn, serve } from '../../shared/testing/render';
import { sampleKept, sampleProject, sampleSeller } from '../../shared/testing/samples';
import { PlanPage } from './PlanPage';
import { PlanPaper } from './PlanPaper';
import { fullNamesOf, MOST_PLANNED, readWish, writeWish } from './planQuestion';
import { changeInWords } from '../../shared/lib/priceChange';
import { lineInWords, sourceInWords, wayInWords } from './inWords';

const SELLERS = [
  sampleSeller('lantern', 'Lantern Names', {
    changes: [
      { kind: 'rose', extension: 'com', action: 'renew', years_from: 1, years_to: 10, before: '11', after: '14' },
    ],
    changed_on: '2026-11-03',
  }),
  sampleSeller('weir', 'Weir & Daughter', { stale: true, trouble: 'prices: The look-up service failed.' }),
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
  by_year: total ? ['2', '20', '20'] : [],
  quoted: '' as const,
  unsold: total === null,
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
      used: true,
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
    {
      full_name: 'quietsky.net',
      used: false,
      sellers: [holding('lantern', null), holding('weir', '50.00')],
      cheapest: null,
    },
  ],
  plan: { total: '80.96', weight: '80.96', bound: '78.10', orders: [], nowhere: [] },
  paid: [
    { seller: '', amounts: ['1.44', '16.20', '80.96'] },
    { seller: 'weir', amounts: ['14.76', '29.52', '94.28'] },
  ],
  affordable: null,
  coupons: [],
  quotes: { waiting: 0, unknown: 0, oldest: null },
};

function setUp(
  kept = [sampleKept({ label: 'inkpost', extension: 'com' }), sampleKept({ label: 'quietsky', extension: 'net' })],
  answer: () => { status?: number; body: unknown } = () => ({ body: COSTS }),
) {
  const requests = serve((method, path) => {
    if (path.endsWith('/shortlist')) return { body: kept };
    if (path === '/api/sellers') return { body: { sellers: SELLERS, may_edit: false, rates_of: null, follows: true } };
    if (path === '/api/extensions') return { body: { countries: [{ code: 'IE', name: 'Ireland' }], extensions: [] } };
    return method === 'POST' ? answer() : { body: {} };
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

/** The page with other costs; gives everything that was asked. */
function setUpWith(costs: Partial<Costs>, answer: (path: string) => Reply | undefined = () => undefined) {
  const requests = serve((_method, path) => {
    if (path.endsWith('/shortlist'))
      return {
        body: [sampleKept({ label: 'inkpost', extension: 'com' }), sampleKept({ label: 'quietsky', extension: 'net' })],
      };
    if (path === '/api/sellers') return { body: { sellers: SELLERS, may_edit: false, rates_of: null, follows: true } };
    if (path === '/api/extensions') return { body: { countries: [{ code: 'IE', name: 'Ireland' }], extensions: [] } };
    return answer(path) ?? { body: path.endsWith('/costs') ? { ...COSTS, ...costs } : {} };
  });
  renderIn(
    <ProjectContext value={sampleProject({})}>
      <PlanPage />
    </ProjectContext>,
  );
  return () => requests;
}
type Reply = { status?: number; body: unknown };
const costsAsked = (requests: readonly { path: string; body: unknown }[]) =>
  requests.filter((r) => r.path.endsWith('/costs')).map((r) => r.body as CostQuestion);

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
  expect(screen.getByText(/All 2 names over 3 years: €80.96/).closest('p')).toHaveTextContent(
    'No plan costs less than €78.10.',
  );
  expect(screen.getByText(/€120 instead of €41.24/)).toHaveTextContent('It is not needed to hold the name.');
  const staying = screen.getByRole('table', { name: 'Staying with one seller' });
  expect(within(staying).getAllByRole('row')[1]).toHaveTextContent('Lantern Names€41.24€10€2€20');
  const lists = screen.getByRole('list', { name: 'Sellers' });
  expect(lists).toHaveTextContent('.com, renewal, 1 to 10 years: rose from €11 to €14');
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

it('keeps what was worked out in sight when the next cannot be, says why, and tries again', async () => {
  let broken = false;
  const asked = setUp(undefined, () =>
    broken ? { status: 500, body: { code: 'server', message: 'Something went wrong here.' } } : { body: COSTS },
  );
  await screen.findByRole('table', { name: 'Costs' });
  broken = true;
  await userEvent.click(screen.getByRole('switch', { name: 'Holder not public' }));
  const told = await screen.findByText(/What stands below is as it was worked out before/);
  expect(screen.getByRole('table', { name: 'Costs' })).toHaveTextContent('€30.96');
  broken = false;
  const before = asked().length;
  await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
  await waitFor(() => {
    expect(told).not.toBeInTheDocument();
  });
  expect(asked().length).toBe(before + 1);
});

it('shows a wrong VAT number at its field, with nothing to try again', async () => {
  setUp(undefined, () => ({
    status: 400,
    body: {
      code: 'invalid',
      message: 'Some of it is not right.',
      problems: [{ path: 'vat', message: 'This is no VAT number of Ireland.' }],
    },
  }));
  const field = await screen.findByRole('textbox', { name: 'VAT number of a business' });
  await waitFor(() => {
    expect(field).toBeInvalid();
  });
  expect(field).toHaveAccessibleDescription('This is no VAT number of Ireland.');
  expect(screen.queryByRole('button', { name: 'Try again' })).not.toBeInTheDocument();
});

it('plans as many names as one plan takes, and says how many that are', async () => {
  const many = Array.from({ length: MOST_PLANNED + 3 }, (_, n) => sampleKept({ label: `name${n}`, extension: 'com' }));
  const asked = setUp(many);
  expect(await screen.findByText(/The first 200 of 203 names are planned/)).toBeInTheDocument();
  await waitFor(() => {
    expect(asked().at(-1)?.full_names).toHaveLength(MOST_PLANNED);
  });
});

it('asks with what a move is worth and a VAT number once they are entered, not at each key', async () => {
  const asked = setUp();
  await screen.findByRole('table', { name: 'Costs' });
  const trouble = screen.getByRole('textbox', { name: 'Trouble of a move' });
  await userEvent.type(trouble, '12x5');
  expect(trouble).toHaveValue('125');
  expect(asked().at(-1)).toMatchObject({ trouble: '0' });
  await userEvent.keyboard('{Enter}');
  await waitFor(() => {
    expect(asked().at(-1)).toMatchObject({ trouble: '125' });
  });
  await userEvent.click(screen.getByRole('switch', { name: 'Moving allowed' }));
  expect(trouble).toBeDisabled();
  await userEvent.type(screen.getByRole('textbox', { name: 'VAT number of a business' }), 'IE6388047V{Enter}');
  await waitFor(() => {
    expect(asked().at(-1)).toMatchObject({ moving: false, vat: 'IE6388047V' });
  });
});

it.each([
  ['registration', 'list', { price: '9', per: 'year', years: '2' }, 'registration: €9 a year, 2 years'],
  ['renewal', 'list', { price: '9', per: 'term', years: '1' }, 'renewal: €9 for 1 year'],
  ['registration', 'premium', { later: '90' }, 'registration: a premium name, €90 each later year'],
  [
    'registration',
    'premium',
    { later: '90', listed: '9.5' },
    'registration: a premium name, €90 each later year; usual ones €9.50',
  ],
  ['registration', 'quoted', { listed: '9' }, 'registration: as the seller asks for this name; its list says €9'],
  ['registration', 'quoted', {}, 'registration: as the seller asks for this name'],
  ['promotion', 'first_year', { price: '1' }, 'promotion: the first year for €1'],
  ['promotion', 'first_names', { price: '1' }, 'promotion: the first names of an order for €1 each'],
  ['promotion', 'new_customers', { price: '1' }, 'promotion: for new customers, €1'],
  ['coupon', 'coupon', { code: 'INK' }, 'coupon INK'],
  ['tax', 'charged', { percent: '23.00', country: 'IE' }, 'tax: 23 % as in Ireland'],
  ['tax', 'reverse', {}, 'tax: accounted for by the buyer'],
  ['tax', 'abroad', {}, 'tax: none is asked for outside the Union'],
  ['tax_within', 'within', { held: '1.87' }, 'tax: €1.87 of it is in the price'],
  ['tax', 'unknown', {}, 'tax: which one there is, is not known; the price is net'],
  ['a kind of tomorrow', 'a reason of tomorrow', {}, 'a kind of tomorrow'],
])('says what a line of %s is for by the reason %s', (kind, reason, args, said) => {
  expect(lineInWords({ kind, full_name: '', amount: '1', reason, args }, 'EUR')).toBe(said);
});

it('tells where the price of a line is from', () => {
  const line = { kind: 'registration', full_name: '', amount: '1', args: { dated: '2026-11-29' } };
  expect(sourceInWords({ ...line, reason: 'list' })).toBe('list of Nov 29, 2026');
  expect(sourceInWords({ ...line, reason: 'premium' })).toBe('asked for this name');
  expect(sourceInWords({ ...line, reason: 'coupon' })).toBe('');
});

it.each([
  ['came', 'org', 'register', 1, 1, null, '8', '.org, registration, 1 year: now offered for €8'],
  ['went', 'net', 'move', 1, 10, '9', null, '.net, moving in, 1 to 10 years: no longer offered'],
  ['fell', '*', 'privacy', 1, 10, '3', '2.50', 'privacy, 1 to 10 years: fell from €3 to €2.50'],
])('says that a price %s for .%s', (kind, extension, action, from, to, before, after, said) => {
  const change = { kind, extension, action, years_from: from, years_to: to, before, after } as Parameters<
    typeof changeInWords
  >[0];
  expect(changeInWords(change, 'EUR')).toBe(said);
});

const COUPON: CouponKind = {
  seller: 'lantern',
  code: 'LANTERN10',
  takes: 'percent',
  value: '10.000',
  extensions: ['com'],
  actions: ['register'],
  years_from: 1,
  years_to: 10,
  least_names: 3,
  least_sum: '20',
  new_customers: true,
  combines: false,
  on_promotions: false,
  starts: null,
  ends: '2027-01-31',
  odds: { mean: 0.75, low: 0.42, high: 0.97, reports: 3 },
  saving: '4.00',
  expected: '3.00',
  in_plan: true,
  reported: null,
  held: '',
};

it('tells what a coupon takes off, how likely it works, and hears whether it did', async () => {
  const requests = setUpWith({ coupons: [COUPON, { ...COUPON, code: 'MINE', held: 'own', reported: false }] });
  const list = await screen.findByRole('list', { name: 'Coupons' });
  const [first, second] = within(list).getAllByRole('listitem');
  expect(first).toHaveTextContent('LANTERN10at Lantern Names10 % offin this plan');
  expect(first).toHaveTextContent('saves €4 if it works, €3 to be expected');
  expect(first).toHaveTextContent(
    'registering · under .com · from 3 names · from €20 · new customers · not on promotional prices · until Jan 31, 2027',
  );
  expect(first).toHaveTextContent('Works: 75 % (42 to 97), 3 reports');
  await userEvent.click(screen.getByRole('button', { name: 'LANTERN10 worked' }));
  const sent = () => requests().filter((r) => r.path === '/api/coupons/reports');
  expect(sent().at(-1)?.body).toEqual({ seller: 'lantern', code: 'LANTERN10', worked: true });
  // Pressed once more it is taken back.
  await userEvent.click(screen.getByRole('button', { name: 'MINE did not work' }));
  expect(sent().at(-1)?.body).toEqual({ seller: 'lantern', code: 'MINE', worked: null });
  expect(within(first as HTMLElement).queryByRole('button', { name: /^Take/ })).not.toBeInTheDocument();
  await userEvent.click(within(second as HTMLElement).getByRole('button', { name: 'Take MINE away' }));
  expect(requests().at(-1)?.method).toBeDefined();
  await waitFor(() => {
    expect(requests().find((r) => r.method === 'PUT')?.body).toEqual({ code: 'MINE', everybody: false });
  });
});

it('adds a coupon one has come by, and says at its field what is wrong with it', async () => {
  const problem = { path: 'value', code: 'coupon_percent', args: {}, message: 'No more than 100 percent.' };
  const refusal = { status: 400, body: { code: 'problems', message: 'Look again.', problems: [problem] } };
  const requests = setUpWith({ coupons: [] }, (path) => (path.endsWith('held-coupons') ? refusal : undefined));
  expect(await screen.findByText('No coupon of these sellers is known.')).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Add one' }));
  const dialog = within(screen.getByRole('dialog'));
  expect(dialog.getByRole('button', { name: 'Add it' })).toBeDisabled();
  await userEvent.type(dialog.getByRole('textbox', { name: 'Code' }), 'A"B');
  await userEvent.type(dialog.getByRole('textbox', { name: '%' }), '110');
  await userEvent.click(dialog.getByRole('checkbox', { name: 'with other coupons' }));
  await userEvent.click(dialog.getByRole('button', { name: 'Add it' }));
  expect(await dialog.findByText('No more than 100 percent.')).toBeInTheDocument();
  const sent = requests().find((r) => r.path.endsWith('held-coupons'));
  expect(sent?.path).toBe('/api/sellers/lantern/held-coupons');
  const { text } = sent?.body as { text: string };
  expect(text.split('\n')[1]).toBe('"A""B","percent","110","","register","","","","","","yes","","",""');
});

it('says what a budget leaves out, and leaves it out when told to', async () => {
  const requests = setUpWith({
    affordable: {
      plan: { total: '30.96', weight: '30.96', bound: '30.96', orders: [], nowhere: [] },
      left_out: ['quietsky.net'],
      kept: true,
    },
  });
  await userEvent.type(await screen.findByRole('textbox', { name: 'Budget in all' }), '40{Enter}');
  await waitFor(() => {
    expect(costsAsked(requests()).at(-1)).toMatchObject({ budget: '40', used: ['inkpost.com'] });
  });
  expect(await screen.findByText(/over your budget of €40/)).toHaveTextContent(
    'That is €40.96 over your budget of €40. Without quietsky.net, held for protection, it comes to €30.96.',
  );
  await userEvent.click(screen.getByRole('button', { name: 'Leave them out' }));
  await waitFor(() => {
    expect(costsAsked(requests()).at(-1)).toMatchObject({ full_names: ['inkpost.com'] });
  });
});

it('lets one say which names are used, and never none', async () => {
  const requests = setUpWith({});
  await userEvent.click(await screen.findByRole('button', { name: 'quietsky.net is used, not only held' }));
  await waitFor(() => {
    expect(costsAsked(requests()).at(-1)?.used).toEqual(['inkpost.com', 'quietsky.net']);
  });
  await userEvent.click(screen.getByRole('button', { name: 'inkpost.com is used, not only held' }));
  await waitFor(() => {
    expect(costsAsked(requests()).at(-1)?.used).toEqual(['quietsky.net']);
  });
});

it('says that sellers are still asked, what they do not sell, and what has to go into an account', async () => {
  const order = { ...step('register', 'lantern', 2026, '9').order, paid: '9.00', paid_in: '25.00' };
  setUpWith({
    quotes: { waiting: 2, unknown: 1, oldest: null },
    plan: { total: '9', weight: '9', bound: '9', orders: [order], nowhere: ['quietsky.net'] },
  });
  expect(await screen.findByText(/Sellers are still asked about 2 names/)).toHaveTextContent('Once a seller gave no');
  expect(screen.getByText('To pay at once: €9 at Lantern Names.')).toBeInTheDocument();
  expect(screen.getByText(/is paid from an account: €25 at least has to go into it, and €16/)).toBeInTheDocument();
  expect(screen.getByText(/No seller has quietsky.net: taken, or held back/)).toBeInTheDocument();
});

it('shows what has been paid by the end of each year, as a table too', async () => {
  setUpWith({});
  const table = await screen.findByRole('table', { name: 'Paid over the years', hidden: true });
  const [heading, , , last] = within(table).getAllByRole('row', { hidden: true });
  expect(heading).toHaveTextContent('YearThis planWeir & Daughter');
  expect(last).toHaveTextContent('3€80.96€94.28');
});

it('hands out the plan as a file, and on paper', async () => {
  const requests = setUpWith({});
  await userEvent.click(await screen.findByRole('button', { name: 'Export' }));
  await userEvent.click(await screen.findByRole('menuitem', { name: /^CSV/ }));
  await waitFor(() => {
    const file = requests().find((r) => r.path.endsWith('/costs/file'));
    expect(file?.body).toMatchObject({ form: 'csv', full_names: ['inkpost.com', 'quietsky.net'] });
  });
  expect(screen.getByRole('link', { name: 'On paper' })).toHaveAttribute('href', '/projects/7/plan/print');
  renderIn(
    <ProjectContext value={sampleProject({})}>
      <PlanPaper />
    </ProjectContext>,
  );
  expect(await screen.findByText('Lantern Names: list of Nov 29, 2026')).toBeInTheDocument();
  expect(screen.getByText(/^2 names over 3 years: €80.96/)).toBeInTheDocument();
});

it('weighs what is paid later less when told to, and says what that comes to', async () => {
  const requests = setUpWith({ plan: { total: '90', weight: '80', bound: '75', orders: [], nowhere: [] } });
  await userEvent.click(await screen.findByRole('combobox', { name: 'Paying later' }));
  await userEvent.click(await screen.findByRole('option', { name: '10 % less a year' }));
  await waitFor(() => {
    expect(costsAsked(requests()).at(-1)).toMatchObject({ ahead: '10' });
  });
  expect(screen.getByText(/With what moves and paying ahead weigh: €80; no plan weighs less than €75/)).toBeVisible();
});

it('goes by what the brief says of years and budget, unless the address says otherwise', () => {
  const brief = { owner: { country: 'IE', kind: '', work: 'any', budget: null, years: 3, budget_whole: 250 } };
  const wish = readWish(new URLSearchParams('less=a,b'), brief, '');
  // The brief says how long, and for how much in all.
  expect([wish.years, wish.budget, wish.less]).toEqual([3, 250, ['a', 'b']]);
  expect(writeWish(new URLSearchParams(), { budget: 0, ahead: 0 }).toString()).toBe('budget=0');
});
