import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, it } from 'vitest';

import { type Head, PickBox, PickTable } from './PickTable';

type Sort = 'name' | 'cost';
const HEADS: readonly Head<Sort>[] = [
  { sort: 'name', word: 'Name' },
  { sort: 'cost', word: 'Cost', title: 'What it costs', figure: true },
  { sort: null, word: 'Seller' },
];
const ROWS = ['inkpost', 'paperpost'];

function Table() {
  const [sorted, setSorted] = useState<{ by: Sort; down: boolean }>({ by: 'name', down: false });
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  return (
    <PickTable
      label="Names"
      minWidth={400}
      heads={HEADS}
      sorted={sorted}
      all={chosen.size === ROWS.length}
      onAll={(on) => setChosen(new Set(on ? ROWS : []))}
      onSort={(by) => setSorted({ by, down: by === sorted.by && !sorted.down })}>
      {ROWS.map((row) => (
        <tr key={row}>
          <td>
            <PickBox
              label={`Choose ${row}`}
              on={chosen.has(row)}
              onChange={(on) => setChosen(new Set(on ? [row] : []))}
            />
          </td>
        </tr>
      ))}
    </PickTable>
  );
}

const head = (word: RegExp) => screen.getByRole('columnheader', { name: word });

it('is sorted by one head at a time, and tells which way', async () => {
  render(<Table />);
  expect(head(/Name/)).toHaveAttribute('aria-sort', 'ascending');
  expect(head(/Cost/)).not.toHaveAttribute('aria-sort');
  await userEvent.click(screen.getByTitle('What it costs'));
  expect(head(/Name/)).not.toHaveAttribute('aria-sort');
  expect(head(/Cost/)).toHaveTextContent('Cost ↑');
  await userEvent.click(screen.getByTitle('What it costs'));
  expect(head(/Cost/)).toHaveAttribute('aria-sort', 'descending');
  expect(head(/Cost/)).toHaveTextContent('Cost ↓');
});

it('has nothing to press where a head sorts nothing', () => {
  render(<Table />);
  expect(within(head(/Seller/)).queryByRole('button')).toBeNull();
  expect(within(head(/Cost/)).getByRole('button')).toBeTruthy();
});

it('chooses one row, the whole page, and none, also by keyboard', async () => {
  render(<Table />);
  const all = screen.getByRole('checkbox', { name: 'Choose all of the page' });
  const one = screen.getByRole('checkbox', { name: 'Choose inkpost' });
  await userEvent.click(one);
  expect(one).toBeChecked();
  expect(all).not.toBeChecked();
  all.focus();
  await userEvent.keyboard(' ');
  expect(screen.getAllByRole('checkbox', { checked: true })).toHaveLength(3);
  await userEvent.keyboard(' ');
  expect(screen.queryAllByRole('checkbox', { checked: true })).toHaveLength(0);
});
