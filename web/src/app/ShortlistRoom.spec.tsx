import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { ProjectContext } from '../shared/lib/projectContext';
import { renderIn, serve } from '../shared/testing/render';
import { sampleBrief, sampleCheck, sampleKept, sampleProject } from '../shared/testing/samples';
import { ShortlistRoom } from './ShortlistRoom';

it('asks about every kept name as before buying, full names under their own extension too', async () => {
  const requests = serve((method, path) => {
    if (path.endsWith('/shortlist'))
      return {
        body: [sampleKept({ label: 'inkpost', extension: 'club' }), sampleKept({ label: 'goink', extension: 'com' })],
      };
    if (method === 'POST') return { status: 201, body: sampleCheck({ done: 0, total: 5 }) };
    return { body: { check_run: null, cells: [], number: 0, more: false } };
  });
  const project = sampleProject({ brief: sampleBrief({ extensions: ['com', 'net'] }) });
  renderIn(
    <ProjectContext value={project}>
      <ShortlistRoom />
    </ProjectContext>,
  );
  await userEvent.click(await screen.findByRole('button', { name: 'Ask as before buying' }));
  await waitFor(() => {
    expect(requests.find((a) => a.method === 'POST')?.body).toMatchObject({
      what: 'full_names',
      aim: 'buying',
      again: 'all',
      full_names: ['inkpost.com', 'inkpost.net', 'inkpost.club', 'goink.com', 'goink.net'],
    });
  });
  expect(await screen.findByRole('progressbar', { name: 'Names checked' })).toBeInTheDocument();
});
