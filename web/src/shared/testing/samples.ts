import type { Brief, Cell, Check, Hunted, Judged, MarketOffer, Kept, Project, Row, SellerKind } from '../api';

/** A full name's answer. */
export const sampleCell = (fields: Partial<Cell> & Pick<Cell, 'extension'>): Cell => ({
  label: 'inkpost',
  status: 'open',
  likely: false,
  trouble: '',
  reason: '',
  aim: 'scan',
  asked_at: new Date().toISOString(),
  registered: null,
  expires: null,
  drops_from: null,
  drops_to: null,
  currency: '',
  first_year: null,
  renewal: null,
  holder_asks: null,
  imported: false,
  pending: false,
  ...fields,
});

/** A brief with nothing but what is given. */
export const sampleBrief = (fields: Partial<Brief> = {}): Brief => ({
  name: '',
  about: '',
  purpose: 'mix',
  keywords: [],
  avoid: [],
  limits: { letters_min: 4, letters_max: 16, words: 4, hyphens: 0, digits: 0 },
  extensions: ['com'],
  places: [],
  making: { off: [], daring: 35, added_max: 8, shapes: [] },
  weights: {},
  owner: { country: '', kind: '', work: 'any', budget: null, years: 5, budget_whole: null },
  fallback: ['exact_first', 'exact_next'],
  world: { on: [], off: [], drop: [], weights: {}, own: {} },
  classes: [],
  markets: [],
  ...fields,
});

/** A check under way. */
export const sampleCheck = (fields: Partial<Check> = {}): Check => ({
  id: 3,
  state: 'running',
  aim: 'scan',
  total: 1200,
  done: 300,
  left: 900,
  unsure: 0,
  troubles: [],
  rate: 100,
  created_at: new Date().toISOString(),
  ended_at: null,
  away: [],
  asleep: false,
  broken: false,
  ...fields,
});

/** A row of the sheet. */
export const sampleRow = (fields: Partial<Row> & Pick<Row, 'label'>): Row => ({
  grade: 90,
  letters: fields.label.length,
  syllables: 2,
  words: 2,
  scores: {},
  recipes: ['pair'],
  added: [],
  starts: [0],
  change: null,
  dot: '',
  kept: false,
  verdict: '',
  cells: [],
  costs: sampleCosts(),
  ...fields,
});

/** What a name costs of which no price is known, but for what is given. */
export const sampleCosts = (fields: Partial<Row['costs']> = {}): Row['costs'] => ({
  currency: 'EUR',
  years: 5,
  first: null,
  later: null,
  whole: null,
  ...fields,
});

/** A project with nothing but what is given. */
export const sampleProject = (fields: Partial<Project> = {}): Project => ({
  id: 7,
  name: 'Pressroom',
  brief: sampleBrief(),
  version: 1,
  considered: 0,
  within: 0,
  good: 0,
  only_first: false,
  view: '',
  views: [],
  sheets: {},
  created_at: '',
  changed_at: '',
  archived_at: null,
  ...fields,
});

/** A kept name. */
export const sampleKept = (fields: Partial<Kept> & Pick<Kept, 'label'>): Kept => ({
  shown: fields.label,
  extension: '',
  note: '',
  tags: [],
  kept_at: '',
  letters: fields.label.length,
  grade: 90,
  starts: [0],
  statuses: [],
  ...fields,
});

/** All about a name. */
/** A name a market tells of: for sale, with some of its past. */
export const sampleHunted = (
  fields: Partial<Omit<Hunted, 'offer'>> & Pick<Hunted, 'label'>,
  offer: Partial<MarketOffer> = {},
): Hunted => ({
  extension: 'com',
  suits: 50,
  cost: null,
  grade: 60,
  scores: { length: 80, fit: 60 },
  starts: [0, 3],
  letters: fields.label.length,
  words: 2,
  kept: false,
  ...fields,
  offer: {
    full_name: `${fields.label}.${fields.extension ?? 'com'}`,
    market: 'oldgate',
    market_name: 'Oldgate Names',
    kind: 'fixed',
    told: '2026-11-29T10:00:00Z',
    price: null,
    currency: 'EUR',
    bids: null,
    ends: null,
    drops_from: null,
    drops_to: null,
    state: '',
    address: '',
    first_registered: '2001-03-04',
    times_registered: null,
    links: 17,
    linking_sites: null,
    archived: null,
    archived_about: '',
    used_for: '',
    risk: '',
    rank: null,
    click_price: null,
    also: [],
    ...offer,
  },
});

export const sampleJudged = (fields: Partial<Judged> & Pick<Judged, 'label'>): Judged => ({
  offers: [],
  offer_changes: [],
  going: [],
  shown: fields.label,
  grade: 90,
  recipes: ['pair'],
  parts: [],
  measures: [],
  warnings: [],
  vetted: [],
  misspellings: [],
  kept: false,
  cells: [],
  evidence: [],
  verdict: '',
  extension: '',
  typed_extension: '',
  note: '',
  tags: [],
  place: null,
  history: [],
  costs: { taxed: true, least: sampleCosts(), extensions: [] },
  ...fields,
});

/** A seller with a list of its own. */
export const sampleSeller = (code: string, name: string, fields: Partial<SellerKind> = {}): SellerKind => ({
  code,
  name,
  country: 'IE',
  currency: 'EUR',
  privacy: 'included',
  tax: 'added',
  years_chosen: 1,
  top_up: '0',
  terms: {},
  own: false,
  by_hand: false,
  may_change: false,
  publishes: true,
  dated: '2026-11-29',
  fetched_at: '2026-11-29T10:00:00Z',
  stale: false,
  trouble: '',
  changes: [],
  changed_on: null,
  ...fields,
});
