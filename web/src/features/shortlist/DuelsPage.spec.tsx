import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import type { Ranking } from '../../shared/api';
import { ProjectContext } from '../../shared/lib/projectContext';
import { renderIn, serve } from '../../shared/testing/render';
import { sampleKept, sampleProject } from '../../shared/testing/samples';
import { ComparePage } from './ComparePage';
import { DuelsPage } from './DuelsPage';

const standing = (label: string, strength: number) => ({
  label,
  shown: label,
  strength,
  error: 0.5,
  best: 0.5,
  wins: 1,
  duels: 2,
});
const ranking = (fields: Partial<Ranking> = {}): Ranking => ({
  standings: [standing('inkpost', 1), standing('goink', -1)],
  pair: ['inkpost', 'goink'],
  certainty: 0.62,
  enough: false,
  asked: 3,
  ...fields,
});

function setUp(first: Ranking) {
  let { asked } = first;
  const requests = serve((method, path) => {
    if (path.endsWith('/shortlist'))
      return { body: [sampleKept({ label: 'inkpost' }), sampleKept({ label: 'goink' })] };
    if (path.endsWith('/order')) return { status: 204 };
    if (method !== 'GET') asked += 1;
    return { body: method === 'GET' ? first : ranking({ asked }) };
  });
  renderIn(
    <ProjectContext value={sampleProject()}>
      <DuelsPage />
    </ProjectContext>,
  );
  return () => requests.filter((a) => a.method === 'POST').map((a) => [a.path.split('/7/')[1], a.body]);
}

it('asks which is better, by button and by key, and counts a tie', async () => {
  const sent = setUp(ranking());
  const pair = await screen.findByRole('group', { name: 'Which is better?' });
  expect(screen.getByRole('status')).toHaveTextContent('3 answers so far · the first is the best with 62 % certainty');
  await userEvent.click(within(pair).getByRole('button', { name: /goink/ }));
  // While an answer is under way no key is heard.
  const after = (answers: number) =>
    waitFor(() => {
      expect(screen.getByRole('status')).toHaveTextContent(`${answers} answers`);
      expect(screen.getByRole('button', { name: /^Neither/ })).toBeEnabled();
    });
  await after(4);
  await userEvent.keyboard('{ArrowLeft}');
  await after(5);
  await userEvent.keyboard('{ArrowDown}');
  await after(6);
  await userEvent.keyboard('u');
  await waitFor(() => {
    expect(sent()).toEqual([
      ['duels', { winner: 'goink', loser: 'inkpost', tie: false }],
      ['duels', { winner: 'inkpost', loser: 'goink', tie: false }],
      ['duels', { winner: 'inkpost', loser: 'goink', tie: true }],
      ['duels/back', undefined],
    ]);
  });
});

it('says when enough was asked, and puts the shortlist in that order', async () => {
  const sent = setUp(ranking({ enough: true, certainty: 0.93 }));
  expect(await screen.findByText(/Enough has been asked: inkpost is the best, as surely as 93 %/)).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Put the shortlist in this order' }));
  await waitFor(() => {
    expect(sent()).toEqual([['duels/order', undefined]]);
  });
  expect(await screen.findByText('The shortlist stands in this order now.')).toBeInTheDocument();
});

it('needs two names, and so does comparing', async () => {
  setUp(ranking({ pair: [], standings: [] }));
  expect(await screen.findByText('Two names are needed')).toBeInTheDocument();
  renderIn(
    <ProjectContext value={sampleProject()}>
      <ComparePage />
    </ProjectContext>,
    '/?names=inkpost',
  );
  expect(await screen.findByText('Choose two to six names')).toBeInTheDocument();
});
