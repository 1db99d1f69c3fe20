import type { ReactNode } from 'react';

import type { CostQuestion, Costs, CouponKind } from '../api';
import { ProjectContext } from '../lib/projectContext';
import { renderIn, serve } from './render';
import { sampleKept, sampleProject, sampleSeller } from './samples';

interface Reply {
  status?: number;
  body: unknown;
}

export const SELLERS = [
  sampleSeller('lantern', 'Lantern Names', {
    changes: [
      { kind: 'rose', extension: 'com', action: 'renew', years_from: 1, years_to: 10, before: '11', after: '14' },
    ],
    changed_on: '2026-11-03',
  }),
  sampleSeller('weir', 'Weir & Daughter', { stale: true, trouble: 'prices: The look-up service failed.' }),
];

export const step = (action: 'register' | 'renew' | 'move', code: string, year: number, amount: string) => ({
  on: `${year}-11-29`,
  action,
  seller: code,
  years: 1,
  until: `${year + 1}-11-29`,
  amount,
  order: {
    seller: code,
    currency: 'EUR',
    subtotal: amount,
    total: amount,
    tax_known: true,
    lines: [
      {
        kind: action === 'register' ? 'registration' : action === 'move' ? 'move' : 'renewal',
        full_name: 'inkpost.com',
        amount,
        reason: 'list',
        args: { years: '1', price: amount, per: 'year' },
      },
    ],
  },
});

const holding = (code: string, total: string | null) => ({
  seller: code,
  total,
  a_year: total && '10',
  first: total && '2',
  dearest: total && '20',
  by_year: total ? ['2', '20', '20'] : [],
  quoted: '' as const,
  unsold: total === null,
  ticked: code === 'lantern' ? '120.00' : total,
  extras:
    code === 'lantern' ? [{ name: 'Post box', about: 'Ten addresses for mail.', needed: false, total: '80.00' }] : [],
});

export const COSTS: Costs = {
  currency: 'EUR',
  years: 3,
  buying: null,
  rates_of: '2026-10-30',
  names: [
    {
      full_name: 'inkpost.com',
      used: true,
      sellers: [holding('lantern', '41.24'), holding('weir', '44.28')],
      buying: null,
      cheapest: {
        total: '30.96',
        by_year: ['1.44', '14.76', '14.76'],
        steps: [
          step('register', 'lantern', 2026, '1.44'),
          step('move', 'weir', 2027, '14.76'),
          step('renew', 'weir', 2028, '14.76'),
        ],
      },
    },
    {
      full_name: 'quietsky.net',
      used: false,
      sellers: [holding('lantern', null), holding('weir', '50.00')],
      buying: null,
      cheapest: null,
    },
  ],
  plan: { total: '80.96', weight: '80.96', bound: '78.10', orders: [], nowhere: [] },
  paid: [
    { seller: '', amounts: ['1.44', '16.20', '80.96'] },
    { seller: 'weir', amounts: ['14.76', '29.52', '94.28'] },
  ],
  affordable: null,
  coupons: [],
  quotes: { waiting: 0, unknown: 0, oldest: null },
};

/** A page of a plan with these costs; gives everything that was asked. */
export function servePlan(
  page: ReactNode,
  costs: Partial<Costs> = {},
  answer: (path: string) => Reply | undefined = () => undefined,
) {
  const requests = serve((_method, path) => {
    if (path.endsWith('/shortlist'))
      return {
        body: [sampleKept({ label: 'inkpost', extension: 'com' }), sampleKept({ label: 'quietsky', extension: 'net' })],
      };
    if (path === '/api/sellers')
      return { body: { sellers: SELLERS, may_edit: false, buying: null, rates_of: null, follows: true } };
    if (path === '/api/extensions') return { body: { countries: [{ code: 'IE', name: 'Ireland' }], extensions: [] } };
    return answer(path) ?? { body: path.endsWith('/costs') ? { ...COSTS, ...costs } : {} };
  });
  renderIn(<ProjectContext value={sampleProject({})}>{page}</ProjectContext>);
  return () => requests;
}
export const costsAsked = (requests: readonly { path: string; body: unknown }[]) =>
  requests.filter((r) => r.path.endsWith('/costs')).map((r) => r.body as CostQuestion);

/** A coupon with every condition. */
export const COUPON: CouponKind = {
  seller: 'lantern',
  code: 'LANTERN10',
  takes: 'percent',
  value: '10.000',
  extensions: ['com'],
  actions: ['register'],
  years_from: 1,
  years_to: 10,
  least_names: 3,
  least_sum: '20',
  new_customers: true,
  combines: false,
  on_promotions: false,
  starts: null,
  ends: '2027-01-31',
  odds: { mean: 0.75, low: 0.42, high: 0.97, reports: 3 },
  saving: '4.00',
  expected: '3.00',
  in_plan: true,
  reported: null,
  held: '',
};
