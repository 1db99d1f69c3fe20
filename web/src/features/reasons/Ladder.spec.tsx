import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import type { Rung } from '../../shared/api';
import { renderIn, serve } from '../../shared/testing/render';
import { bestOpen, Ladder } from './Ladder';

const rung = (kind: string, ...names: [string, string][]): Rung => ({
  kind,
  title: kind,
  names: names.map(([full_name, status]) => ({
    full_name,
    label: full_name.split('.')[0] ?? '',
    extension: 'com',
    status,
    likely: false,
    asked_at: null,
  })),
});

it.each([
  [[rung('a', ['ink.com', 'taken']), rung('b', ['ink.net', 'open'])], 'ink.net', true],
  [[rung('a', ['ink.com', 'taken']), rung('b', ['ink.net', 'premium'])], null, true],
  [[rung('a', ['ink.com', '']), rung('b', ['ink.net', 'open'])], 'ink.net', false],
  [[rung('a', ['ink.com', 'unsure']), rung('b', ['ink.net', 'taken'])], null, false],
])('is settled only when every rung above is known', (rungs, name, settled) => {
  expect(bestOpen(rungs)).toEqual({ name, settled });
});

it('shows the first open form, asks about all of them, and lets the order be changed', async () => {
  serve(() => ({
    body: [rung('exact_first', ['inkpost.com', 'taken']), rung('exact_next', ['inkpost.net', 'open'])],
  }));
  const acts = { onOrder: vi.fn(), onBegin: vi.fn(), onSelect: vi.fn() };
  renderIn(<Ladder projectId={7} label="inkpost" order={['exact_first', 'exact_next']} checking={false} {...acts} />);
  expect(await screen.findByText(/First open/)).toHaveTextContent('inkpost.net');
  await userEvent.click(screen.getByRole('button', { name: 'Check them' }));
  expect(acts.onBegin).toHaveBeenCalledWith({
    what: 'full_names',
    full_names: ['inkpost.com', 'inkpost.net'],
  });
  await userEvent.click(screen.getByRole('button', { name: 'Sooner: exact_next' }));
  expect(acts.onOrder).toHaveBeenCalledWith(['exact_next', 'exact_first']);
  expect(screen.getByRole('button', { name: 'Sooner: exact_first' })).toBeDisabled();
});
