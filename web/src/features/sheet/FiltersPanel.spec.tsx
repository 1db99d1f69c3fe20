import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import type { Counts } from '../../shared/api';
import type { SheetQuestion } from '../../shared/lib/question';
import { renderIn, serve } from '../../shared/testing/render';
import { ActiveFilters } from './ActiveFilters';
import { FiltersPanel } from './FiltersPanel';

const counts: Counts = {
  total: 812,
  values: { letters: { 5: 200, 8: 500, 12: 112 }, syllables: {}, words: {} },
  least: { grade: { 0: 812, 80: 310 }, fit: { 0: 812, 60: 44 } },
  prices: { price: { 10: 3, 20: 9 }, later: { 10: 0, 20: 5 }, whole: { 10: 0, 100: 7 } },
  currency: 'EUR',
  demand: { 0: 300, 100: 12 },
  years: 5,
  choices: {
    mark: { '': 812, kept: 3, later: 0, fresh: 700, dismissed: 2 },
    open_in: { any: 90, all: 4, com: 60, ie: 34 },
    recipes: { pair: 500, lead: 0, tail: 312 },
    added: { noun: 20 },
    status: { open: 90, 'not asked': 700, taken: 0 },
    hyphen: { yes: 1, no: 811 },
    digit: { yes: 0, no: 812 },
    premium: { yes: 4, no: 808 },
  },
};

function show(question: SheetQuestion = {}) {
  const sent = serve(() => ({ body: counts }));
  const onAsk = vi.fn();
  renderIn(<FiltersPanel projectId={7} question={question} onAsk={onAsk} extensions={['com', 'ie']} />);
  return { onAsk, sent };
}
const choice = async (group: string, name: RegExp) =>
  within(await screen.findByRole('group', { name: group })).findByRole('button', { name });

it('tells how many names each choice would leave, and leaves out those that would leave none', async () => {
  show();
  expect(await screen.findByText('leaves 812 names')).toBeInTheDocument();
  expect(await choice('Open in', /^\.ie 34$/)).toHaveAttribute('aria-pressed', 'false');
  expect(await choice('Recipe', /^pair 500$/)).toBeInTheDocument();
  expect(screen.queryByRole('button', { name: /^lead/ })).not.toBeInTheDocument();
  expect(screen.getByRole('button', { name: 'Clear all' })).toBeDisabled();
});

it('adds to a list of choices, and takes from it', async () => {
  const { onAsk } = show({ recipes: 'pair', open_in: 'com' });
  await userEvent.click(await choice('Recipe', /^tail/));
  expect(onAsk).toHaveBeenLastCalledWith({ recipes: 'pair,tail' });
  await userEvent.click(await choice('Recipe', /^pair/));
  expect(onAsk).toHaveBeenLastCalledWith({ recipes: undefined });
  await userEvent.click(await choice('Open in', /^\.ie/));
  expect(onAsk).toHaveBeenLastCalledWith({ open_in: 'com,ie' });
  await userEvent.click(await choice('Open in', /^any of mine/));
  expect(onAsk).toHaveBeenLastCalledWith({ open_in: 'any', open_all: undefined });
});

it('asks for names open in every one of several extensions', async () => {
  const { onAsk } = show({ open_in: 'com,ie' });
  await userEvent.click(await screen.findByRole('checkbox', { name: 'in every one of these' }));
  expect(onAsk).toHaveBeenLastCalledWith({ open_all: true });
});

it('narrows by what was looked at, by price and by digits', async () => {
  const { onAsk } = show({ digit: 'no' });
  await userEvent.click(await choice('Looked at', /^not looked at 700$/));
  expect(onAsk).toHaveBeenLastCalledWith({ mark: 'fresh' });
  await userEvent.click(await choice('First year at most', /^€20 9$/));
  expect(onAsk).toHaveBeenLastCalledWith({ price_max: 20 });
  await userEvent.click(await choice('Digits', /^no digit/));
  expect(onAsk).toHaveBeenLastCalledWith({ digit: undefined });
});

it('counts while a thumb moves, and asks when it rests', async () => {
  const { onAsk } = show();
  await screen.findByText('leaves 812 names');
  const grade = screen.getByRole('slider', { name: 'Grade at least' });
  grade.focus();
  for (let i = 0; i < 16; i += 1) await userEvent.keyboard('{ArrowRight}');
  expect(onAsk).toHaveBeenCalled();
  const most = screen.getByRole('slider', { name: 'Letters at most' });
  most.focus();
  await userEvent.keyboard('{ArrowLeft}');
  expect(onAsk).toHaveBeenLastCalledWith({ letters_min: undefined, letters_max: 19 });
});

it('waits for the typing to rest before it asks for letters', async () => {
  const { onAsk } = show();
  await userEvent.type(await screen.findByLabelText('begins with'), 'in k');
  await waitFor(() => {
    expect(onAsk).toHaveBeenLastCalledWith({ starts: 'ink' });
  });
});

it('asks for counts by the filters alone: an order leaves as many', async () => {
  const { sent } = show({ sort: 'fit', reverse: true, text: 'ink' });
  await screen.findByText('leaves 812 names');
  expect(sent.map((s) => s.path)).toEqual(['/api/projects/7/names/counts?text=ink']);
});

it('takes away one filter, or all of them, but not the order', async () => {
  const onAsk = vi.fn();
  renderIn(<ActiveFilters question={{ sort: 'fit', grade_min: 80, mark: 'kept' }} onAsk={onAsk} />);
  await userEvent.click(screen.getByRole('button', { name: 'grade from 80' }));
  expect(onAsk).toHaveBeenLastCalledWith({ grade_min: undefined });
  await userEvent.click(screen.getByRole('button', { name: 'Clear all' }));
  const [cleared] = onAsk.mock.lastCall as [Record<string, unknown>];
  expect(Object.keys(cleared)).toContain('mark');
  expect(Object.keys(cleared)).not.toContain('sort');
});

it('narrows by what all the years cost, from and up to, and by premium names', async () => {
  const { onAsk } = show({ whole_max: 100, premium: 'no' });
  // What is asked for is what is shown.
  expect(await choice('5 years at most', /^€100 7$/)).toHaveAttribute('aria-pressed', 'true');
  const from = screen.getByRole('textbox', { name: 'from' });
  await userEvent.type(from, '12,5x');
  expect(from).toHaveValue('12.5');
  await waitFor(() => {
    expect(onAsk).toHaveBeenLastCalledWith({ whole_min: 12.5 });
  });
  await userEvent.click(screen.getByRole('button', { name: 'Later years' }));
  await userEvent.click(await choice('Later years at most', /^€20 5$/));
  expect(onAsk).toHaveBeenLastCalledWith({ later_max: 20 });
  await userEvent.click(await choice('Premium names', /^no premium 808$/));
  expect(onAsk).toHaveBeenLastCalledWith({ premium: undefined });
  renderIn(<ActiveFilters question={{ whole_min: 5, whole_max: 100, later_min: 3, premium: 'yes' }} onAsk={onAsk} />);
  expect(screen.getByText('all years 5 to 100')).toBeInTheDocument();
  expect(screen.getByText('later years from 3')).toBeInTheDocument();
});

it('narrows by how much the phrase a name carries is looked for', async () => {
  const { onAsk } = show({ demand_min: 100 });
  expect(await choice('Looked for a month, at least', /^100 12$/)).toHaveAttribute('aria-pressed', 'true');
  await userEvent.click(await choice('Looked for a month, at least', /^0 300$/));
  expect(onAsk).toHaveBeenLastCalledWith({ demand_min: 0 });
  await userEvent.click(await choice('Looked for a month, at least', /^100 12$/));
  expect(onAsk).toHaveBeenLastCalledWith({ demand_min: undefined });
  renderIn(<ActiveFilters question={{ demand_min: 1000 }} onAsk={onAsk} />);
  await userEvent.click(screen.getByRole('button', { name: 'looked for 1,000 times a month or more' }));
  expect(onAsk).toHaveBeenLastCalledWith({ demand_min: undefined });
});
