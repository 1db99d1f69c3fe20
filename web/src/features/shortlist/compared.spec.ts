import { expect, it } from 'vitest';

import { figure as sampleFigure } from '../../shared/testing/phrases';
import { sampleCell, sampleCosts, sampleJudged } from '../../shared/testing/samples';
import { sampleGlance } from '../../shared/testing/vetting';
import { compare } from './compared';

const measure = (name: string, score: number | null) => ({ name, score, weight: 0.5, reasons: [] });
const cost = (amount: string, extension: string) => ({ amount, extension, seller: 'Weir', premium: false });
const costs = (least: Parameters<typeof sampleCosts>[0]) => ({
  taxed: true,
  least: sampleCosts(least),
  extensions: [],
});
const names = [
  sampleJudged({
    label: 'inkpost',
    grade: 91.4,
    measures: [measure('fit', 80), measure('sound', 60)],
    cells: [sampleCell({ extension: 'com', status: 'taken' }), sampleCell({ extension: 'ie' })],
    costs: costs({ first: cost('20.00', 'ie'), whole: cost('80.00', 'ie') }),
    misspellings: [{ label: 'incpost', share: 0.3 }],
    note: 'mine',
  }),
  sampleJudged({
    label: 'ink-well',
    grade: 91.2,
    measures: [measure('fit', 80), measure('sound', null)],
    cells: [sampleCell({ extension: 'com' })],
    warnings: [{ code: 'hyphens', text: 'A hyphen.', start: 3, end: 4 }],
  }),
  sampleJudged({
    label: 'goink',
    grade: null,
    measures: [measure('fit', 20), measure('sound', 90)],
    cells: [sampleCell({ extension: 'ie' })],
    costs: costs({ first: cost('12.00', 'ie'), whole: cost('180.00', 'ie') }),
  }),
];
const lines = Object.fromEntries(compare(names, ['com', 'ie']).map((line) => [line.key, line]));

it('marks the best of each figure, every one of equals', () => {
  expect(lines.grade).toMatchObject({ values: [91, 91, null], best: [], differs: true });
  expect(lines.fit).toMatchObject({ values: [80, 80, 20], best: [0, 1] });
  expect(lines.sound).toMatchObject({ values: [60, null, 90], best: [2] });
  expect(lines.letters).toMatchObject({ values: [7, 7, 5], best: [2] });
});

it('puts what can be had before what cannot, and the cheaper first year before the dearer', () => {
  expect(lines['.com']).toMatchObject({ values: ['taken', 'open', 'unasked'], best: [1] });
  expect(lines.first).toMatchObject({ values: ['€20, .ie', null, '€12, .ie'], best: [2] });
  expect(lines.whole).toMatchObject({ values: ['€80, .ie', null, '€180, .ie'], best: [0] });
  expect(lines.later).toBeUndefined();
});

it('marks nothing where no status lets one hope more than another', () => {
  const held = (status: 'taken' | 'reserved' | 'barred') =>
    sampleJudged({ label: status, cells: [sampleCell({ extension: 'com', status })] });
  const [com] = compare(
    [held('taken'), held('reserved'), held('barred'), sampleJudged({ label: 'new' })],
    ['com'],
  ).filter((line) => line.key === '.com');
  expect(com).toMatchObject({ values: ['taken', 'reserved', 'barred', 'unasked'], best: [] });
});

it('compares misspellings, warnings and notes as well', () => {
  expect(lines.right).toMatchObject({ values: [70, 100, 100], best: [1, 2] });
  expect(lines.misspelt?.values).toEqual(['incpost', 'none', 'none']);
  expect(lines.warnings).toMatchObject({ values: ['none', 'A hyphen.', 'none'], best: [0, 2] });
  expect(lines.note?.values).toEqual(['mine', '', '']);
});

it('marks nothing where all are the same', () => {
  const twins = compare(
    [names[0], names[0]].filter((n) => n !== undefined),
    ['com'],
  );
  expect(twins.every((line) => !line.differs && line.best.length === 0)).toBe(true);
});

it('tells what vetting found, and takes one to stop at for worse than two to think about', () => {
  const think = (text: string) => sampleGlance({ kind: 'said', weight: 'think', text });
  const stop = sampleGlance({ kind: 'marks', weight: 'stop', text: 'A mark.' });
  const vetted = (label: string, found: ReturnType<typeof sampleGlance>[]) => sampleJudged({ label, vetted: found });
  const line = (...compared: ReturnType<typeof vetted>[]) => compare(compared, []).find((l) => l.key === 'vetting');
  expect(line(vetted('one', [stop]), vetted('two', [think('This.'), think('That.')]), vetted('new', []))).toMatchObject(
    {
      values: ['A mark.', 'This. That.', 'not vetted'],
      best: [1],
      differs: true,
    },
  );
  // What is accepted weighs no more, and what is only to be noted never did.
  const accepted = { ...stop, accepted: true };
  const noted = sampleGlance({ kind: 'handles', weight: 'note', text: 'A form.' });
  expect(line(vetted('one', [accepted, noted]), vetted('two', [think('This.')]))).toMatchObject({
    values: ['nothing weighty', 'This.'],
    best: [0],
  });
  expect(line(vetted('one', []), vetted('two', []))).toBeUndefined();
});

it('sets beside each other how much people look for the phrases names carry', () => {
  const carrying = (label: string, demand: number | null) =>
    sampleJudged({ label, looked_for: [{ phrase: label, demand, figure: sampleFigure() }] });
  const line = (...compared: ReturnType<typeof carrying>[]) => compare(compared, []).find((l) => l.key === 'demand');
  expect(line(carrying('one', 90), carrying('two', 1200), carrying('new', null))).toMatchObject({
    values: [90, 1200, null],
    best: [1],
  });
  // Nobody knows anything: there is nothing to compare.
  expect(line(carrying('one', null), sampleJudged({ label: 'none' }))).toBeUndefined();
});
