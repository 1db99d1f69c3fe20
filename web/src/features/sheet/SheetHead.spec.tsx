import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import { layoutOf } from './columns';
import { SheetHead } from '../../shared/sheet/SheetHead';

function setUp(question: Parameters<typeof SheetHead>[0]['question'] = {}) {
  const [told, onWidth] = [vi.fn(), vi.fn()];
  const onAsk: Parameters<typeof SheetHead>[0]['onAsk'] = (part) => {
    told(part(question));
  };
  render(
    <div role="grid" tabIndex={0}>
      <SheetHead
        layout={layoutOf(['grade', 'recipes', '.com'], [], {})}
        question={question}
        onAsk={onAsk}
        onWidth={onWidth}
        best={{ word: 'best first', title: '' }}
      />
    </div>,
  );
  return { onAsk: told, onWidth };
}

it('orders by a column, turns it, and gives the best first again', async () => {
  const { onAsk } = setUp();
  await userEvent.click(screen.getByRole('button', { name: 'Grade' }));
  expect(onAsk).toHaveBeenLastCalledWith({ sort: 'grade', reverse: false });
});

it.each([
  [false, { reverse: true }],
  [true, { sort: undefined, reverse: undefined }],
])('goes on from an order turned %s', async (reverse, next) => {
  const { onAsk } = setUp({ sort: 'grade', reverse });
  expect(screen.getByRole('columnheader', { name: /Grade/ })).toHaveAttribute(
    'aria-sort',
    reverse ? 'ascending' : 'descending',
  );
  await userEvent.click(screen.getByRole('button', { name: /Grade/ }));
  expect(onAsk).toHaveBeenLastCalledWith(next);
});

it('is walked, sized and left by keys', async () => {
  const { onAsk, onWidth } = setUp();
  screen.getByRole('button', { name: 'Name' }).focus();
  await userEvent.keyboard('{ArrowLeft}');
  expect(screen.getByRole('button', { name: 'Name' })).toHaveFocus();
  await userEvent.keyboard('{ArrowRight}{Enter}');
  expect(onAsk).toHaveBeenLastCalledWith({ sort: 'grade', reverse: false });
  await userEvent.keyboard('{ArrowRight}{Shift>}{ArrowRight}{/Shift}');
  expect(screen.getByRole('separator', { name: 'Width of Recipe' })).toHaveFocus();
  expect(onWidth).toHaveBeenLastCalledWith('recipes', 36);
  await userEvent.keyboard('{ArrowRight}{ArrowDown}');
  expect(screen.getByRole('grid')).toHaveFocus();
});
