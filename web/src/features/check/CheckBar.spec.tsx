import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import { ApiError, type Check } from '../../shared/api';
import { renderIn } from '../../shared/testing/render';
import { sampleCheck } from '../../shared/testing/samples';
import { CheckBar } from './CheckBar';
import type { CheckControls } from './useCheck';

const check = sampleCheck;
const start = vi.fn();
const stop = vi.fn();
const goOn = vi.fn();

function show(found: Check | null, error: ApiError | null = null, labels?: string[]) {
  const active = found?.state === 'running' || found?.state === 'queued';
  const controls = {
    check: found,
    active,
    known: true,
    watchError: null,
    start: { mutate: start, error, variables: labels && { labels }, isPending: false },
    stop: { mutate: stop, isPending: false },
    goOn: { mutate: goOn, error: null },
  };
  renderIn(<CheckBar controls={controls as unknown as CheckControls} names={2000} />);
}

it('says what is done, how fast, what is left and what is unsure, and stops', async () => {
  show(check({ unsure: 7 }));
  expect(screen.getByRole('status')).toHaveTextContent('300 of 1,200 answered · 100 a second · 9 s left · 7 unsure');
  expect(screen.getByRole('progressbar', { name: 'Names checked' })).toHaveAttribute('aria-valuenow', '25');
  await userEvent.click(screen.getByRole('button', { name: 'Stop' }));
  expect(stop).toHaveBeenCalledWith(3);
});

it.each([
  [check({ state: 'queued', done: 0, rate: null }), '0 of 1,200 answered · waiting for a worker'],
  [check({ done: 0, rate: null }), '0 of 1,200 answered · asking'],
  [check({ rate: 1, done: 0, left: 1200 }), '1 a second · 20 min left'],
  [check({ state: 'done', done: 1200, unsure: 2 }), '1,200 answers · 2 unsure, just now.'],
  [check({ state: 'stopped', done: 1, left: 0 }), 'Stopped after 1 answer, just now.'],
  [check({ state: 'queued', done: 0, rate: null, asleep: true }), 'no worker has taken it up; it goes on by itself'],
  [check({ away: ['com', 'ie'] }), '.com, .ie do not answer just now; their names wait'],
  [
    check({ state: 'stopped', done: 1, broken: true }),
    'The check failed again and again and was stopped after 1 answer',
  ],
  [null, 'Nothing has been asked yet.'],
])('tells each state apart', (found, said) => {
  show(found);
  expect(screen.getByRole('status')).toHaveTextContent(said);
});

it('offers to ask again when everything is fresh, but not for one name', async () => {
  const fresh = new ApiError(409, 'fresh', 'All 200 names were checked within the last 15 minutes.');
  show(null, fresh);
  await userEvent.click(screen.getByRole('button', { name: 'Ask again' }));
  expect(start).toHaveBeenCalledWith({ again: 'all' });
});

it('tells a refusal of one name without offering to ask all again', () => {
  show(null, new ApiError(409, 'check_active', 'A check is running.'), ['inkpost']);
  expect(screen.getByRole('status')).toHaveTextContent('A check is running.');
  expect(screen.queryByRole('button', { name: 'Ask again' })).not.toBeInTheDocument();
});

it('goes on with what a stopped check left', async () => {
  show(check({ state: 'stopped', left: 1_150 }));
  await userEvent.click(screen.getByRole('button', { name: 'Go on with 1,150' }));
  expect(goOn).toHaveBeenCalledWith(3);
});

it('says why answers are unsure, the commonest reason first', async () => {
  show(
    check({
      state: 'done',
      unsure: 9,
      troubles: [
        { trouble: 'timeout', reason: 'No answer in time.', count: 8 },
        { trouble: 'resting', reason: 'Left alone.', count: 1 },
      ],
    }),
  );
  await userEvent.hover(screen.getByText('9 unsure'));
  expect(await screen.findByRole('tooltip')).toHaveTextContent('8: No answer in time. 1: Left alone.');
});

it.each([
  ['only what is unsure', { what: 'best', again: 'unsure' }],
  ['what is older than a day', { what: 'best', older_than_minutes: 1440 }],
])('asks again %s', async (name, request) => {
  show(check({ state: 'done' }));
  await userEvent.click(screen.getByRole('button', { name: 'What else to check' }));
  await userEvent.click(screen.getByRole('menuitem', { name }));
  expect(start).toHaveBeenCalledWith(request);
});
