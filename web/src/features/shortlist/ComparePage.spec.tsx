import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { ProjectContext } from '../../shared/lib/projectContext';
import { renderIn, serve } from '../../shared/testing/render';
import { sampleCell, sampleJudged, sampleKept, sampleProject } from '../../shared/testing/samples';
import { ComparePage } from './ComparePage';

function show(address: string) {
  serve((_method, path) => {
    if (path.endsWith('/shortlist'))
      return { body: ['inkpost', 'goink', 'inkwell'].map((label) => sampleKept({ label })) };
    const label = path.split('/names/')[1] ?? '';
    if (label === 'bad')
      return {
        status: 400,
        body: {
          code: 'problems',
          message: 'Look again.',
          problems: [{ path: 'label', code: 'x', message: 'This is no name.' }],
        },
      };
    return {
      body: sampleJudged({
        label,
        grade: label === 'goink' ? 95 : 90,
        cells: [sampleCell({ extension: 'com', label })],
      }),
    };
  });
  renderIn(
    <ProjectContext value={sampleProject()}>
      <ComparePage />
    </ProjectContext>,
    address,
  );
}
const line = async (name: string) =>
  within(await screen.findByRole('table')).getByRole('row', { name: new RegExp(`^${name} `) });

it('sets names side by side and marks the best of a line, for readers of the screen too', async () => {
  show('/?names=inkpost,goink');
  const grade = await line('Grade');
  expect(
    within(grade)
      .getAllByRole('cell')
      .map((c) => c.textContent),
  ).toEqual(['90', '95, the best']);
  expect(within(await line('\\.com')).getAllByText('open')).toHaveLength(2);
});

it('shows only what differs when asked', async () => {
  show('/?names=inkpost,goink');
  await line('Grade');
  expect(screen.getByRole('rowheader', { name: '.com' })).toBeInTheDocument();
  await userEvent.click(screen.getByRole('checkbox', { name: 'Only what differs' }));
  expect(screen.queryByRole('rowheader', { name: '.com' })).not.toBeInTheDocument();
  expect(screen.getByRole('rowheader', { name: 'Grade' })).toBeInTheDocument();
});

it('takes a name in and leaves one out', async () => {
  show('/?names=inkpost,goink');
  await line('Grade');
  await userEvent.click(screen.getByLabelText('Add a name'));
  await userEvent.click(screen.getByRole('option', { name: 'inkwell' }));
  expect(await screen.findByRole('link', { name: 'inkwell' })).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Leave inkpost out' }));
  expect(screen.queryByRole('link', { name: 'inkpost' })).not.toBeInTheDocument();
});

it('says which name could not be loaded, and shows the others', async () => {
  show('/?names=inkpost,bad,goink');
  expect(await screen.findByRole('alert')).toHaveTextContent('bad: This is no name.');
  expect(screen.getAllByRole('columnheader')).toHaveLength(2);
});
