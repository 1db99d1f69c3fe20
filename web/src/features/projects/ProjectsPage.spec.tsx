import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import type { Overview } from '../../shared/api';
import { sampleProject } from '../../shared/testing/samples';
import { renderIn, serve } from '../../shared/testing/render';
import { freshBrief } from './useProjects';
import { ProjectsPage } from './ProjectsPage';

const project = {
  ...sampleProject({ brief: freshBrief('Pressroom', '', ['ink']), considered: 9 }),
  changed_at: new Date().toISOString(),
};
const standing = (fields: Partial<Overview> = {}): Overview => ({
  project,
  listed: 2000,
  good: 1234,
  kept: 3,
  open: 12,
  asked: 600,
  stale: 40,
  checking: false,
  vetting: false,
  ...fields,
});
const menu = async (item: string) => {
  await userEvent.click(await screen.findByRole('button', { name: 'What to do with Pressroom' }));
  await userEvent.click(screen.getByRole('menuitem', { name: item }));
};

it('shows where each project stands, and undoes a removal', async () => {
  let there = true;
  const requests = serve((method, path) => {
    if (method === 'DELETE') there = false;
    if (path.endsWith('/restore')) there = true;
    return { body: method === 'GET' ? (there ? [standing({ checking: true })] : []) : project };
  });
  renderIn(<ProjectsPage onNear={() => undefined} />);
  expect(await screen.findByRole('link', { name: 'Pressroom' })).toHaveAttribute('href', '/projects/7');
  expect(screen.getByLabelText('Where Pressroom stands')).toHaveTextContent(
    '9made2,000listed1,234good enough12open3shortlisted',
  );
  expect(screen.getByText(/a check is running · 40 answers of 600 old enough/)).toBeInTheDocument();
  await menu('Remove');
  expect(await screen.findByText('Nothing is being named yet')).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Undo' }));
  expect(await screen.findByRole('link', { name: 'Pressroom' })).toBeInTheDocument();
  expect(requests.map((a) => a.method)).toContain('DELETE');
});

it('puts a project by, out of sight until it is asked for', async () => {
  let archived = false;
  serve((method, _path, body) => {
    if (method === 'PUT') archived = (body as { archived: boolean }).archived;
    const now = { ...project, archived_at: archived ? '2026-11-25T00:00:00Z' : null };
    return { body: method === 'GET' ? [standing({ project: now })] : now };
  });
  renderIn(<ProjectsPage onNear={() => undefined} />);
  await menu('Put by');
  await waitFor(() => {
    expect(screen.queryByRole('link', { name: 'Pressroom' })).not.toBeInTheDocument();
  });
  await userEvent.click(screen.getByRole('button', { name: 'show 1 put by' }));
  await menu('Take up again');
  expect(await screen.findByText('Pressroom was taken up again.')).toBeInTheDocument();
});

it('says what is wrong with a file of a project', async () => {
  const problems = [{ path: 'shortlist.3', code: 'x', message: 'This entry lacks something.' }];
  serve((method) =>
    method === 'POST'
      ? { status: 400, body: { code: 'problems', message: 'Look again.', problems } }
      : { body: [standing()] },
  );
  renderIn(<ProjectsPage onNear={() => undefined} />);
  await userEvent.upload(
    screen.getByLabelText('File of a project'),
    new File(['{}'], 'x.json', { type: 'application/json' }),
  );
  expect(await screen.findByText(/shortlist.3: This entry lacks something./)).toBeInTheDocument();
});

it('keeps what was typed into a new project that was refused, each problem at its field', async () => {
  const problems = [
    { path: 'name', code: 'blank', message: 'Write something here.' },
    { path: 'brief.keywords.1.text', code: 'script', message: 'Cyrillic letters.' },
  ];
  const requests = serve((method) =>
    method === 'POST' ? { status: 400, body: { code: 'problems', message: 'Look again.', problems } } : { body: [] },
  );
  renderIn(<ProjectsPage onNear={() => undefined} />);
  await userEvent.click((await screen.findAllByRole('button', { name: 'New project' }))[0] as HTMLElement);
  const dialog = within(screen.getByRole('dialog'));
  await userEvent.type(dialog.getByLabelText('Words'), 'ink, бумага');
  await userEvent.click(dialog.getByRole('button', { name: 'Make names' }));
  expect(await dialog.findByText('Write something here.')).toBeInTheDocument();
  expect(dialog.getByText('Cyrillic letters.')).toBeInTheDocument();
  expect(dialog.getByLabelText('Words')).toHaveValue('ink, бумага');
  await waitFor(() => {
    expect(requests.find((a) => a.method === 'POST')?.body).toMatchObject({
      brief: { keywords: [{ text: 'ink' }, { text: 'бумага' }] },
    });
  });
});

it('says when the projects cannot be loaded, and tries again', async () => {
  let down = true;
  serve(() => (down ? { status: 500, body: 'broken' } : { body: [standing()] }));
  renderIn(<ProjectsPage onNear={() => undefined} />);
  expect(await screen.findByRole('alert')).toHaveTextContent('Something went wrong on the server.');
  down = false;
  await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
  expect(await screen.findByRole('link', { name: 'Pressroom' })).toBeInTheDocument();
});

it('takes the sentence’s first words for a title where none is given', async () => {
  const requests = serve((method) => ({ body: method === 'GET' ? [] : project }));
  renderIn(<ProjectsPage onNear={() => undefined} />);
  await userEvent.click((await screen.findAllByRole('button', { name: 'New project' }))[0] as HTMLElement);
  await userEvent.type(
    screen.getByLabelText(/What is it, and for whom/),
    'A pottery studio with open hours for beginners and more.',
  );
  await userEvent.click(screen.getByRole('button', { name: 'Make names' }));
  await waitFor(() => {
    expect(requests.find((a) => a.method === 'POST')?.body).toMatchObject({
      name: 'A pottery studio with open hours for …',
      brief: { about: 'A pottery studio with open hours for beginners and more.', keywords: [] },
    });
  });
});
