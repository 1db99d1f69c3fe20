import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { useQuery } from '@tanstack/react-query';
import { type Kept, keys } from '../../shared/api';
import { shortlistQuery } from '../../shared/lib/queries';
import { sampleKept } from '../../shared/testing/samples';
import { renderIn, serve } from '../../shared/testing/render';
import { NoteField } from './NoteField';

const field = () => screen.getByLabelText('Note on inkpost');
const show = () => renderIn(<NoteField projectId={7} label="inkpost" shown="inkpost" note="old" />);

it('saves while one writes, and what was left unsaved when the page is left', async () => {
  const requests = serve((_method, _path, body) => ({ body }));
  const { unmount } = show();
  await userEvent.type(field(), ' and new');
  await waitFor(() => {
    expect(requests.map((a) => a.body)).toEqual([{ note: 'old and new', seen: { note: 'old' } }]);
  });
  expect(await screen.findByText('saved')).toBeInTheDocument();
  await userEvent.type(field(), '!');
  unmount();
  await waitFor(() => {
    expect(requests.at(-1)?.body).toEqual({ note: 'old and new!', seen: { note: 'old and new' } });
  });
});

it('keeps the text that was refused, and says why', async () => {
  const problems = [{ path: 'note', code: 'too_long', message: 'At most 2,000 characters.' }];
  serve(() => ({ status: 400, body: { code: 'problems', message: 'Look again.', problems } }));
  show();
  await userEvent.type(field(), ' far too long');
  expect(await screen.findByRole('alert')).toHaveTextContent('At most 2,000 characters.');
  expect(field()).toHaveValue('old far too long');
});

it.each([
  ['Keep mine', 'old mine'],
  ['Take theirs', 'theirs: yes'],
])('never writes over a note from elsewhere unasked: %s', async (choice, kept) => {
  let refuse = true;
  const requests = serve((_method, _path, body) => {
    if (!refuse) return { body };
    refuse = false;
    return {
      status: 409,
      body: {
        code: 'changed_elsewhere',
        message: 'Changed.',
        problems: [],
        current: { note: 'theirs: yes' },
      },
    };
  });
  show();
  await userEvent.type(field(), ' mine');
  expect(await screen.findByText(/theirs: yes/)).toBeInTheDocument();
  expect(field()).toHaveValue('old mine');
  await userEvent.click(screen.getByRole('button', { name: choice }));
  await waitFor(() => {
    expect(requests.at(-1)?.body).toEqual({ note: kept, seen: { note: 'theirs: yes' } });
  });
  expect(field()).toHaveValue(kept);
});

it('is not written over by a list that was asked for before it was saved', async () => {
  let saved = '';
  let release: () => void = () => undefined;
  let held: Promise<void> | undefined;
  const requests = serve((method, _path, body) => {
    if (method === 'PATCH') {
      saved = (body as { note: string }).note;
      return { body };
    }
    const after = held;
    held = undefined;
    return { body: [sampleKept({ label: 'inkpost', note: saved })], ...(after && { after }) };
  });
  function Listed() {
    const { data } = useQuery(shortlistQuery(7));
    const [kept] = data ?? [];
    return kept ? <NoteField projectId={7} label="inkpost" shown="inkpost" note={kept.note} /> : null;
  }
  const { client } = renderIn(<Listed />);
  await screen.findByLabelText('Note on inkpost');
  held = new Promise((resolve) => {
    release = resolve;
  });
  void client.invalidateQueries({ queryKey: keys.shortlist(7) });
  await waitFor(() => expect(requests.filter((r) => r.method === 'GET')).toHaveLength(2));
  await userEvent.type(field(), 'new');
  expect(await screen.findByText('saved')).toBeInTheDocument();
  release();
  await waitFor(() => expect(requests.filter((r) => r.method === 'GET')).toHaveLength(3));
  await waitFor(() => expect(client.isFetching()).toBe(0));
  expect(field()).toHaveValue('new');
  expect(client.getQueryData<Kept[]>(keys.shortlist(7))?.[0]?.note).toBe('new');
});
