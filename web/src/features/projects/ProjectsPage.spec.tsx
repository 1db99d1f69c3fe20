import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { renderIn, serve } from '../../shared/testing/render';
import { freshBrief } from './useProjects';
import { ProjectsPage } from './ProjectsPage';

const project = { id: 7, name: 'Pressroom', brief: freshBrief('Pressroom', ['ink']), considered: 9, within: 5, good: 1234, created_at: '2026-11-01T00:00:00Z', changed_at: new Date().toISOString() };

it('shows each project, and undoes a removal', async () => {
  let there = true;
  const asked = serve((method, path) => {
    if (method === 'DELETE') there = false;
    if (path.endsWith('/restore')) there = true;
    return { body: method === 'GET' ? (there ? [project] : []) : project };
  });
  renderIn(<ProjectsPage />);
  expect(await screen.findByRole('link', { name: 'Pressroom' })).toHaveAttribute('href', '/projects/7');
  expect(screen.getByText(/1,234 good names/)).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Remove Pressroom' }));
  expect(await screen.findByText('Nothing is being named yet')).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Undo' }));
  expect(await screen.findByRole('link', { name: 'Pressroom' })).toBeInTheDocument();
  expect(asked.map((a) => a.method)).toContain('DELETE');
});

it('keeps what was typed into a new project that was refused, each problem at its field', async () => {
  const problems = [
    { path: 'name', code: 'blank', message: 'Write something here.' },
    { path: 'brief.keywords.1.text', code: 'script', message: 'Cyrillic letters.' },
  ];
  const asked = serve((method) => (method === 'POST' ? { status: 400, body: { code: 'problems', message: 'Look again.', problems } } : { body: [] }));
  renderIn(<ProjectsPage />);
  await userEvent.click((await screen.findAllByRole('button', { name: 'New project' }))[0] as HTMLElement);
  const dialog = within(screen.getByRole('dialog'));
  await userEvent.type(dialog.getByLabelText('Words'), 'ink, бумага');
  await userEvent.click(dialog.getByRole('button', { name: 'Make names' }));
  expect(await dialog.findByText('Write something here.')).toBeInTheDocument();
  expect(dialog.getByText('Cyrillic letters.')).toBeInTheDocument();
  expect(dialog.getByLabelText('Words')).toHaveValue('ink, бумага');
  await waitFor(() => { expect(asked.find((a) => a.method === 'POST')?.body).toMatchObject({ brief: { keywords: [{ text: 'ink' }, { text: 'бумага' }] } }); });
});

it('says when the projects cannot be loaded, and tries again', async () => {
  let down = true;
  serve(() => (down ? { status: 500, body: 'broken' } : { body: [project] }));
  renderIn(<ProjectsPage />);
  expect(await screen.findByRole('alert')).toHaveTextContent('Something went wrong on the server.');
  down = false;
  await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
  expect(await screen.findByRole('link', { name: 'Pressroom' })).toBeInTheDocument();
});
