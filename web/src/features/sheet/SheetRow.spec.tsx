import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import type { Row } from '../../shared/api';
import { type Beside, SheetRow } from './SheetRow';

const row: Row = {
  label: 'knightsky', grade: 71.2, letters: 9, scores: { length: 100, spelling: 14, fit: 80 }, recipes: ['pair'], starts: [0, 6], change: '', dot: '', kept: false, cells: [],
};

function show(beside: Beside, weights: Record<string, number> | null = { length: 1, fit: 1 }) {
  const acts = { onSelect: vi.fn(), onKeep: vi.fn() };
  render(<SheetRow row={row} index={0} id="row-0" top={0} extensions={['com', 'net']} beside={beside} grading={weights && { weights, exponent: 1 }} selected={false} {...acts} />);
  return { ...acts, cells: screen.getAllByRole('gridcell').map((c) => c.textContent) };
}

it('grades by the weights in hand, whatever the server said before', () => {
  expect(show('statuses').cells[1]).toBe('90');
  expect(show('statuses', { length: 0, spelling: 3, fit: 0 }).cells).toContain('14');
});

it('shows the grade of the server until it is known how grades are made', () => {
  expect(show('statuses', null).cells[1]).toBe('71');
});

it('shows every measure, and a dash where there is none', () => {
  expect(show('measures').cells.slice(3)).toEqual(['100', '14', '80', '–', '–', '–']);
  expect(within(screen.getByTitle('Spelling')).getByText('14')).toBeInTheDocument();
  expect(screen.getAllByTitle('Not graded')).toHaveLength(3);
});

it('shows statuses when they are asked for', () => {
  expect(show('statuses').cells.slice(3)).toHaveLength(2);
});

it('is chosen by a press, and kept by its tag without being chosen', async () => {
  const { onSelect, onKeep } = show('measures');
  await userEvent.click(screen.getByRole('button', { name: 'Keep knightsky' }));
  expect(onKeep).toHaveBeenCalledWith('knightsky', true);
  expect(onSelect).not.toHaveBeenCalled();
  await userEvent.click(screen.getByRole('rowheader'));
  expect(onSelect).toHaveBeenCalledWith('knightsky');
});
