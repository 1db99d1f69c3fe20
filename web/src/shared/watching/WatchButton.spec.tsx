import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { renderIn, serve } from '../testing/render';
import { dayIn } from './WhyAndUntil';
import { WatchAllButton, WatchButton } from './WatchButton';

const made = { id: 5, title: 'inkpost.com' };
const already = [
  { watch: 4, kind: 'label' as const, extension: 'com', reason: 'ours', ends_on: '2027-03-01', next_at: null },
  { watch: 4, kind: 'label' as const, extension: 'ie', reason: 'ours', ends_on: '2027-03-01', next_at: null },
];
const name = { projectId: 3, shown: 'inkpost', label: 'inkpost', extension: 'com', extensions: ['com', 'ie'] };

const open = async (word: string) => userEvent.click(screen.getByRole('button', { name: word }));
const bodies = (requests: ReturnType<typeof serve>) => requests.filter((r) => r.method === 'POST').map((r) => r.body);

it('watches a full name, the name under extensions, or its running out', async () => {
  const requests = serve(() => ({ status: 201, body: made }));
  renderIn(<WatchButton {...name} />);
  await open('Watch');
  await userEvent.type(screen.getByLabelText('Why'), 'ours');
  await open('Watch it');
  await waitFor(() => expect(screen.queryByRole('dialog')).not.toBeInTheDocument());
  expect(await screen.findByText('“inkpost.com” is watched.')).toBeVisible();
  await open('Watch');
  await open('under extensions');
  await open('Watch it');
  await waitFor(() => expect(screen.queryByRole('dialog')).not.toBeInTheDocument());
  await open('Watch');
  await open('its running out');
  await open('Watch it');
  await waitFor(() => expect(bodies(requests)).toHaveLength(3));
  expect(bodies(requests)).toEqual([
    expect.objectContaining({ kind: 'name', names: ['inkpost.com'], reason: 'ours', ends_on: dayIn(90) }),
    expect.objectContaining({ kind: 'label', names: ['inkpost'], extensions: ['com', 'ie'] }),
    expect.objectContaining({ kind: 'expiry', names: ['inkpost.com'] }),
  ]);
});

it('says that it is watched already, and ends that', async () => {
  const requests = serve(() => ({ body: made }));
  renderIn(<WatchButton {...name} watched={already} />);
  await open('Watched');
  expect(screen.getByRole('list', { name: 'Watched already' })).toHaveTextContent(
    '.com .ie, name, until Mar 1, 2027 · ours',
  );
  await open('End it');
  await waitFor(() => expect(requests.at(-1)).toMatchObject({ method: 'PATCH', body: { ended: true } }));
});

it('shows why something is not watched, at its field or above', async () => {
  const refusal = { code: 'watched', message: 'inkpost.com is watched already.', problems: [] as unknown[] };
  serve(() => ({ status: 409, body: refusal }));
  renderIn(<WatchButton {...name} />);
  await open('Watch');
  await open('Watch it');
  expect(await screen.findByRole('alert')).toHaveTextContent('inkpost.com is watched already.');
});

it('watches a search with its question', async () => {
  const requests = serve(() => ({ status: 201, body: made }));
  renderIn(
    <WatchAllButton projectId={3} word="Watch this search" wish={{ kind: 'hunt', question: { kinds: 'auction' } }} />,
  );
  await open('Watch this search');
  await userEvent.type(screen.getByLabelText('What it is called'), 'auctions');
  await open('Watch it');
  await waitFor(() =>
    expect(bodies(requests)).toEqual([
      expect.objectContaining({ kind: 'hunt', title: 'auctions', question: { kinds: 'auction' } }),
    ]),
  );
});

it('watches many names as one', async () => {
  const requests = serve(() => ({ status: 201, body: made }));
  const names = ['inkpost.com', 'paperbarn.ie'];
  renderIn(<WatchAllButton projectId={3} word="Watch all" wish={{ kind: 'name', names }} />);
  await open('Watch all');
  expect(screen.getByRole('dialog')).toHaveTextContent('2 full names');
  await open('Watch it');
  await waitFor(() => expect(bodies(requests)).toEqual([expect.objectContaining({ kind: 'name', names })]));
});
