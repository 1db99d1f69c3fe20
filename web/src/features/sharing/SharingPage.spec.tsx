import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import type { Share } from '../../shared/api';
import { ProjectContext } from '../../shared/lib/projectContext';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { sampleKept, sampleProject } from '../../shared/testing/samples';
import { SharingPage } from './SharingPage';

const share = (fields: Partial<Share> = {}): Share => ({
  id: 3,
  token: 'abc',
  title: 'Which?',
  labels: ['inkpost'],
  vetted: false,
  ends_at: '2027-01-01T00:00:00Z',
  created_at: '',
  state: 'open',
  people: 2,
  ...fields,
});

function setUp(shares: Share[], act: (method: string, path: string) => Answer | undefined = () => undefined) {
  const requests = serve((method, path) => {
    const answer = act(method, path);
    if (answer) return answer;
    if (path.endsWith('/shortlist'))
      return { body: [sampleKept({ label: 'inkpost' }), sampleKept({ label: 'goink' })] };
    if (path.endsWith('/shares/3')) {
      const outcome = {
        spelling: 61,
        liked: 0,
        disliked: 0,
        neutral: 0,
        heard: 0,
        right: 0,
        shown: 0,
        remembered: 0,
        wrong: {},
        comments: [],
      };
      return {
        body: {
          share: shares[0],
          people: 2,
          outcomes: [
            { ...outcome, label: 'goink', shown_as: 'goink' },
            {
              ...outcome,
              label: 'inkpost',
              shown_as: 'inkpost',
              liked: 2,
              heard: 2,
              right: 1,
              wrong: { incpost: 1 },
              comments: [{ id: 1, label: 'inkpost', text: 'Nice', first_name: '', said_at: new Date().toISOString() }],
            },
          ],
        },
      };
    }
    return { body: method === 'GET' ? shares : share({ state: 'revoked' }) };
  });
  renderIn(
    <ProjectContext value={sampleProject()}>
      <SharingPage />
    </ProjectContext>,
  );
  return requests;
}

it('makes a link for the names ticked, with an end', async () => {
  const requests = setUp([]);
  await userEvent.click(await screen.findByRole('checkbox', { name: 'goink' }));
  expect(screen.getByText('1 name of 2 shown to them')).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Make the link' }));
  await waitFor(() => {
    expect(requests.find((a) => a.method === 'POST')?.body).toMatchObject({
      title: 'Names for Pressroom',
      labels: ['inkpost'],
      vetted: false,
    });
  });
});

it('tells what is wrong with a link at its field, and keeps what was typed', async () => {
  const problems = [
    { path: 'ends_at', code: 'share_end', message: 'Choose an end in the future.' },
    { path: 'title', code: 'blank', message: 'Write something here.' },
  ];
  setUp([], (method) =>
    method === 'POST' ? { status: 400, body: { code: 'problems', message: 'Look again.', problems } } : undefined,
  );
  await userEvent.clear(await screen.findByLabelText('What people see above the names'));
  await userEvent.click(screen.getByRole('button', { name: 'Make the link' }));
  expect(await screen.findByText('Choose an end in the future.')).toBeInTheDocument();
  expect(screen.getByText('Write something here.')).toBeInTheDocument();
});

it('shows the answers, the best liked first, beside the computed spelling', async () => {
  setUp([share()]);
  await userEvent.click(await screen.findByRole('button', { name: 'See the answers' }));
  const rows = (await screen.findAllByRole('row')).map((row) => row.textContent);
  expect(rows[1]).toContain('inkpost“Nice” someone');
  expect(rows[1]).toContain('50 % of 2wrote incpost61');
  expect(rows[2]).toContain('nobody yet');
});

it('copies a link, closes it, and deletes it only when one is sure', async () => {
  const written = vi.fn().mockResolvedValue(undefined);
  const requests = setUp([share()]);
  const user = userEvent.setup();
  vi.spyOn(navigator.clipboard, 'writeText').mockImplementation(written);
  await user.click(await screen.findByRole('button', { name: 'Copy the link' }));
  expect(written).toHaveBeenCalledWith(`${window.location.origin}/s/abc`);
  await user.click(screen.getByRole('button', { name: 'Close the link' }));
  await waitFor(() => {
    expect(requests.find((a) => a.method === 'PATCH')?.body).toEqual({ revoked: true });
  });
  await user.click(screen.getByRole('button', { name: 'Delete' }));
  expect(requests.some((a) => a.method === 'DELETE')).toBe(false);
  await user.click(screen.getByRole('button', { name: 'Delete it with all answers' }));
  await waitFor(() => {
    expect(requests.some((a) => a.method === 'DELETE')).toBe(true);
  });
});
