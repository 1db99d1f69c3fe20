import type { SellerKind } from '../api';
import { formatMoney } from './format';
import { t } from '../texts';

type Change = SellerKind['changes'][number];

const CHANGED: Record<string, string> = {
  register: t('registration'),
  renew: t('renewal'),
  move: t('moving in'),
  restore: t('getting back what lapsed'),
  privacy: t('privacy'),
  fee: t('fee for the registry'),
};

/** What changed in a seller's list: for which extension, for how many years, from what to what. */
export function changeInWords(change: Change, currency: string): string {
  const { kind, extension, action, years_from: from, years_to: to } = change;
  const paid = CHANGED[action] ?? action;
  const what = extension === '*' ? paid : `.${extension}, ${paid}`;
  const terms =
    from === to
      ? t('{from, plural, one {# year} other {# years}}', { from })
      : t('{from, number} to {to, number} years', { from, to });
  const amounts = {
    what: `${what}, ${terms}`,
    before: change.before && formatMoney(change.before, currency),
    after: change.after && formatMoney(change.after, currency),
  };
  if (kind === 'came') return t('{what}: now offered for {after}', amounts);
  if (kind === 'went') return t('{what}: no longer offered', amounts);
  return kind === 'rose'
    ? t('{what}: rose from {before} to {after}', amounts)
    : t('{what}: fell from {before} to {after}', amounts);
}
