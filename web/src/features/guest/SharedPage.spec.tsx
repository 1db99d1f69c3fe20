import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { beforeEach, expect, it, vi } from 'vitest';

import type { Shared } from '../../shared/api';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { SharedPage } from './SharedPage';
import { mixed } from './tests';

const name = (label: string) => ({
  label,
  shown: label,
  starts: [0],
  extension: 'com',
  vote: null,
  comments: [],
  vetted: [],
});
const page = (fields: Partial<Shared> = {}): Shared => ({
  title: 'Which?',
  ends_at: '2027-01-01T00:00:00Z',
  joined: true,
  first_name: 'Ana',
  guest: 5,
  names: ['inkpost', 'goink', 'inkwell'].map(name),
  heard: [],
  recalled: true,
  mine: [],
  ...fields,
});

const said: string[] = [];
beforeEach(() => {
  said.length = 0;
  vi.stubGlobal(
    'SpeechSynthesisUtterance',
    class {
      constructor(readonly text: string) {}
    },
  );
  vi.stubGlobal('speechSynthesis', {
    cancel: () => undefined,
    speak: (spoken: { text: string }) => said.push(spoken.text),
  });
});

function setUp(first: Shared, act: (path: string) => Answer | undefined = () => undefined) {
  let now = first;
  const requests = serve((method, path, body) => {
    const answer = act(path);
    if (answer) return answer;
    if (path.endsWith('/join')) now = page({ first_name: (body as { first_name: string }).first_name });
    if (path.endsWith('/hearing')) return { body: { right: true } };
    if (path.endsWith('/vote')) return { status: 204 };
    return { body: method === 'GET' || path.endsWith('/join') ? now : { id: 9 } };
  });
  renderIn(
    <Routes>
      <Route path="s/:token" element={<SharedPage />} />
    </Routes>,
    '/s/abc',
  );
  return () => requests.filter((a) => a.method === 'POST').map((a) => [a.path.split('/abc/')[1], a.body]);
}

it('asks for no more than a first name, and not for that if one does not like', async () => {
  const sent = setUp(page({ joined: false }));
  await userEvent.type(await screen.findByLabelText('Your first name, if you like'), 'Ana');
  await userEvent.click(screen.getByRole('button', { name: 'Begin' }));
  expect(await screen.findByRole('button', { name: 'To the names' })).toBeInTheDocument();
  expect(sent()).toEqual([['join', { first_name: 'Ana' }]]);
});

it('says a name aloud, and takes what was heard; the names stay hidden meanwhile', async () => {
  const sent = setUp(page());
  await userEvent.click(await screen.findByRole('button', { name: 'Hear and write' }));
  for (let i = 0; i < 3; i += 1) {
    // The next name comes with an empty field, once the answer is taken.
    await waitFor(() => {
      expect(screen.getByLabelText('What you heard')).toHaveValue('');
    });
    await userEvent.click(screen.getByRole('button', { name: 'Hear the name' }));
    expect(screen.queryByText(said[i] ?? '')).not.toBeInTheDocument();
    await userEvent.type(screen.getByLabelText('What you heard'), `heard ${i}`);
    await userEvent.click(screen.getByRole('button', { name: 'Next' }));
    await waitFor(() => {
      expect(sent()).toHaveLength(i + 1);
    });
  }
  expect(sent()).toEqual(said.map((label, i) => ['hearing', { label, typed: `heard ${i}` }]));
  expect(await screen.findByText('Thank you. That was the last one.')).toBeInTheDocument();
});

it('leaves the test out where the browser has no voice', async () => {
  vi.unstubAllGlobals();
  setUp(page());
  await userEvent.click(await screen.findByRole('button', { name: 'Hear and write' }));
  expect(await screen.findByText(/This browser has no voice/)).toBeInTheDocument();
});

it('votes, comments, and puts back a vote that did not arrive', async () => {
  const sent = setUp(page({ heard: ['inkpost'] }));
  await userEvent.click((await screen.findAllByRole('button', { name: 'For' }))[0] as HTMLElement);
  await waitFor(() => {
    expect(sent()).toEqual([['vote', { label: 'inkpost', value: 1 }]]);
  });
  await userEvent.click(screen.getByRole('button', { name: 'Comment on goink' }));
  await userEvent.type(screen.getByLabelText('What you think of goink'), 'Nice');
  await userEvent.click(screen.getByRole('button', { name: 'Say it' }));
  await waitFor(() => {
    expect(sent().at(-1)).toEqual(['comments', { label: 'goink', text: 'Nice' }]);
  });
});

it('says plainly that a link is closed', async () => {
  setUp(page(), () => ({
    status: 409,
    body: { code: 'share_closed', message: 'This link has ended. Ask for another one.', problems: [] },
  }));
  expect(await screen.findByText('This link is closed')).toBeInTheDocument();
  expect(screen.getByText('This link has ended. Ask for another one.')).toBeInTheDocument();
});

it('mixes the same way for the same guest', () => {
  const items = Array.from({ length: 20 }, (_, i) => i);
  expect(mixed(items, 5)).toEqual(mixed(items, 5));
  expect(mixed(items, 5)).not.toEqual(mixed(items, 6));
  expect([...mixed(items, 5)].sort((a, b) => a - b)).toEqual(items);
});
