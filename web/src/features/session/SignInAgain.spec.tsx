import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import { keys } from '../../shared/api';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { SignInAgain } from './SignInAgain';

const session = { person: { username: 'edda' }, demo: true };

function show(username: string, answer: Answer = { body: session }) {
  const requests = serve(() => answer);
  const onLeave = vi.fn();
  const { client } = renderIn(<SignInAgain username={username} asDemo={username === 'demo'} onLeave={onLeave} />);
  client.setQueryData(keys.shortlist(7), ['kept']);
  return { sent: () => requests.filter((a) => a.method === 'POST'), onLeave, client };
}

it('goes on as the same person, with everything on the page still there', async () => {
  const { sent, client } = show('edda');
  await userEvent.type(screen.getByLabelText('Password'), 'quiet-ink-post{Enter}');
  await waitFor(() => {
    expect(sent().map((a) => a.body)).toEqual([{ username: 'edda', password: 'quiet-ink-post' }]);
  });
  expect(client.getQueryData(keys.session)).toEqual(session);
  expect(client.getQueryData(keys.shortlist(7))).toEqual(['kept']);
});

it('says when the password is wrong, and keeps asking', async () => {
  const problems = [{ path: 'password', code: 'no_match', message: 'That name and password do not belong together.' }];
  show('edda', { status: 400, body: { code: 'problems', message: 'Look again.', problems } });
  await userEvent.type(screen.getByLabelText('Password'), 'wrong{Enter}');
  expect(await screen.findByText('That name and password do not belong together.')).toBeInTheDocument();
  expect(screen.getByRole('dialog', { name: 'Your session has ended' })).toBeInTheDocument();
});

it('asks no password of the demo workspace, and lets one leave', async () => {
  const { sent, onLeave } = show('demo');
  expect(screen.queryByLabelText('Password')).not.toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Go on' }));
  await waitFor(() => {
    expect(sent().map((a) => a.path)).toEqual(['/api/session/demo']);
  });
  await userEvent.click(screen.getByRole('button', { name: 'Leave the page' }));
  expect(onLeave).toHaveBeenCalled();
});
