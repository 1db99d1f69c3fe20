import type { Step } from '../../shared/api';
import { formatCountry, formatDay, formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';

type Line = Step['order']['lines'][number];

/** The steps of a way in sentences; renewals in a row that are alike make one. */
export function wayInWords(steps: readonly Step[], nameOf: (code: string) => string): string[] {
  const sentences: string[] = [];
  for (let i = 0; i < steps.length; i += 1) {
    const step = steps[i];
    if (!step) continue;
    let last = i;
    const alike = (other: Step | undefined) =>
      step.action === 'renew' &&
      other?.action === 'renew' &&
      other.seller === step.seller &&
      other.years === step.years;
    while (alike(steps[last + 1])) last += 1;
    const values = { seller: nameOf(step.seller), years: step.years, on: formatDay(step.on) };
    if (step.action === 'register')
      sentences.push(
        t('Register at {seller} for {years, plural, one {# year} other {# years}}.', {
          seller: values.seller,
          years: values.years,
        }),
      );
    else if (step.action === 'move')
      sentences.push(t('Move to {seller} on {on}.', { seller: values.seller, on: values.on }));
    else if (last > i)
      sentences.push(
        t(
          'From {on} renew at {seller}, {years, plural, one {a year} other {# years}} at a time, {times, number} times.',
          {
            ...values,
            times: last - i + 1,
          },
        ),
      );
    else sentences.push(t('Renew at {seller} on {on} for {years, plural, one {# year} other {# years}}.', values));
    i = last;
  }
  return sentences;
}

const KINDS: Record<string, string> = {
  registration: t('registration'),
  renewal: t('renewal'),
  move: t('moving in'),
  promotion: t('promotion'),
  privacy: t('privacy'),
  registry_fee: t('fee for the registry'),
  coupon: t('coupon'),
  tax: t('tax'),
  tax_within: t('tax'),
};

const text = (value: unknown) => (typeof value === 'string' ? value : '');

/** What a line is for, and why it is what it is. */
export function lineInWords(line: Line, currency: string): string {
  const money = (amount: unknown) => formatMoney(text(amount), currency);
  const kind = KINDS[line.kind] ?? line.kind;
  const { args } = line;
  const years = Number(args.years);
  switch (line.reason) {
    case 'list':
      return args.per === 'year'
        ? t('{kind}: {price} a year, {years, plural, one {# year} other {# years}}', {
            kind,
            price: money(args.price),
            years,
          })
        : t('{kind}: {price} for {years, plural, one {# year} other {# years}}', {
            kind,
            price: money(args.price),
            years,
          });
    case 'premium':
      return args.listed
        ? t('{kind}: a premium name, {later} each later year; usual ones {listed}', {
            kind,
            later: money(args.later),
            listed: money(args.listed),
          })
        : t('{kind}: a premium name, {later} each later year', { kind, later: money(args.later) });
    case 'quoted':
      return args.listed
        ? t('{kind}: as the seller asks for this name; its list says {listed}', { kind, listed: money(args.listed) })
        : t('{kind}: as the seller asks for this name', { kind });
    case 'first_year':
      return t('{kind}: the first year for {price}', { kind, price: money(args.price) });
    case 'first_names':
      return t('{kind}: the first names of an order for {price} each', { kind, price: money(args.price) });
    case 'new_customers':
      return t('{kind}: for new customers, {price}', { kind, price: money(args.price) });
    case 'coupon':
      return t('{kind} {code}', { kind, code: text(args.code) });
    case 'charged':
      return t('{kind}: {percent} % as in {country}', {
        kind,
        percent: String(Number(args.percent)),
        country: formatCountry(text(args.country)),
      });
    case 'reverse':
      return t('{kind}: accounted for by the buyer', { kind });
    case 'abroad':
      return t('{kind}: none is asked for outside the Union', { kind });
    case 'within':
      return t('{kind}: {held} of it is in the price', { kind, held: money(args.held) });
    case 'unknown':
      return t('{kind}: which one there is, is not known; the price is net', { kind });
    default:
      return kind;
  }
}

/** Where a line's price is from, and of which day; "" for what follows from other lines. */
export function sourceInWords({ reason, args }: Line): string {
  if (reason === 'list')
    return typeof args.dated === 'string' ? t('list of {day}', { day: formatDay(args.dated) }) : '';
  return reason === 'premium' || reason === 'quoted' ? t('asked for this name') : '';
}
