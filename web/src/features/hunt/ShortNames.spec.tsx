import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import type { ShortPage } from '../../shared/api';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { sampleCell, sampleCosts } from '../../shared/testing/samples';
import { ShortNames } from './ShortNames';

const page: ShortPage = {
  matching: 2_205,
  total: 120,
  extensions: [
    { extension: 'com', day: '2026-11-28', free: 119, costs: sampleCosts() },
    { extension: 'net', day: null, free: null, costs: sampleCosts() },
  ],
  rows: [
    { label: 'bab', had: { com: false, net: null }, cells: [] },
    { label: 'bac', had: { com: true, net: null }, cells: [sampleCell({ label: 'bac', extension: 'net' })] },
  ],
};

function open(answer: Answer = { body: page }, checking = false, address = '/short') {
  const all = serve((_, path) =>
    path.includes('/short')
      ? answer
      : path.includes('/prices')
        ? { body: { currency: 'EUR', prices: [] } }
        : { body: [] },
  );
  const asked = () => all.filter(({ path }) => path.includes('/short')).at(-1)?.path ?? '';
  const [onCheck, onKeep] = [vi.fn(), vi.fn()];
  renderIn(
    <ShortNames
      projectId={7}
      own={['com', 'net']}
      offered={['press']}
      checking={checking}
      onCheck={onCheck}
      onKeep={onKeep}
    />,
    address,
  );
  return { asked, onCheck, onKeep };
}

it('tells a name that was not there from one nobody knows of, and an answer goes before both', async () => {
  open();
  const table = await screen.findByRole('table', { name: 'Short names' });
  const [, bab, bac] = within(table).getAllByRole('row');
  expect(bab).toHaveTextContent('not there then');
  expect(bab).toHaveTextContent('no zone file');
  expect(bac).toHaveTextContent('taken');
  expect(bac).toHaveTextContent('open');
  expect(screen.getByRole('status')).toHaveTextContent('120 of 2,205 names');
  expect(screen.getByRole('status')).toHaveTextContent('.com: 119 not there on Nov 28, 2026');
});

it('asks about those in view that no zone file had, and keeps one', async () => {
  const { onCheck, onKeep } = open();
  await userEvent.click(await screen.findByRole('button', { name: 'Ask about those in view' }));
  expect(onCheck).toHaveBeenCalledWith(['bab.com', 'bab.net', 'bac.net']);
  await userEvent.click(screen.getByRole('button', { name: 'Keep bab' }));
  expect(onKeep).toHaveBeenCalledWith('bab');
});

it('asks by shape, letters and extensions, and page by page', async () => {
  const { asked } = open();
  await screen.findByRole('table', { name: 'Short names' });
  await userEvent.click(screen.getByRole('button', { name: 'Those after' }));
  await waitFor(() => {
    expect(asked()).toContain('offset=60');
  });
  await userEvent.type(screen.getByRole('textbox', { name: 'Only these letters' }), 'abel');
  await userEvent.type(screen.getByRole('textbox', { name: 'Initials, or words' }), 'blue lane');
  await userEvent.click(screen.getByRole('button', { name: '.press' }));
  await userEvent.click(screen.getByRole('checkbox', { name: 'that can be said' }));
  await waitFor(() => {
    for (const part of ['letters=abel', 'initials=blue%20lane', 'extensions=com%2Cnet%2Cpress', 'sayable=true'])
      expect(asked()).toContain(part);
    expect(asked()).not.toContain('offset');
  });
});

it('says what is wrong with a shape', async () => {
  const problems = [{ path: 'shape', code: 'short_shape', args: {}, message: '“CVCVCV” is none.' }];
  open({ status: 400, body: { code: 'problems', message: 'no', problems } }, false, '/short?shape=CVCVCV');
  expect(await screen.findByText('“CVCVCV” is none.')).toBeVisible();
});

it('says when nothing is left, and waits while it asks', async () => {
  open({ body: { ...page, total: 0, rows: [] } }, true);
  expect(await screen.findByText('No name of this shape is left')).toBeVisible();
  expect(screen.getByRole('button', { name: 'Asking …' })).toBeDisabled();
});
