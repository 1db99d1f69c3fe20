import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { ProjectContext } from '../../shared/lib/projectContext';
import { COSTS, costsAsked, SELLERS, servePlan, step } from '../../shared/testing/plan';
import { renderIn, serve } from '../../shared/testing/render';
import { sampleKept, sampleProject } from '../../shared/testing/samples';
import { wayInWords } from './inWords';
import { PlanPage } from './PlanPage';
import { PlanPaper } from './PlanPaper';
import { fullNamesOf, MOST_PLANNED, readWish, writeWish } from './planQuestion';

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
  await waitFor(() => {
    expect(screen.queryByRole('columnheader', { name: 'Weir & Daughter' })).not.toBeInTheDocument();
  });
  await waitFor(() => {
    expect(within(group).getByRole('button', { name: 'Lantern Names' })).toBeDisabled();
  });
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

it('says what a budget leaves out, and leaves it out when told to', async () => {
  const requests = servePlan(<PlanPage />, {
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
  const requests = servePlan(<PlanPage />, {});
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
  servePlan(<PlanPage />, {
    quotes: { waiting: 2, unknown: 1, oldest: null },
    plan: { total: '9', weight: '9', bound: '9', orders: [order], nowhere: ['quietsky.net'] },
  });
  expect(await screen.findByText(/Sellers are still asked about 2 names/)).toHaveTextContent('Once a seller gave no');
  expect(screen.getByText('To pay at once: €9 at Lantern Names.')).toBeInTheDocument();
  expect(screen.getByText(/is paid from an account: €25 at least has to go into it, and €16/)).toBeInTheDocument();
  expect(screen.getByText(/No seller has quietsky.net: taken, or held back/)).toBeInTheDocument();
});

it('shows what has been paid by the end of each year, as a table too', async () => {
  servePlan(<PlanPage />, {});
  const table = await screen.findByRole('table', { name: 'Paid over the years', hidden: true });
  const [heading, , , last] = within(table).getAllByRole('row', { hidden: true });
  expect(heading).toHaveTextContent('YearThis planWeir & Daughter');
  expect(last).toHaveTextContent('3€80.96€94.28');
});

it('hands out the plan as a file, and on paper', async () => {
  const requests = servePlan(<PlanPage />, {});
  const hand = await screen.findByRole('button', { name: 'Export' });
  await waitFor(() => {
    expect(hand).toBeEnabled();
  });
  await userEvent.click(hand);
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
  const requests = servePlan(<PlanPage />, {
    plan: { total: '90', weight: '80', bound: '75', orders: [], nowhere: [] },
  });
  await userEvent.click(await screen.findByRole('combobox', { name: 'Paying later' }));
  await userEvent.click(await screen.findByRole('option', { name: '10 % less a year' }));
  await waitFor(() => {
    expect(costsAsked(requests()).at(-1)).toMatchObject({ ahead: '10' });
  });
  expect(
    await screen.findByText(/With what moves and paying ahead weigh: €80; no plan weighs less than €75/),
  ).toBeVisible();
});
