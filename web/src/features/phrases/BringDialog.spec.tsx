import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { figures } from '../../shared/testing/phrases';
import { showPhrases } from './testing';

it('puts columns right before a table is brought', async () => {
  const { sent } = showPhrases();
  await userEvent.click(await screen.findByRole('button', { name: 'Bring phrases' }));
  await userEvent.upload(
    screen.getByLabelText('A table of phrases'),
    new File(['1'], 'almanac.csv', { type: 'text/csv' }),
  );
  expect(await screen.findByText(/UTF-16, the heading in line 3/)).toBeTruthy();
  await userEvent.click(screen.getByRole('combobox', { name: 'What column 3 holds' }));
  await userEvent.click(await screen.findByRole('option', { name: 'country' }));
  expect(screen.getByLabelText<HTMLInputElement>('Where the figures are from').value).toBe('almanac');
  await userEvent.click(screen.getByRole('button', { name: 'Bring the figures' }));
  await waitFor(() => expect(sent('POST', 'columns=phrase%2Csearches%2Ccountry')).toHaveLength(1));
  expect(sent('POST', 'source=almanac')).toHaveLength(1);
});

it('tells what is wrong where it is, and keeps what was typed', async () => {
  showPhrases('/', figures({ phrases: 0, files: [], views: [], usual: '' }), (method, path) =>
    method === 'POST' && path.endsWith('/typed')
      ? {
          status: 400,
          body: {
            code: 'problems',
            message: 'No.',
            problems: [{ path: 'line 2', code: 'x', args: {}, message: 'No letters.' }],
          },
        }
      : undefined,
  );
  expect(await screen.findByText('No phrase is here yet')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Bring phrases' }));
  await userEvent.click(screen.getByRole('tab', { name: 'Typed' }));
  const field = screen.getByLabelText('Phrases, a line each');
  await userEvent.type(field, 'piano{enter}!!');
  await userEvent.click(screen.getByRole('button', { name: 'Add the phrases' }));
  expect((await screen.findByRole('alert')).textContent).toMatch('line 2: No letters.');
  expect((field as HTMLTextAreaElement).value).toBe('piano\n!!');
});

it('asks a service for figures, and says what it did not answer', async () => {
  let why = 'it failed';
  const { sent } = showPhrases('/', figures(), (method, path) =>
    method === 'POST' && path.endsWith('/asked')
      ? { body: { taken: 2, unknown: 1, passed: 0, source: 'Lamp', why } }
      : undefined,
  );
  await userEvent.click(await screen.findByRole('button', { name: 'Bring phrases' }));
  await userEvent.click(screen.getByRole('tab', { name: 'Ask a service' }));
  const field = screen.getByLabelText('Phrases, a line each');
  await userEvent.clear(field);
  await userEvent.type(field, ' piano tuning {enter}{enter}harp');
  await userEvent.type(screen.getByLabelText('Country'), 'ie');
  await userEvent.click(screen.getByRole('button', { name: 'Ask for figures' }));
  expect(sent('POST', '/asked')[0]?.body).toEqual({
    phrases: ['piano tuning', 'harp'],
    country: 'IE',
    language: '',
    companions: false,
  });
  expect(await screen.findByText('The service did not answer all: it failed. 2 figures taken.')).toBeTruthy();
  // What was typed is still there to be asked again.
  expect(screen.getByRole('dialog')).toBeTruthy();
  why = '';
  await userEvent.click(screen.getByRole('button', { name: 'Ask for figures' }));
  expect(await screen.findByText('Lamp: 2 phrases, 1 of them unknown.')).toBeTruthy();
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
});

it('offers no service where there is none', async () => {
  showPhrases('/', figures({ service: false }));
  await userEvent.click(await screen.findByRole('button', { name: 'piano tuning' }));
  await screen.findByRole('list', { name: 'Companions' });
  expect(screen.queryByRole('button', { name: 'Ask the service for more' })).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: 'Bring phrases' }));
  expect(screen.queryByRole('tab', { name: 'Ask a service' })).toBeNull();
});

it('looks at what was pasted, and tells where it is wrong', async () => {
  showPhrases('/', figures(), (method, path) =>
    method === 'POST' && path.includes('/figures?')
      ? {
          status: 400,
          body: {
            code: 'problems',
            message: 'No.',
            problems: [{ path: 'country', code: 'x', args: {}, message: 'No such country.' }],
          },
        }
      : undefined,
  );
  await userEvent.click(await screen.findByRole('button', { name: 'Bring phrases' }));
  const bring = screen.getByRole<HTMLButtonElement>('button', { name: 'Bring the figures' });
  expect(bring.disabled).toBe(true);
  await userEvent.type(screen.getByLabelText('or paste it here'), '1');
  await userEvent.click(screen.getByRole('button', { name: 'Look at it' }));
  await screen.findByRole('table', { name: 'The first lines' });
  // Without a word of where they are from, nobody knows what may be added.
  expect(bring.disabled).toBe(true);
  await userEvent.type(screen.getByLabelText('Where the figures are from'), 'Ledger');
  await userEvent.clear(screen.getByLabelText('Country'));
  await userEvent.type(screen.getByLabelText('Country'), 'zz');
  await userEvent.click(bring);
  expect(await screen.findByText('No such country.')).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>('Country').value).toBe('zz');
});
