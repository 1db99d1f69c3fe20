import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import { EVERYTHING } from '../../shared/lib/question';
import { renderIn } from '../../shared/testing/render';
import { CheckMenu } from './CheckMenu';
import { ExportMenu } from './ExportMenu';

const asked = { ...EVERYTHING, text: 'ink' };

it.each([
  ['the 2 names in view', { what: 'labels', labels: ['inkpost', 'inkwell'] }],
  ['all 1,204 names shown', { shown: asked }],
  ['the 1 name marked', { what: 'labels', labels: ['inkclub'] }],
  ['inkpost under every extension known', { what: 'labels', labels: ['inkpost'], everywhere: true }],
  ['inkpost as before buying: registry and seller', { what: 'labels', labels: ['inkpost'], aim: 'buying' }],
  ['only what is unsure', { shown: asked, again: 'unsure' }],
  ['what is older than an hour', { shown: asked, older_than_minutes: 60 }],
  ['everything', { shown: asked, again: 'all' }],
])('checks %s', async (name, wish) => {
  const onStart = vi.fn();
  renderIn(
    <CheckMenu
      what="best"
      disabled={false}
      onStart={onStart}
      choices={() => ({
        shown: { question: asked, count: 1204 },
        page: ['inkpost', 'inkwell'],
        marked: ['inkclub'],
        selected: 'inkpost',
      })}
    />,
  );
  await userEvent.click(screen.getByRole('button', { name: 'What else to check' }));
  await userEvent.click(screen.getByRole('menuitem', { name }));
  expect(onStart).toHaveBeenCalledWith(wish);
  await vi.waitFor(() => {
    expect(screen.queryByRole('menu')).not.toBeInTheDocument();
  });
});

it('exports the rows shown in each form, by the filters in force only', async () => {
  renderIn(<ExportMenu projectId={7} question={{ ...asked, grade_min: 80 }} />);
  await userEvent.click(screen.getByRole('button', { name: 'Export' }));
  const links = screen.getAllByRole('menuitem').map((item) => item.getAttribute('href'));
  expect(links).toEqual(
    ['csv', 'xlsx', 'json'].map((form) => `/api/projects/7/export?form=${form}&what=sheet&text=ink&grade_min=80`),
  );
});
