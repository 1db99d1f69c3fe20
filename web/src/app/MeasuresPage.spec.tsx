import { screen, within } from '@testing-library/react';
import { expect, it } from 'vitest';

import { concepts } from '../shared/lib/concepts';
import { presetOf, sharesOf } from '../shared/lib/grading';
import { renderIn, serve } from '../shared/testing/render';
import { MeasuresPage } from './MeasuresPage';

const worked = {
  examples: {
    spelling: [
      {
        project: 'Pressroom',
        label: 'klaypress',
        score: 9.4,
        reasons: [{ text: '“klay” is heard as “clay” too.', points: -90, start: 0, end: 4 }],
      },
      {
        project: 'Pressroom',
        label: 'пример',
        score: null,
        reasons: [{ text: 'Not graded, because it is.', points: 0, start: 0, end: 6 }],
      },
    ],
  },
};

it('tells how much each measure counts, and that a weakness is not made good', async () => {
  serve(() => ({ body: worked }));
  renderIn(<MeasuresPage />);
  const table = await screen.findByRole('table');
  const row = (name: string) =>
    within(within(table).getByRole('rowheader', { name }).closest('tr') as HTMLElement)
      .getAllByRole('cell')
      .map((c) => c.textContent);
  for (const { name, word } of concepts().purposes) {
    const shares = sharesOf(presetOf(name));
    expect(row(word)).toEqual(concepts().measures.map((m) => `${Math.round(100 * (shares[m.name] ?? 0))} %`));
  }
  expect(screen.getByText(/95, 95 and 20 give 62, where the plain average would give 70/)).toBeInTheDocument();
});

it('shows worked examples with the letters marked, and those that have no score', async () => {
  serve(() => ({ body: worked }));
  renderIn(<MeasuresPage />);
  const examples = await screen.findByRole('list', { name: 'Examples of spelling' });
  const [poor, none] = await within(examples).findAllByText(/Pressroom/);
  expect(poor?.closest('li')).toHaveTextContent('klaypress9');
  expect(within(examples).getByText('klay', { selector: 'mark' })).toBeInTheDocument();
  expect(none?.closest('li')).toHaveTextContent('пример–');
  for (const name of ['Length', 'Spelling', 'Keyword fit', 'Sense', 'Sound', 'Memory', 'Clarity']) {
    expect(screen.getByRole('heading', { name })).toBeInTheDocument();
    expect(screen.getByRole('link', { name })).toHaveAttribute('href', expect.stringContaining('#'));
  }
});

it('says when the examples did not come', async () => {
  serve(() => ({ status: 503, body: { code: 'gone', message: 'The server is away.', problems: [] } }));
  renderIn(<MeasuresPage />);
  expect(await screen.findByRole('alert')).toHaveTextContent('The server is away.');
});
