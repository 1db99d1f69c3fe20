import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import type { ListPage as Page } from '../shared/api';
import { ProjectContext } from '../shared/lib/projectContext';
import { type Answer, renderIn, serve } from '../shared/testing/render';
import { sampleCell, sampleCheck, sampleProject } from '../shared/testing/samples';
import { ListPage } from './ListPage';

const project = sampleProject();
const cells = [
  sampleCell({ extension: 'com' }),
  sampleCell({ extension: 'net', status: 'unsure', reason: 'No answer in time.' }),
];
const page = (fields: Partial<Page> = {}): Page => ({
  rows: [{ label: 'inkpost', shown: 'inkpost', extensions: ['com', 'net'], cells }],
  total: 1,
  names: 1,
  full_names: 2,
  extensions: [],
  statuses: { open: 1, unsure: 1 },
  ...fields,
});

function setUp(list: Page, act: (method: string, path: string) => Answer | undefined = () => undefined) {
  const requests = serve((method, path) => {
    const answer = act(method, path);
    if (answer) return answer;
    if (path.startsWith('/api/projects/7/pasted')) return { body: list };
    if (path.startsWith('/api/projects/7/checks'))
      return {
        body: method === 'GET' ? { check_run: null, cells: [], number: 0, more: false } : sampleCheck(),
      };
    return { body: { extensions: ['com', 'net'], recipes: [], groups: {}, sources: [] } };
  });
  renderIn(
    <ProjectContext value={project}>
      <ListPage />
    </ProjectContext>,
  );
  return requests;
}

it('says what to do while nothing is pasted', async () => {
  setUp(page({ rows: [], total: 0, names: 0, full_names: 0, statuses: {} }));
  expect(await screen.findByText('No names pasted yet')).toBeInTheDocument();
});

it('counts the full names by status, and narrows by one', async () => {
  const requests = setUp(page());
  expect(await screen.findByRole('grid', { name: 'Pasted names' })).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'unsure 1' }));
  await vi.waitFor(() => {
    expect(requests.at(-1)?.path).toContain('status=unsure');
  });
});

it('pastes and begins to check what was taken', async () => {
  const report = { lines: 1, names: 1, full_names: 1, merged: 0, bad: [], bad_count: 0, left_out: 0 };
  const requests = setUp(page(), (method, path) =>
    method === 'PUT' && path.endsWith('/pasted') ? { status: 201, body: report } : undefined,
  );
  await userEvent.type(await screen.findByRole('textbox', { name: 'Names or full names' }), 'inkpost.com');
  await userEvent.click(screen.getByRole('button', { name: 'Take and check' }));
  expect(await screen.findByText(/1 name, 1 full name/)).toBeInTheDocument();
  const begun = requests.find((a) => a.method === 'POST' && a.path.endsWith('/checks'));
  expect(begun?.body).toMatchObject({ what: 'pasted', again: 'stale' });
});

it('asks again only what is unsure of the list', async () => {
  const requests = setUp(page());
  await userEvent.click(await screen.findByRole('button', { name: 'What else to check' }));
  expect(screen.getByText('Ask again, of the list')).toBeInTheDocument();
  await userEvent.click(screen.getByRole('menuitem', { name: 'only what is unsure' }));
  await vi.waitFor(() => {
    expect(requests.find((a) => a.method === 'POST')?.body).toMatchObject({ what: 'pasted', again: 'unsure' });
  });
});

it('says so when the list cannot be loaded', async () => {
  setUp(page(), (_method, path) =>
    path.startsWith('/api/projects/7/pasted')
      ? { status: 500, body: { code: 'server', message: 'Something broke.' } }
      : undefined,
  );
  expect(await screen.findByText('The list could not be loaded')).toBeInTheDocument();
  expect(screen.getByRole('button', { name: 'Try again' })).toBeInTheDocument();
});
