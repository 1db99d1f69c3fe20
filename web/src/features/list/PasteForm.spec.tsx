import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import { ApiError, type Pasted } from '../../shared/api';
import { renderIn } from '../../shared/testing/render';
import { PasteForm } from './PasteForm';

const onTake = vi.fn();
const show = (report: Pasted | null = null, error: ApiError | null = null) => {
  renderIn(
    <PasteForm
      extensions={['com']}
      known={['com', 'net']}
      busy={false}
      report={report}
      error={error}
      onTake={onTake}
    />,
  );
};
const field = () => screen.getByRole('textbox', { name: 'Names or full names' });

it('takes what was typed with the extensions for bare names', async () => {
  show();
  expect(screen.getByRole('button', { name: 'Take and check' })).toBeDisabled();
  await userEvent.type(field(), 'inkpost');
  await userEvent.click(screen.getByRole('button', { name: 'Take and check' }));
  expect(onTake).toHaveBeenCalledWith('inkpost', ['com']);
});

it('reads a file, and refuses one that is too large without losing what is there', async () => {
  show();
  await userEvent.type(field(), 'inkpost');
  const input = screen.getByLabelText('File of names');
  await userEvent.upload(input, new File(['x'.repeat(1_600_000)], 'big.csv', { type: 'text/csv' }));
  expect(screen.getByRole('alert')).toHaveTextContent('big.csv is larger than 1.5 MB');
  expect(field()).toHaveValue('inkpost');
  await userEvent.upload(input, new File(['paperwren.com'], 'names.txt', { type: 'text/plain' }));
  expect(field()).toHaveValue('paperwren.com');
  expect(screen.queryByRole('alert')).not.toBeInTheDocument();
});

it('tells what became of each line', () => {
  show({
    lines: 9,
    names: 3,
    full_names: 5,
    merged: 2,
    left_out: 0,
    names_left_out: 12,
    passed_over: 3,
    bad_count: 1,
    bad: [{ line: 1204, text: '-x', reason: 'A name cannot begin or end with a hyphen.' }],
  });
  expect(screen.getByRole('status')).toHaveTextContent(
    '3 names, 5 full names, 2 repeats put together. 12 names beyond the first 5,000 were left out. 3 cells of other columns were passed over. 1 piece passed over:',
  );
  expect(screen.getByRole('list', { name: 'Passed over' })).toHaveTextContent(
    'Line 1,204, “-x”: A name cannot begin or end with a hyphen.',
  );
});

it('says with their lines why nothing could be taken', () => {
  show(
    null,
    new ApiError(400, 'problems', 'Look again.', [{ path: 'line 2', code: 'as_told', message: '“-”: no name.' }]),
  );
  expect(screen.getByRole('alert')).toHaveTextContent('Line 2: “-”: no name.');
});
