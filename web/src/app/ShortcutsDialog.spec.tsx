import { act, screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';

import { keys } from '../shared/api';
import { renderIn, serve } from '../shared/testing/render';
import { ShortcutsDialog } from './ShortcutsDialog';

it('lists the keys that are heard, and says where the letters are switched on and off', async () => {
  serve(() => ({ body: {} }));
  const { client } = renderIn(<ShortcutsDialog open onClose={vi.fn()} />);
  expect(screen.getByText('the name above')).toBeInTheDocument();
  expect(screen.getByText('vary the name: names near it')).toBeInTheDocument();
  expect(screen.getByText(/can be switched off/)).toBeInTheDocument();
  act(() => {
    client.setQueryData(keys.session, { person: { preferences: { letter_keys: false } }, demo: false });
  });
  await waitFor(() => {
    expect(screen.queryByText('vary the name: names near it')).not.toBeInTheDocument();
  });
  expect(screen.getByText('the name above')).toBeInTheDocument();
  expect(screen.getByRole('link', { name: 'settings' })).toHaveAttribute('href', '/settings');
});
