import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import { renderIn, serve } from '../../shared/testing/render';
import { Funnel } from './Funnel';

it('shows what became of the names; the steps of the list filter it', async () => {
  serve(() => ({
    body: { made: 106_314, within: 8694, listed: 2000, good: 1573, open: 12, kept: 3, good_from: 80 },
  }));
  const onChange = vi.fn();
  renderIn(<Funnel projectId={7} question={{ grade_min: 80, text: 'ink' }} onChange={onChange} />);
  expect(await screen.findByText('106,314')).toBeInTheDocument();
  expect(screen.getByRole('button', { name: /good enough/ })).toHaveAttribute('aria-pressed', 'true');
  expect(screen.getByRole('button', { name: /^2,000/ })).toHaveAttribute('aria-pressed', 'false');
  expect(screen.getByTitle('Show those graded 80 and above')).toBeInTheDocument();
  expect(screen.queryByRole('button', { name: /within limits/ })).not.toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: /^12/ }));
  expect(onChange).toHaveBeenLastCalledWith(
    expect.objectContaining({ grade_min: undefined, mark: undefined, open_in: 'any' }),
  );
  await userEvent.click(screen.getByRole('button', { name: /shortlisted/ }));
  expect(onChange).toHaveBeenLastCalledWith(
    expect.objectContaining({ grade_min: undefined, mark: 'kept', open_in: undefined }),
  );
});
