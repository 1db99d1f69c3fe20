import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { figures } from '../../shared/testing/phrases';
import { showPhrases } from './testing';

it('opens a phrase up, sets one apart, and undoes it', async () => {
  const { sent } = showPhrases();
  await userEvent.click(await screen.findByRole('button', { name: 'piano tuning' }));
  const about = await screen.findByRole('complementary', { name: 'About the phrase' });
  expect(await within(about).findByText(/Ledger: 90/)).toBeTruthy();
  expect(about.textContent).toMatch('tuning piano in another order');
  await userEvent.click(within(about).getByRole('button', { name: 'Set tuning piano apart' }));
  expect(sent('POST', '/apart')[0]?.body).toEqual({ phrases: ['tuning piano'], on: true });
  await userEvent.click(await screen.findByRole('button', { name: 'Undo' }));
  expect(sent('POST', '/apart')[1]?.body).toEqual({ phrases: ['tuning piano'], on: false });
});

it('puts a phrase aside, asks for its companions, and opens one', async () => {
  const { sent } = showPhrases('/', figures(), (method, path) =>
    method === 'POST' && path.endsWith('/asked')
      ? { body: { taken: 7, unknown: 0, passed: 0, source: 'Lamp', why: '' } }
      : undefined,
  );
  await userEvent.click(await screen.findByRole('button', { name: 'piano tuning' }));
  const about = await screen.findByRole('complementary', { name: 'About the phrase' });
  await userEvent.click(await within(about).findByRole('button', { name: 'Ask the service for more' }));
  expect(sent('POST', '/asked')[0]?.body).toMatchObject({ phrases: ['piano tuning'], companions: true, country: 'IE' });
  expect(await screen.findByText('7 phrases go with it.')).toBeTruthy();
  await userEvent.click(within(about).getByRole('button', { name: 'piano tuner' }));
  await waitFor(() => expect(sent('GET', '/one/piano%20tuner')).not.toHaveLength(0));
  await userEvent.click(within(about).getByRole('button', { name: 'Put aside' }));
  expect(sent('POST', '/aside')[0]?.body).toEqual({ phrases: ['piano tuning'], on: true });
  await waitFor(() => expect(screen.queryByRole('complementary')).toBeNull());
  await userEvent.click(await screen.findByRole('button', { name: 'Undo' }));
  expect(sent('POST', '/aside')[1]?.body).toEqual({ phrases: ['piano tuning'], on: false });
});
