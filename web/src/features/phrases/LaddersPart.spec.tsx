import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { figures, ladders } from '../../shared/testing/phrases';
import { showPhrases } from './testing';

it('shows the first open form of each chosen phrase, and checks them', async () => {
  const { sent } = showPhrases('/?part=names');
  const table = await screen.findByRole('table', { name: 'Phrases as names' });
  const [, first, second] = within(table).getAllByRole('row');
  expect(first?.textContent).toMatch('pianotuning.netas it is, next extensions74');
  expect(second?.textContent).toMatch('none known; 9 not asked');
  await userEvent.click(screen.getByRole('button', { name: 'Check the forms' }));
  expect(sent('POST', '/names/check')).toHaveLength(1);
});

it('opens the forms of a phrase, and takes it off', async () => {
  const { sent } = showPhrases('/?part=names');
  await userEvent.click(await screen.findByRole('button', { name: 'piano tuning' }));
  expect(screen.getByText('pianotuning.net', { exact: false, selector: 'span' })).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Take off the chosen' }));
  expect(sent('POST', '/chosen')[0]?.body).toEqual({ phrases: ['piano tuning'], chosen: false });
  await userEvent.click(await screen.findByRole('button', { name: 'Undo' }));
  expect(sent('POST', '/chosen')[1]?.body).toEqual({ phrases: ['piano tuning'], chosen: true });
});

it('says what to do where no phrase is chosen, and why a phrase has no name', async () => {
  let lines = ladders.lines.map((one) => ({ ...one, best: null, problem: 'long' }));
  showPhrases('/?part=names', figures(), (_, path) =>
    path.includes('/names') ? { body: { ...ladders, lines } } : undefined,
  );
  expect(await screen.findAllByText('longer than a name can be (63 letters)')).toHaveLength(2);
  lines = [];
  cleanup();
  showPhrases('/?part=names', figures({ chosen: 0 }), (_, path) =>
    path.includes('/names') ? { body: { ...ladders, lines } } : undefined,
  );
  expect(await screen.findByText('No phrase is chosen yet')).toBeTruthy();
});
