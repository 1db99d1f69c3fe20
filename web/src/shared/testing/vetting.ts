import type { Glance, VettedName, VettingReport, VettingRun } from '../api';

/** What was found of one kind, in short. */
export const sampleGlance = (fields: Partial<Glance> & Pick<Glance, 'kind'>): Glance => ({
  weight: 'clear',
  text: 'Nothing was found.',
  count: 1,
  found_at: new Date().toISOString(),
  old: false,
  accepted: false,
  changed: false,
  note: '',
  sign: 'a1',
  ...fields,
});

export const MARK = sampleGlance({ kind: 'marks', weight: 'stop', text: '“Inkpoast” sounds the same as inkpost.' });

export const sampleRun = (fields: Partial<VettingRun> = {}): VettingRun => ({
  id: 5,
  state: 'done',
  total: 7,
  done: 7,
  left: 0,
  asleep: false,
  broken: false,
  ...fields,
});

/** A report of two names, the worse first. */
export const sampleReport = (fields: Partial<VettingReport> = {}): VettingReport => ({
  names: [
    {
      label: 'inkpost',
      shown: 'inkpost',
      full_name: 'inkpost.com',
      kinds: [MARK, sampleGlance({ kind: 'said', old: true }), sampleGlance({ kind: 'protection', weight: 'note' })],
    },
    { label: 'quietpress', shown: 'quietpress', full_name: 'quietpress.ie', kinds: [] },
  ],
  handles: [
    { platform: 'Larkwire', says: ['taken', ''] },
    { platform: 'Copperline', says: ['unknown', ''] },
  ],
  run: null,
  classes: [16],
  classes_proposed: true,
  markets: [],
  marks: 6_000,
  platforms: 24,
  search: true,
  ...fields,
});

/** All that was found of inkpost. */
export const sampleVetted = (fields: Partial<VettedName> = {}): VettedName => ({
  label: 'inkpost',
  shown: 'inkpost',
  full_name: 'inkpost.com',
  kinds: [
    {
      ...sampleGlance({ kind: 'said' }),
      findings: [
        { weight: 'clear', code: 'said_clear', text: 'Said in 2 beats.', advice: '', evidence: [], source: 'rules' },
      ],
      more: {},
    },
    {
      ...MARK,
      findings: [
        {
          weight: 'stop',
          code: 'mark_close',
          text: MARK.text,
          advice: 'Have the likeness judged.',
          evidence: [
            {
              word: 'Inkpoast',
              said: 'ingk-pohst',
              owner: 'Hexley Press',
              office: 'Saltley',
              number: 'S1',
              classes: '16 35',
              goods: 'Paper and print',
              status: 'registered',
              registered: '2019-03-01',
              expires: null,
              likeness: 0.99,
              how: 'sounds the same as',
              nearness: 'same',
              same: '0 5 6 8',
            },
          ],
          source: 'the register of marks',
        },
      ],
      more: {},
    },
    {
      ...sampleGlance({ kind: 'handles', weight: 'note' }),
      findings: [
        {
          weight: 'note',
          code: 'handle_form',
          text: '@inkposthq is free on all.',
          advice: '',
          source: 'the platforms',
          evidence: [
            { platform: 'Larkwire', handle: 'inkpost', says: 'taken', why: '' },
            { platform: 'Larkwire', handle: 'inkposthq', says: 'free', why: '' },
            { platform: 'Copperline', handle: 'inkpost', says: 'unknown', why: 'the platform does not tell' },
          ],
        },
      ],
      more: {},
    },
    {
      ...sampleGlance({ kind: 'protection', weight: 'note' }),
      findings: [
        { weight: 'note', code: 'hold_some', text: '2 names catch 60.', advice: '', evidence: [], source: '' },
      ],
      more: {
        currency: 'EUR',
        budget: 60_000,
        held: ['incpost.com', 'inkpost.net'],
        curve: [
          { yearly: 0, caught: 0, names: 0 },
          { yearly: 11_110, caught: 0.57, names: 1 },
          { yearly: 24_230, caught: 0.6, names: 2 },
        ],
      },
    },
  ],
  presented: {
    alphabet: [
      { letter: 'I', word: 'India' },
      { letter: 'N', word: 'November' },
    ],
    said: 'ingk pohst',
    capitals: 'INKPOST',
    email: 'hello@inkpost.com',
    handle: '@inkpost',
  },
  ...fields,
});
