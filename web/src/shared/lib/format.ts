import { chooseLocale, numbers, t } from '../texts';

/** How numbers, dates and prices are written; a person may choose. */
interface Manner {
  locale: string;
  /** To show prices in; empty for the seller's own. */
  currency: string;
  /** What one euro is in that currency. */
  rate: number | null;
}

const makers = (locale: string) => ({
  country: new Intl.DisplayNames(locale, { type: 'region' }),
  moment: new Intl.DateTimeFormat(locale, { dateStyle: 'medium', timeStyle: 'medium' }),
  day: new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }),
  age: new Intl.RelativeTimeFormat(locale, { numeric: 'auto', style: 'short' }),
});
let manner: Manner = { locale: 'en', currency: '', rate: null };
let make = makers(manner.locale);

/** Takes on how a person likes numbers, dates and prices. */
export function setManner(next: Manner): void {
  manner = next;
  chooseLocale(next.locale);
  make = makers(next.locale);
}

/** A count with separators. */
export const formatCount = (n: number): string => numbers().format(n);

function money(amount: number, currency: string): string {
  const digits = amount >= 100 || Number.isInteger(amount) ? 0 : 2;
  return numbers({
    style: 'currency',
    currency,
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  }).format(amount);
}

/** A price with its currency; "not known" where there is none. One worked out by the person's own rate is "about". */
export function formatMoney(exact: string | number | null, currency: string): string {
  if (exact === null) return t('not known');
  const amount = Number(exact);
  if (currency && !/^[A-Z]{3}$/.test(currency)) return `${numbers().format(amount)} ${currency}`;
  const given = currency || 'EUR';
  if (given === 'EUR' && manner.rate && manner.currency && manner.currency !== 'EUR')
    return t('about {money}', { money: money(Math.round(amount * manner.rate), manner.currency) });
  return money(amount, given);
}

/** A date without its time, in UTC, as registries give them. */
export const formatDay = (iso: string): string => make.day.format(new Date(iso));

/** A country (ISO 3166-1) by its name. */
export const formatCountry = (code: string): string =>
  /^[A-Z]{2}$/.test(code) ? (make.country.of(code) ?? code) : code;

/** A sentence with its ISO dates written as every other date. */
export const withDays = (text: string): string => text.replaceAll(/\b\d{4}-\d{2}-\d{2}\b/g, formatDay);

/** The exact time, in the reader's own zone. */
export const formatMoment = (iso: string): string => make.moment.format(new Date(iso));

/** "4 min. ago": how long before `now` (milliseconds) it was. */
export function formatAge(iso: string, now: number): string {
  const seconds = Math.max(0, (now - Date.parse(iso)) / 1000);
  if (seconds < 45) return t('just now');
  if (seconds < 3600) return make.age.format(-Math.max(1, Math.round(seconds / 60)), 'minute');
  if (seconds < 86_400) return make.age.format(-Math.round(seconds / 3600), 'hour');
  return make.age.format(-Math.round(seconds / 86_400), 'day');
}

/** "in 3 hr.": how long after `now` (milliseconds) it is; what is over is said to be. */
export function formatLeft(iso: string, now: number): string {
  const seconds = (Date.parse(iso) - now) / 1000;
  if (seconds <= 0) return t('over');
  if (seconds < 3600) return make.age.format(Math.max(1, Math.round(seconds / 60)), 'minute');
  if (seconds < 172_800) return make.age.format(Math.round(seconds / 3600), 'hour');
  return make.age.format(Math.round(seconds / 86_400), 'day');
}

/** A share of people: "3 in 100". */
export const shareOf = (part: number): string =>
  part < 0.01 ? t('under 1 in 100') : t('{share, number} in 100', { share: Math.round(100 * part) });
