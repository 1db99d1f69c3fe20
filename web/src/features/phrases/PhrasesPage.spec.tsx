import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { figures, line, page } from '../../shared/testing/phrases';
import { showPhrases } from './testing';

it('lists heads with what is known of them, and says what is not', async () => {
  showPhrases();
  const table = await screen.findByRole('table', { name: 'Phrases' });
  const [, first, second] = within(table).getAllByRole('row');
  expect(first?.textContent).toMatch('piano tuning +1 gathered2,100');
  expect(second?.textContent).toMatch('piano stool –––');
  expect(screen.getByRole('status').textContent).toMatch(
    '2 of 2 phrases, 2,000 searches a month; of 1 nothing is known (3 before they were gathered)',
  );
});

it('asks for what is narrowed and ordered by', async () => {
  const { sent } = showPhrases();
  await userEvent.type(await screen.findByLabelText('Find in phrases'), 'tune');
  await waitFor(() => expect(sent('GET', 'text=tune')).not.toHaveLength(0));
  await userEvent.click(screen.getByRole('button', { name: 'unknown' }));
  await waitFor(() => expect(sent('GET', 'known=no')).not.toHaveLength(0));
  await userEvent.click(screen.getByRole('button', { name: /^A click/ }));
  await waitFor(() => expect(sent('GET', 'sort=price')).not.toHaveLength(0));
  const price = await screen.findByRole('columnheader', { name: 'A click ↑' });
  expect(price.getAttribute('aria-sort')).toBe('ascending');
  await userEvent.click(within(price).getByRole('button'));
  await waitFor(() => expect(sent('GET', 'reverse=true')).not.toHaveLength(0));
  expect(await screen.findByRole('columnheader', { name: 'A click ↓' })).toBeTruthy();
});

it('chooses phrases', async () => {
  const { sent } = showPhrases();
  await userEvent.click(await screen.findByRole('checkbox', { name: 'Choose piano stool' }));
  await waitFor(() => {
    expect(sent('POST', '/chosen')[0]?.body).toEqual({ phrases: ['piano stool'], chosen: true });
  });
});

it('makes keywords of those chosen', async () => {
  const { sent } = showPhrases();
  await userEvent.click(await screen.findByRole('button', { name: 'Chosen ones of this page as keywords' }));
  await waitFor(() => {
    expect(sent('POST', '/keywords')[0]?.body).toEqual({
      phrases: ['piano tuning'],
      view: 'Almanac|IE|en',
      weigh: true,
    });
  });
  expect(await screen.findByText(/1 keyword in the brief, weighed by demand/)).toBeTruthy();
});

it('goes through pages, and shows all again where none is left', async () => {
  const { requests, sent } = showPhrases('/?text=zz&offset=100', figures(), (method, path) =>
    method === 'GET' && path.includes('/phrases?') ? { body: page([line('a b')], { total: 250 }) } : undefined,
  );
  expect(await screen.findByText('2 of 3')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Those after' }));
  await waitFor(() => expect(sent('GET', 'offset=200')).not.toHaveLength(0));
  await userEvent.click(screen.getByRole('button', { name: 'Those before' }));
  await waitFor(() => expect(requests.at(-1)?.path).not.toMatch('offset=200'));
});

it('says that no phrase is like that, and shows all again', async () => {
  showPhrases('/?text=zz', figures(), (method, path) =>
    method === 'GET' && path.includes('text=zz') ? { body: page([], { total: 0, demand: 0 }) } : undefined,
  );
  expect(await screen.findByText('No phrase is like that')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Show all of them' }));
  expect(await screen.findByRole('table', { name: 'Phrases' })).toBeTruthy();
});

it('looks at figures of one source at a time', async () => {
  const { sent } = showPhrases();
  await userEvent.click(await screen.findByRole('combobox', { name: 'Figures of' }));
  await userEvent.click(await screen.findByRole('option', { name: 'Ledger (2)' }));
  await waitFor(() => expect(sent('GET', 'view=Ledger%7C%7C')).not.toHaveLength(0));
});
