import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { COUPON, servePlan } from '../../shared/testing/plan';
import { PlanPage } from './PlanPage';

it('tells what a coupon takes off, how likely it works, and hears whether it did', async () => {
  const requests = servePlan(<PlanPage />, {
    coupons: [COUPON, { ...COUPON, code: 'MINE', held: 'own', reported: false }],
  });
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
  const requests = servePlan(<PlanPage />, { coupons: [] }, (path) =>
    path.endsWith('held-coupons') ? refusal : undefined,
  );
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
