import { screen, within } from '@testing-library/react';
import { expect, it } from 'vitest';

import { figure } from '../../shared/testing/phrases';
import { renderIn } from '../../shared/testing/render';
import { LookedFor } from './LookedFor';

it('lists phrases with the words of a name, each leading to where it stands', () => {
  renderIn(
    <LookedFor
      projectId={7}
      phrases={[
        { phrase: 'piano tuning', demand: 1900, figure: figure() },
        { phrase: 'a/c & piano', demand: null, figure: figure({ months: [], low: null, high: null }) },
      ]}
    />,
  );
  const [first, second] = screen.getAllByRole('row');
  expect(first?.textContent).toMatch('piano tuning1,900');
  expect(
    within(first as HTMLElement)
      .getByRole('img')
      .getAttribute('aria-label'),
  ).toMatch('Nov 25: 1, Dec 25: 2');
  expect(second?.textContent).toBe('a/c & pianounknown');
  expect(screen.getByRole('link', { name: 'a/c & piano' }).getAttribute('href')).toBe(
    '/projects/7/phrases?text=a%2Fc+%26+piano',
  );
});
