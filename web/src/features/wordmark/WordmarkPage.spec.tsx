import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { ProjectContext } from '../../shared/lib/projectContext';
import { renderIn, serve } from '../../shared/testing/render';
import { sampleJudged, sampleProject } from '../../shared/testing/samples';
import { contrast, INKS, PAPERS, wordOf } from './colours';
import { WordmarkPage } from './WordmarkPage';

const setting = (face: string, missing = '') => ({
  face,
  word: `${face} letters`,
  suggests: 'calm',
  notice: '',
  text: 'inkpost',
  width: 3000,
  ascent: 900,
  descent: 300,
  missing,
  glyphs: [0, 3, 4].map((at) => ({ at, path: `M${at} 0Z` })),
});

function setUp() {
  const requests = serve((_method, path) => ({
    body: path.startsWith('/api/wordmarks')
      ? [setting('literata'), setting('caveat', 'ß')]
      : sampleJudged({
          label: 'inkpost',
          parts: [
            { text: 'ink', kind: 'keyword', keyword: 'ink', start: 0, change: null },
            { text: 'post', kind: 'tail', keyword: '', start: 3, change: null },
          ],
        }),
  }));
  renderIn(
    <ProjectContext value={sampleProject()}>
      <WordmarkPage />
    </ProjectContext>,
    '/?name=inkpost',
  );
  return requests;
}
const file = (name: string) =>
  new URL(screen.getByRole('link', { name }).getAttribute('href') ?? '', 'http://x').searchParams;

it('sets the name in every face; the one chosen is taken away as it looks', async () => {
  setUp();
  await userEvent.click(await screen.findByRole('radio', { name: /caveat letters/ }));
  expect(screen.getByText('lacks ß')).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'on dark' }));
  expect(Object.fromEntries(file('SVG, outlines'))).toMatchObject({
    text: 'inkpost',
    face: 'caveat',
    form: 'outlines',
    ink: '#4f2143',
    paper: PAPERS.dark,
  });
  expect(file('SVG, text').get('form')).toBe('text');
  expect(screen.getByText(/damson can hardly be read on this ground/)).toBeInTheDocument();
});

it('asks for another setting when letters or spacing change, and splits colours at the seam', async () => {
  const requests = setUp();
  await userEvent.click(await screen.findByRole('button', { name: 'CAPITALS' }));
  await waitFor(() => {
    expect(requests.some((a) => a.path.includes('case=upper'))).toBe(true);
  });
  await userEvent.click(screen.getByLabelText('Second colour'));
  await userEvent.click(screen.getByRole('option', { name: 'verdigris' }));
  expect(screen.getByLabelText('From letter')).toHaveValue(4);
  const [first] = screen.getAllByRole('img');
  expect(
    [...(first?.querySelectorAll('path') ?? [])].map((p) => [p.getAttribute('fill'), p.getAttribute('d')]),
  ).toEqual([
    ['#4f2143', 'M0 0Z'],
    ['#24625b', 'M3 0ZM4 0Z'],
  ]);
  expect(file('SVG, outlines').get('split')).toBe('3');
});

it('knows how far colours stand apart, and says what they tend to suggest', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21);
  expect(contrast('#24625b', '#24625b')).toBe(1);
  expect(wordOf('#24625b')).toBe('verdigris: calm, healing, outdoors');
  expect(wordOf('#123456')).toBe('a colour of your own');
  expect(new Set(INKS.map((ink) => ink.colour)).size).toBe(INKS.length);
});
