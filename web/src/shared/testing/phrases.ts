import type {
  Coverage,
  FigureFile,
  Figures,
  KnownFigure,
  Ladders,
  LookedAt,
  PhraseGroups,
  PhraseLine,
  PhrasePage,
} from '../api';

export const figure = (fields: Partial<KnownFigure> = {}): KnownFigure => ({
  low: 1900,
  high: 1900,
  months: [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12],
  last_month: '2026-10',
  competition: 0.4,
  price: '1.2',
  currency: 'EUR',
  dated: '2026-11-01',
  ...fields,
});
export const line = (phrase: string, fields: Partial<PhraseLine> = {}): PhraseLine => ({
  phrase,
  figure: figure(),
  demand: 1900,
  variants: 1,
  season: null,
  cover: 0.25,
  chosen: false,
  ...fields,
});
export const figureFile: FigureFile = {
  id: 3,
  kind: 'file',
  source: 'Almanac',
  name: 'export.csv',
  country: 'IE',
  language: 'en',
  currency: 'EUR',
  dated: '2026-11-01',
  state: 'done',
  lines: 9,
  taken: 8,
  wrong: 1,
  problems: [{ path: 'line 4', code: 'demand_long', args: {}, message: 'It is too long.' }],
  done: 9,
  brought_at: '2026-11-01T00:00:00Z',
  removed: false,
};
export const figures = (fields: Partial<Figures> = {}): Figures => ({
  files: [figureFile],
  views: [
    { key: 'Almanac|IE|en', source: 'Almanac', country: 'IE', language: 'en', known: 8, newest: '2026-11-01' },
    { key: 'Ledger||', source: 'Ledger', country: '', language: '', known: 2, newest: '2026-10-01' },
  ],
  usual: 'Almanac|IE|en',
  chosen: 1,
  phrases: 3,
  heads: 2,
  dropped: 0,
  service: true,
  ...fields,
});
export const page = (lines: PhraseLine[], fields: Partial<PhrasePage> = {}): PhrasePage => ({
  lines,
  total: lines.length,
  heads: 2,
  phrases: 3,
  demand: 2000,
  unknown: 1,
  view: 'Almanac|IE|en',
  ...fields,
});
export const cover: Coverage = { share: 0.62, own_share: 0.4, within: 2, within_share: 0.2, near: 1, near_share: 0.02 };
export const groups: PhraseGroups = {
  cut: 0.7,
  usual_cut: 0.7,
  view: 'Almanac|IE|en',
  demand: 2000,
  grouped: 2,
  heads: 2,
  count: 1,
  groups: [
    {
      head: 'piano tuning',
      demand: 2000,
      share: 1,
      count: 2,
      unknown: 1,
      cover,
      lines: [
        { line: line('piano tuning'), in_group: 0.62, of_all: 0.62 },
        { line: line('piano stool', { demand: null }), in_group: 0.1, of_all: 0.1 },
      ],
    },
  ],
  candidates: [{ line: line('piano tuning'), cover }],
};
export const best = {
  rung: 'exact_next' as const,
  label: 'pianotuning',
  extension: 'net',
  status: 'open',
  likely: false,
};
export const ladders: Ladders = {
  lines: [
    {
      phrase: 'piano tuning',
      demand: 1900,
      figure: figure(),
      best,
      grade: 74.4,
      asked: 3,
      forms: 9,
      rungs: [{ rung: 'exact_next', forms: [best] }],
      problem: '',
    },
    {
      phrase: 'x y',
      demand: null,
      figure: figure(),
      best: null,
      grade: 50,
      asked: 0,
      forms: 9,
      rungs: [],
      problem: '',
    },
  ],
  order: ['exact_first', 'exact_next'],
  view: 'Almanac|IE|en',
  asked: 3,
  forms: 18,
};
export const looked: LookedAt = {
  encoding: 'UTF-16',
  separator: '\t',
  heading: ['was', 'wie oft', 'Rang'],
  heading_line: 3,
  rows: [['klavier', '90', '7']],
  columns: [
    { kind: 'phrase', month: '' },
    { kind: 'searches', month: '' },
    { kind: '', month: '' },
  ],
  habit: false,
};
