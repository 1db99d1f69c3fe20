import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, expect, it } from 'vitest';

import { setHistory } from '../shared/lib/acts';
import { ProjectContext } from '../shared/lib/projectContext';
import { renderIn, serve } from '../shared/testing/render';
import { sampleCell, sampleJudged, sampleProject } from '../shared/testing/samples';
import { ReadingPage } from './ReadingPage';

beforeEach(() => {
  localStorage.clear();
  setHistory(7, { past: [], future: [] });
});

function setUp(labels = ['inkpost', 'inkwell', 'inkclub'], address = '/') {
  const requests = serve((method, path, body) => {
    if (path.includes('/names/labels')) return { body: { labels } };
    if (method === 'POST') return { status: 200, body: { labels: (body as { labels: string[] }).labels } };
    const label = path.split('/names/')[1] ?? '';
    return {
      body: sampleJudged({
        label,
        verdict: label === 'inkwell' ? 'seen' : '',
        cells: [sampleCell({ extension: 'com', label })],
      }),
    };
  });
  const view = renderIn(
    <ProjectContext value={sampleProject()}>
      <ReadingPage />
    </ProjectContext>,
    address,
  );
  return {
    ...view,
    sent: () => requests.filter((a) => a.method === 'POST').map((a) => [a.path.split('/7/')[1], a.body]),
  };
}
const heading = (name: string) => screen.findByRole('heading', { name: new RegExp(`^${name}\\s?\\.com$`) });

it('shows one name at a time; a key judges it and the next comes', async () => {
  const { sent } = setUp();
  await heading('inkpost');
  await userEvent.keyboard('t');
  await heading('inkwell');
  await userEvent.keyboard('x');
  await heading('inkclub');
  await userEvent.keyboard('l');
  expect(await screen.findByText('That was the last of them')).toBeInTheDocument();
  await waitFor(() => {
    expect(sent()).toEqual([
      ['shortlist', { labels: ['inkpost'] }],
      ['dismissed', { labels: ['inkwell'] }],
      ['looks', { labels: ['inkclub'], verdict: 'later' }],
    ]);
  });
  expect(screen.getByRole('status')).toHaveTextContent('done · 1 kept · 1 later · 1 dropped');
});

it('takes the last verdict back and returns to its name', async () => {
  const { sent } = setUp();
  await heading('inkpost');
  await userEvent.keyboard('x');
  await heading('inkwell');
  await userEvent.keyboard('u');
  await heading('inkpost');
  await waitFor(() => {
    expect(sent().at(-1)).toEqual(['dismissed/back', { labels: ['inkpost'] }]);
  });
});

it('passes on, folds reasons away until asked, and remembers where one was', async () => {
  const { unmount, sent } = setUp();
  await heading('inkpost');
  expect(screen.queryByText(/made by pair/)).not.toBeInTheDocument();
  await userEvent.keyboard('w');
  expect(await screen.findByText(/made by pair/)).toBeInTheDocument();
  await userEvent.keyboard('{ArrowRight}');
  await heading('inkwell');
  await userEvent.keyboard('{ArrowRight}');
  await heading('inkclub');
  expect(sent()).toEqual([['looks', { labels: ['inkpost'], verdict: 'seen' }]]);
  unmount();
  setUp();
  await heading('inkclub');
});

it('goes through the filtered names, and says when there are none', async () => {
  setUp([], '/?mark=later');
  expect(await screen.findByText('No name to read')).toBeInTheDocument();
});
