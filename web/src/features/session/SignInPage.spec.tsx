import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { renderIn, serve } from '../../shared/testing/render';
import { SignInPage } from './SignInPage';

it('signs up and tells each problem at its field', async () => {
  const problems = [
    { path: 'username', code: 'username_taken', message: 'That name is taken.' },
    { path: 'password', code: 'password', message: 'Too short.' },
  ];
  const requests = serve((method) =>
    method === 'POST'
      ? { status: 400, body: { code: 'problems', message: 'Look again.', problems } }
      : { body: { person: null, demo: false } },
  );
  renderIn(<SignInPage />);
  await userEvent.click(screen.getByRole('button', { name: 'Make an account' }));
  await userEvent.type(screen.getByLabelText('Name'), 'edda');
  await userEvent.type(screen.getByLabelText('Password'), 'x');
  await userEvent.click(screen.getByRole('button', { name: 'Make the account' }));
  expect(await screen.findByText('That name is taken.')).toBeInTheDocument();
  expect(screen.getByText('Too short.')).toBeInTheDocument();
  expect(screen.getByLabelText('Name')).toHaveValue('edda');
  expect(requests.find((a) => a.method === 'POST')).toMatchObject({
    path: '/api/session/sign-up',
    body: { username: 'edda', password: 'x' },
  });
  expect(screen.queryByRole('button', { name: /demo/ })).not.toBeInTheDocument();
});

it('enters the demo workspace where there is one', async () => {
  const requests = serve((method) => ({
    body: { person: method === 'POST' ? { username: 'demo' } : null, demo: true },
  }));
  renderIn(<SignInPage />);
  await userEvent.click(await screen.findByRole('button', { name: 'Enter the demo workspace' }));
  await waitFor(() => {
    expect(requests.map((a) => a.path)).toContain('/api/session/demo');
  });
});
