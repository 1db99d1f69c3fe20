/** How numbers, dates and prices are written; a person may choose. */
interface Manner {
  locale: string;
  /** To show prices in; empty for the seller's own. */
  currency: string;
  /** What one euro is in that currency. */
  rate: number | null;
}

const makers = (locale: string) => ({
  count: new Intl.NumberFormat(locale),
  moment: new Intl.DateTimeFormat(locale, { dateStyle: 'medium', timeStyle: 'medium' }),
  day: new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }),
});
let manner: Manner = { locale: 'en', currency: '', rate: null };
let make = makers(manner.locale);

/** Takes on how a person likes numbers, dates and prices. */
export function setManner(next: Manner): void {
  manner = next;
  make = makers(next.locale);
}

/** A count with separators. */
export const formatCount = (n: number): string => make.count.format(n);

// Making a format takes longer than a whole row of the sheet.
const moneys = new Map<string, Intl.NumberFormat>();

function money(amount: number, currency: string): string {
  const digits = amount >= 100 || Number.isInteger(amount) ? 0 : 2;
  const key = `${manner.locale}${currency}${digits}`;
  let format = moneys.get(key);
  if (!format) {
    format = new Intl.NumberFormat(manner.locale, {
      style: 'currency',
      currency,
      minimumFractionDigits: digits,
      maximumFractionDigits: digits,
    });
    moneys.set(key, format);
  }
  return format.format(amount);
}

/** A price with its currency; "not known" where there is none. One worked out by the person's own rate is "about". */
export function formatMoney(exact: string | number | null, currency: string): string {
  if (exact === null) return 'not known';
  const amount = Number(exact);
  if (currency && !/^[A-Z]{3}$/.test(currency)) return `${make.count.format(amount)} ${currency}`;
  const given = currency || 'EUR';
  if (given === 'EUR' && manner.rate && manner.currency && manner.currency !== 'EUR')
    return `about ${money(Math.round(amount * manner.rate), manner.currency)}`;
  return money(amount, given);
}

/** A date without its time, in UTC, as registries give them. */
export const formatDay = (iso: string): string => make.day.format(new Date(iso));

/** A sentence with its ISO dates written as every other date. */
export const withDays = (text: string): string => text.replaceAll(/\b\d{4}-\d{2}-\d{2}\b/g, formatDay);

/** The exact time, in the reader's own zone. */
export const formatMoment = (iso: string): string => make.moment.format(new Date(iso));

/** "4 min ago": how long before `now` (milliseconds) it was. */
export function formatAge(iso: string, now: number): string {
  const seconds = Math.max(0, (now - Date.parse(iso)) / 1000);
  if (seconds < 45) return 'just now';
  if (seconds < 3600) return `${Math.max(1, Math.round(seconds / 60))} min ago`;
  if (seconds < 86_400) return `${Math.round(seconds / 3600)} h ago`;
  const days = Math.round(seconds / 86_400);
  return days === 1 ? 'yesterday' : `${formatCount(days)} days ago`;
}

/** A share of people: "3 in 100". */
export const shareOf = (part: number): string => (part < 0.01 ? 'under 1 in 100' : `${Math.round(100 * part)} in 100`);

/** One or many: `plural(1, 'name')` is "1 name". */
export const plural = (n: number, one: string, many = `${one}s`): string => `${formatCount(n)} ${n === 1 ? one : many}`;
