import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import type { Kept } from '../../shared/api';
import { renderIn, serve } from '../../shared/testing/render';
import { NoteField } from './NoteField';

const kept: Kept = { label: 'inkpost', shown: 'inkpost', note: 'old', kept_at: '', letters: 7, grade: 90, starts: [0, 3], statuses: [] };
const field = () => screen.getByLabelText('Note on inkpost');

it('saves while one writes, and what was left unsaved when the page is left', async () => {
  const asked = serve((_method, _path, body) => ({ body }));
  const { unmount } = renderIn(<NoteField projectId={7} kept={kept} />);
  await userEvent.type(field(), ' and new');
  await waitFor(() => { expect(asked.map((a) => a.body)).toEqual([{ note: 'old and new' }]); });
  expect(await screen.findByText('saved')).toBeInTheDocument();
  await userEvent.type(field(), '!');
  unmount();
  await waitFor(() => { expect(asked.at(-1)?.body).toEqual({ note: 'old and new!' }); });
});

it('keeps the text that was refused, and says why', async () => {
  const problems = [{ path: 'note', code: 'too_long', message: 'At most 2,000 characters.' }];
  serve(() => ({ status: 400, body: { code: 'problems', message: 'Look again.', problems } }));
  renderIn(<NoteField projectId={7} kept={kept} />);
  await userEvent.type(field(), ' far too long');
  expect(await screen.findByRole('alert')).toHaveTextContent('At most 2,000 characters.');
  expect(field()).toHaveValue('old far too long');
});
