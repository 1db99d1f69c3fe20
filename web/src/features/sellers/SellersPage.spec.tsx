import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { renderIn, serve } from '../../shared/testing/render';
import { sampleSeller } from '../../shared/testing/samples';
import { SellersPage } from './SellersPage';

const LANTERN = sampleSeller('lantern', 'Lantern Names', { privacy: 'charged', years_chosen: 5, top_up: '25' });
const MINE = sampleSeller('own-1', 'Corner Shop', { own: true, by_hand: true, may_change: true, publishes: false });
type Reply = { status?: number; body?: unknown };

function show(
  mayEdit = false,
  answer: (method: string, path: string, body: unknown) => Reply | undefined = () => undefined,
) {
  const sellers = mayEdit ? [{ ...LANTERN, may_change: true, by_hand: true }, MINE] : [LANTERN, MINE];
  const requests = serve((method, path, body) => {
    if (path === '/api/extensions')
      return {
        body: {
          countries: [
            { code: 'IE', name: 'Ireland' },
            { code: 'FR', name: 'France' },
          ],
          extensions: [],
        },
      };
    return (
      answer(method, path, body) ?? { body: { sellers, may_edit: mayEdit, rates_of: '2026-11-27', follows: true } }
    );
  });
  renderIn(<SellersPage />);
  return requests;
}
const part = async (name: string) => within(await screen.findByRole('region', { name }));

it('tells the terms of each, and lets one change what is one’s own', async () => {
  const requests = show();
  const lantern = await part('Lantern Names');
  expect(lantern.getByText(/tax comes on top · privacy costs extra · 5 years chosen in advance/)).toHaveTextContent(
    'paid from an account, €25 at least',
  );
  expect(lantern.getByRole('link', { name: 'Prices as CSV' })).toHaveAttribute('href', '/api/sellers/lantern/prices');
  expect(lantern.queryByRole('button')).not.toBeInTheDocument();
  expect(screen.queryByRole('button', { name: 'Ask all for their lists now' })).not.toBeInTheDocument();
  const mine = await part('Corner Shop');
  await userEvent.click(mine.getByRole('button', { name: 'Remove' }));
  expect(requests.some((r) => r.method === 'DELETE')).toBe(false);
  await userEvent.click(mine.getByRole('button', { name: 'Remove with all its prices' }));
  await waitFor(() => {
    expect(requests.find((r) => r.method === 'DELETE')?.path).toBe('/api/sellers/own-1');
  });
});

it('adds a seller of one’s own, and tells at its field what is wrong', async () => {
  const problem = { path: 'currency', code: 'entry_unreadable', args: {}, message: 'Written in a wrong form.' };
  const requests = show(false, (method) =>
    method === 'POST' ? { status: 400, body: { code: 'problems', message: 'x', problems: [problem] } } : undefined,
  );
  await userEvent.click(await screen.findByRole('button', { name: 'A seller of my own' }));
  const dialog = within(screen.getByRole('dialog'));
  await userEvent.type(dialog.getByRole('textbox', { name: 'Name' }), 'Harbour');
  await userEvent.click(dialog.getByRole('combobox', { name: 'Home country' }));
  await userEvent.click(await screen.findByRole('option', { name: 'France' }));
  const currency = dialog.getByRole('textbox', { name: 'Currency, such as EUR' });
  await userEvent.clear(currency);
  await userEvent.type(currency, 'eu');
  await userEvent.click(dialog.getByRole('button', { name: 'Something ticked in advance' }));
  await userEvent.type(dialog.getByRole('textbox', { name: 'What' }), 'Seal');
  await userEvent.click(dialog.getByRole('button', { name: 'Keep it' }));
  expect(await dialog.findByText('Written in a wrong form.')).toBeInTheDocument();
  const sent = requests.find((r) => r.method === 'POST');
  expect(sent?.body).toMatchObject({
    everybody: false,
    terms: {
      name: 'Harbour',
      country: 'FR',
      currency: 'EU',
      years_max: 10,
      extras: [{ name: 'Seal', yearly: '0', about: '', needed: false }],
    },
  });
  expect(dialog.getByRole('textbox', { name: 'Name' })).toHaveValue('Harbour');
});

it('takes a list whole, or what is good of it when told to', async () => {
  const problem = { path: 'line 3, price', code: 'not_price', args: {}, message: '“-4” is no price.' };
  const requests = show(false, (method, _path, body) => {
    if (method !== 'PUT') return undefined;
    const { take } = body as { take: string };
    return take === 'whole'
      ? { status: 400, body: { code: 'problems', message: 'x', problems: [problem] } }
      : { body: { lines: 1, problems: [problem] } };
  });
  await userEvent.click((await part('Corner Shop')).getByRole('button', { name: 'Bring a price list' }));
  const dialog = within(screen.getByRole('dialog'));
  const text = 'extension,action,price\ncom,register,9\ncom,renew,-4\n';
  await userEvent.upload(dialog.getByLabelText('A list as a file'), new File([text], 'mine.csv', { type: 'text/csv' }));
  await waitFor(() => {
    expect(dialog.getByRole('textbox', { name: 'The list' })).toHaveValue(text);
  });
  await userEvent.click(dialog.getByRole('button', { name: 'Take it' }));
  expect(await dialog.findByText('line 3, price: “-4” is no price.')).toBeInTheDocument();
  await userEvent.click(dialog.getByRole('button', { name: 'Take what is good' }));
  expect(await dialog.findByText(/One line was taken. These were left out:/)).toBeInTheDocument();
  const sent = requests.filter((r) => r.method === 'PUT');
  expect(sent.map((r) => r.body)).toEqual([
    { text, take: 'whole' },
    { text, take: 'good' },
  ]);
  await userEvent.click(dialog.getByRole('button', { name: 'Done' }));
  await waitFor(() => {
    expect(screen.queryByRole('dialog')).not.toBeInTheDocument();
  });
});

it('lets an administrator ask anew, follow again, and bring exchange rates', async () => {
  const problem = { path: 'line 2', code: 'not_date', args: {}, message: '“x” is no date.' };
  const requests = show(true, (_method, path) =>
    path === '/api/rates' ? { status: 400, body: { code: 'problems', message: 'x', problems: [problem] } } : undefined,
  );
  await userEvent.click(await screen.findByRole('button', { name: 'Ask all for their lists now' }));
  expect(await screen.findByText('They are being asked.')).toBeInTheDocument();
  await userEvent.click((await part('Lantern Names')).getByRole('button', { name: 'Follow its own lists again' }));
  expect(requests.some((r) => r.path === '/api/sellers/lantern/follow')).toBe(true);
  await userEvent.upload(screen.getByLabelText('A file of exchange rates'), new File(['Date,USD\nx,1\n'], 'r.csv'));
  expect(await screen.findByText(/The rates stay as they were. line 2: “x” is no date./)).toBeInTheDocument();
  expect(screen.getByText('Exchange rates of Nov 27, 2026, by the European Central Bank')).toBeInTheDocument();
});

it('shows terms changed in another window, and lets one choose', async () => {
  const theirs = { name: 'Corner Shop', country: 'IE', currency: 'EUR', tax: 'included', extras: [] };
  const requests = show(false, (method, _path, body) => {
    const { seen } = (body ?? {}) as { seen?: { tax?: string } };
    return method === 'PUT' && seen?.tax !== 'included'
      ? { status: 409, body: { code: 'changed_elsewhere', message: 'x', problems: [], current: theirs } }
      : undefined;
  });
  await userEvent.click((await part('Corner Shop')).getByRole('button', { name: 'Change terms' }));
  const dialog = within(screen.getByRole('dialog'));
  await userEvent.type(dialog.getByRole('textbox', { name: 'Name' }), 'Corner');
  await userEvent.click(dialog.getByRole('button', { name: 'Keep it' }));
  const told = await dialog.findByRole('alert');
  expect(told).toHaveTextContent('Prices arehere: addedthere: included');
  await userEvent.click(within(told).getByRole('button', { name: 'Keep mine' }));
  await waitFor(() => {
    expect(screen.queryByRole('dialog')).not.toBeInTheDocument();
  });
  const sent = requests.filter((r) => r.method === 'PUT').map((r) => r.body as { seen: object });
  expect(sent.at(-1)?.seen).toEqual(theirs);
});

it('takes the terms of the other window when told to', async () => {
  const theirs = { name: 'Elsewhere', country: 'FR', currency: 'EUR', extras: [{ name: 'Seal', yearly: '3' }] };
  show(false, (method) =>
    method === 'PUT'
      ? { status: 409, body: { code: 'changed_elsewhere', message: 'x', problems: [], current: theirs } }
      : undefined,
  );
  await userEvent.click((await part('Corner Shop')).getByRole('button', { name: 'Change terms' }));
  const dialog = within(screen.getByRole('dialog'));
  await userEvent.type(dialog.getByRole('textbox', { name: 'Name' }), 'Corner');
  await userEvent.click(dialog.getByRole('button', { name: 'Keep it' }));
  await userEvent.click(await dialog.findByRole('button', { name: 'Take theirs' }));
  expect(dialog.getByRole('textbox', { name: 'Name' })).toHaveValue('Elsewhere');
  expect(dialog.getByRole('textbox', { name: 'What' })).toHaveValue('Seal');
  await userEvent.click(dialog.getByRole('button', { name: 'Take Seal away' }));
  expect(dialog.queryByRole('textbox', { name: 'What' })).not.toBeInTheDocument();
});

it('begins with the list in force, so that a line of it can be changed', async () => {
  const text = 'code,takes,value\nX,percent,5\n';
  serve((_method, path) => {
    if (path === '/api/extensions') return { body: { countries: [], extensions: [] } };
    if (path.endsWith('/coupons')) return { body: text };
    return { body: { sellers: [MINE], may_edit: false, rates_of: null, follows: true } };
  });
  renderIn(<SellersPage />);
  await userEvent.click((await part('Corner Shop')).getByRole('button', { name: 'Bring coupons' }));
  const dialog = within(screen.getByRole('dialog', { name: 'Coupons of Corner Shop' }));
  expect(dialog.getByRole('button', { name: 'Take it' })).toBeDisabled();
  await userEvent.click(dialog.getByRole('button', { name: 'Begin with the list in force' }));
  expect(await dialog.findByText('the list in force')).toBeInTheDocument();
  expect(dialog.getByRole<HTMLTextAreaElement>('textbox', { name: 'The list' }).value).toContain('percent');
});

it('says when the sellers cannot be loaded, and when there are none', async () => {
  let away = true;
  serve(() =>
    away ? { status: 500, body: {} } : { body: { sellers: [], may_edit: false, rates_of: null, follows: false } },
  );
  renderIn(<SellersPage />);
  expect(await screen.findByText('The sellers could not be loaded')).toBeInTheDocument();
  away = false;
  await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
  expect(await screen.findByText(/Nobody is known who sells names/)).toBeInTheDocument();
});
