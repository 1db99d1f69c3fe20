import type { Brief, CostQuestion, Kept } from '../../shared/api';

export const MOST_YEARS = 10;
/** So many full names are planned at once. */
export const MOST_PLANNED = 200;
export const CURRENCIES = ['EUR', 'USD', 'GBP', 'SEK', 'CHF', 'CAD', 'AUD', 'NZD'] as const;

/** What the plan is worked out for, as the address has it; what is not in there is as the brief has it, or usual. */
export interface PlanWish {
  years: number;
  country: string;
  vat: string;
  currency: string;
  privacy: boolean;
  moving: boolean;
  /** What a move costs the person beside its price, in the currency. */
  trouble: number;
  /** By how many percent a year what is paid later weighs less. */
  ahead: number;
  /** What all of it may cost over the years, in the currency; 0 for no limit. */
  budget: number;
  /** Full names that are used, not only held for protection; none: the first. */
  used: readonly string[];
  /** Full names planned beside those of the shortlist: held for protection. */
  also: readonly string[];
  /** Full names left out. */
  out: readonly string[];
  /** Codes of sellers left out. */
  less: readonly string[];
  /** By full name, what is bid for it at most in an auction, in the currency. */
  ceilings: Readonly<Record<string, number>>;
}

const whole = (text: string | null, usual: number, least: number, most: number) => {
  const n = Number(text ?? usual);
  return Number.isInteger(n) ? Math.min(most, Math.max(least, n)) : usual;
};

export function readWish(params: URLSearchParams, brief: Pick<Brief, 'owner'>, currency: string): PlanWish {
  const asked = params.get('currency') ?? '';
  const chosen = CURRENCIES.find((c) => c === asked) ?? (currency || 'EUR');
  // The brief's budget is in euros.
  const budget = chosen === 'EUR' ? (brief.owner.budget_whole ?? 0) : 0;
  return {
    years: whole(params.get('years'), brief.owner.years, 1, MOST_YEARS),
    country: params.get('country') ?? brief.owner.country,
    vat: params.get('vat') ?? '',
    currency: chosen,
    privacy: params.get('public') !== '1',
    moving: params.get('stay') !== '1',
    trouble: whole(params.get('trouble'), 0, 0, 10_000),
    ahead: whole(params.get('ahead'), 0, 0, 50),
    budget: whole(params.get('budget'), budget, 0, 1_000_000),
    used: (params.get('used') ?? '').split(',').filter(Boolean),
    also: (params.get('also') ?? '').split(',').filter(Boolean).slice(0, MOST_PLANNED),
    out: (params.get('out') ?? '').split(',').filter(Boolean),
    less: (params.get('less') ?? '').split(',').filter(Boolean),
    ceilings: Object.fromEntries(
      (params.get('bids') ?? '')
        .split(',')
        .map((pair) => pair.split(':'))
        .map(([name, amount]) => [name ?? '', Number(amount)] as const)
        .filter(([name, amount]) => name !== '' && amount > 0 && amount < 100_000_000)
        .slice(0, MOST_PLANNED),
    ),
  };
}

/** The fields of an address for a change; "" for what is as usual. */
export function writeWish(params: URLSearchParams, change: Partial<PlanWish>): URLSearchParams {
  const next = new URLSearchParams(params);
  const put = (name: string, value: string) => {
    if (value) next.set(name, value);
    else next.delete(name);
  };
  if (change.years !== undefined) put('years', String(change.years));
  if (change.country !== undefined) next.set('country', change.country);
  if (change.vat !== undefined) put('vat', change.vat.trim());
  if (change.currency !== undefined) put('currency', change.currency);
  if (change.privacy !== undefined) put('public', change.privacy ? '' : '1');
  if (change.moving !== undefined) put('stay', change.moving ? '' : '1');
  if (change.trouble !== undefined) put('trouble', change.trouble ? String(change.trouble) : '');
  if (change.ahead !== undefined) put('ahead', change.ahead ? String(change.ahead) : '');
  if (change.budget !== undefined) next.set('budget', String(change.budget));
  if (change.used !== undefined) put('used', change.used.join(','));
  if (change.also !== undefined) put('also', change.also.join(','));
  if (change.out !== undefined) put('out', change.out.join(','));
  if (change.less !== undefined) put('less', change.less.join(','));
  if (change.ceilings !== undefined)
    put(
      'bids',
      Object.entries(change.ceilings)
        .filter(([, amount]) => amount > 0)
        .map(([name, amount]) => `${name}:${amount}`)
        .join(','),
    );
  return next;
}

/** The full names of the shortlist: kept as one, or under the first extension of the brief. */
export const fullNamesOf = (kept: readonly Kept[], extensions: readonly string[]): string[] => [
  ...new Set(kept.map((k) => `${k.label}.${k.extension || (extensions[0] ?? 'com')}`)),
];

/** Which of the names are used: those chosen, or the first. */
export function usedOf(wish: PlanWish, names: readonly string[]): string[] {
  const chosen = names.filter((name) => wish.used.includes(name));
  return chosen.length ? chosen : names.slice(0, 1);
}

/** What is asked of the server, of the sellers there are. */
export function questionOf(wish: PlanWish, names: readonly string[], sellers: readonly string[]): CostQuestion {
  const planned = names.filter((name) => !wish.out.includes(name)).slice(0, MOST_PLANNED);
  return {
    full_names: planned,
    used: usedOf(wish, planned),
    budget: wish.budget ? String(wish.budget) : null,
    years: wish.years,
    country: wish.country as CostQuestion['country'],
    vat: wish.vat,
    privacy: wish.privacy,
    currency: wish.currency,
    moving: wish.moving,
    trouble: String(wish.trouble),
    ahead: String(wish.ahead),
    ceilings: Object.fromEntries(Object.entries(wish.ceilings).map(([name, amount]) => [name, String(amount)])),
    sellers: wish.less.length ? sellers.filter((code) => !wish.less.includes(code)) : [],
  };
}
