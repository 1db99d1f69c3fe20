import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { figureFile, figures } from '../../shared/testing/phrases';
import { showPhrases } from './testing';

it('tells of a file what was remarked, and takes it away', async () => {
  const { sent } = showPhrases();
  await userEvent.click(await screen.findByText('One file of figures, 1 remark'));
  expect(screen.getByText('line 4: It is too long.')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Take away' }));
  expect(sent('DELETE', '/figures/3')).toHaveLength(1);
  await userEvent.click(await screen.findByRole('button', { name: 'Undo' }));
  expect(sent('POST', '/figures/3')).toHaveLength(1);
});

it('tells that figures are being read, and why some could not be', async () => {
  showPhrases('/', figures({ phrases: 0, files: [{ ...figureFile, state: 'reading', done: 15_000 }] }));
  expect(await screen.findByText('The figures are being read')).toBeTruthy();
  expect(screen.getByText(/is being read: 15,000 lines/)).toBeTruthy();
  cleanup();
  showPhrases('/', figures({ phrases: 0, files: [{ ...figureFile, state: 'failed', wrong: 300 }] }));
  expect(await screen.findByText(/could not be read/)).toBeTruthy();
  expect(screen.getByText('and 299 more')).toBeTruthy();
});
