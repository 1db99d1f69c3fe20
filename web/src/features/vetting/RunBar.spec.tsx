import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import type { VettingRun } from '../../shared/api';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { sampleRun } from '../../shared/testing/vetting';
import { RunBar } from './RunBar';
import { useVettingActs } from './useVetting';

function Bar({ run, names }: { run: VettingRun | null; names: number }) {
  return <RunBar run={run} acts={useVettingActs(4)} names={names} />;
}

function show(run: VettingRun | null, names = 3, answer: Answer = { status: 201, body: sampleRun() }) {
  const requests = serve(() => answer);
  renderIn(<Bar run={run} names={names} />);
  return requests;
}

it('has nothing to vet without names', () => {
  show(null, 0);
  expect(screen.getByRole('button', { name: /Vet/ })).toBeDisabled();
});

it('vets one name, or all of them', async () => {
  const requests = show(null, 1);
  await userEvent.click(screen.getByRole('button', { name: 'Vet the name' }));
  expect(requests[0]).toMatchObject({ method: 'POST', path: '/api/projects/4/vetting', body: { again: 'old' } });
});

it('says that it waits for a worker, and stops all the same', async () => {
  const requests = show(sampleRun({ id: 9, state: 'queued', done: 0, left: 1_400, total: 1_400, asleep: true }));
  expect(screen.getByRole('status')).toHaveTextContent(
    '0 of 1,400 steps · no worker has taken it up; it goes on by itself as soon as one is there',
  );
  await userEvent.click(screen.getByRole('button', { name: 'Stop' }));
  expect(requests[0]?.path).toBe('/api/projects/4/vetting/9/stop');
});

it('says that it failed, and goes on later', async () => {
  const requests = show(sampleRun({ id: 9, state: 'stopped', done: 3, left: 4, broken: true }));
  expect(screen.getByRole('status')).toHaveTextContent('failed again and again and was stopped');
  await userEvent.click(screen.getByRole('button', { name: 'Go on with 4' }));
  expect(requests[0]?.path).toBe('/api/projects/4/vetting/9/resume');
});

it('says why it was refused', async () => {
  show(null, 2, { status: 409, body: { code: 'vetting_active', message: 'Names are being vetted.', problems: [] } });
  await userEvent.click(screen.getByRole('button', { name: 'Vet 2 names' }));
  expect(await screen.findByText('Names are being vetted.')).toBeInTheDocument();
  expect(screen.queryByRole('button', { name: 'Vet all of it again' })).toBeNull();
});
