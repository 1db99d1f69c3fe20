import type { CouponKind } from '../../shared/api';
import { formatDay, formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';

const ACTIONS: Record<string, string> = {
  register: t('registering'),
  renew: t('renewing'),
  move: t('moving in'),
};

/** What a coupon takes off. */
export function takesInWords({ takes, value }: CouponKind, currency: string): string {
  if (takes === 'percent') return t('{value} % off', { value: String(Number(value)) });
  const amount = formatMoney(value, currency);
  return takes === 'amount' ? t('{amount} off the order', { amount }) : t('the first year for {amount}', { amount });
}

/** What it is for and when it holds, each condition a phrase. */
export function conditionsInWords(coupon: CouponKind, currency: string): string[] {
  const { extensions, actions, years_from: from, years_to: to, least_names: names, starts, ends } = coupon;
  const found = [actions.map((a) => ACTIONS[a] ?? a).join(', ')];
  if (extensions.length) found.push(t('under {extensions}', { extensions: extensions.map((e) => `.${e}`).join(', ') }));
  if (from > 1 || to < 10)
    found.push(
      from === to
        ? t('for {from, plural, one {# year} other {# years}}', { from })
        : t('for {from, number} to {to, number} years', { from, to }),
    );
  if (names > 1) found.push(t('from {names, number} names', { names }));
  if (Number(coupon.least_sum) > 0) found.push(t('from {sum}', { sum: formatMoney(coupon.least_sum, currency) }));
  if (coupon.new_customers) found.push(t('new customers'));
  if (coupon.combines) found.push(t('with others'));
  if (!coupon.on_promotions) found.push(t('not on promotional prices'));
  if (starts) found.push(t('from {day}', { day: formatDay(starts) }));
  found.push(ends ? t('until {day}', { day: formatDay(ends) }) : t('without an end'));
  return found;
}

/** How likely it works: a share with its range, and on how many reports that rests. */
export function oddsInWords({ mean, low, high, reports }: CouponKind['odds']): string {
  const percent = (share: number) => Math.round(100 * share);
  if (reports === 0) return t('nobody has said yet');
  return t('{mean, number} % ({low, number} to {high, number}), {reports, plural, one {# report} other {# reports}}', {
    mean: percent(mean),
    low: percent(low),
    high: percent(high),
    reports,
  });
}
