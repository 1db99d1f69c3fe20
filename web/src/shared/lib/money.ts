import { isBuyable } from './concepts';

/** Exact amounts: the server sends digits as text. They are compared in thousandths, and only within one currency. */
interface Priced {
  currency: string;
  status: string;
  first_year: string | null;
}

/** Thousandths of a currency, whole. */
export const thousandths = (amount: string | number): number => Math.round(Number(amount) * 1000);

/** The currency most cells have a price in; of as many, the first by letter; "" where none has one. */
export function currencyOf(cells: readonly Priced[]): string {
  const counts = new Map<string, number>();
  for (const { currency } of priced(cells)) counts.set(currency, (counts.get(currency) ?? 0) + 1);
  const [most] = [...counts].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
  return most?.[0] ?? '';
}

/** The cheapest known first year of what can be registered, in one currency: that given, or the one most prices are in. */
export function cheapestOf<C extends Priced>(
  cells: readonly C[],
  currency = currencyOf(cells),
): (C & { first_year: string }) | undefined {
  const like = priced(cells).filter((c) => c.currency === currency);
  return like.sort((a, b) => thousandths(a.first_year) - thousandths(b.first_year))[0];
}

function priced<C extends Priced>(cells: readonly C[]): (C & { first_year: string })[] {
  return cells.filter(
    (c): c is C & { first_year: string } => isBuyable(c.status) && c.first_year !== null && c.currency !== '',
  );
}
