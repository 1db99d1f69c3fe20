import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { renderIn, serve } from '../../shared/testing/render';
import { DismissedList } from './DismissedList';

it('brings one name back, or all of them', async () => {
  let labels = Array.from({ length: 42 }, (_, i) => `name${i}`);
  const requests = serve((method, path, body) => {
    const back = path.endsWith('/back') ? (body as { labels: string[] }).labels : [];
    labels = labels.filter((label) => !back.includes(label));
    return method === 'GET' ? { body: { labels } } : { status: 204 };
  });
  renderIn(<DismissedList projectId={7} />);
  expect(await screen.findByText('and 2 more')).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'name3' }));
  await waitFor(() => {
    expect(screen.queryByRole('button', { name: 'name3' })).not.toBeInTheDocument();
  });
  expect(requests.find((a) => a.method === 'POST')?.body).toEqual({ labels: ['name3'] });
  await userEvent.click(screen.getByRole('button', { name: 'Bring all back' }));
  await waitFor(() => {
    expect(screen.queryByText('Dismissed')).not.toBeInTheDocument();
  });
});
