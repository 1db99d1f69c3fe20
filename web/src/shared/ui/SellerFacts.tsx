import Typography from '@mui/material/Typography';

import type { SellerKind } from '../api';
import { changeInWords } from '../lib/priceChange';
import { formatCountry, formatDay, formatMoney } from '../lib/format';
import { t } from '../texts';

/** A seller's terms that make a difference, in phrases. */
function termsInWords(s: SellerKind): string {
  const found = [s.tax === 'included' ? t('prices with tax') : t('tax comes on top')];
  if (s.privacy === 'charged') found.push(t('privacy costs extra'));
  if (s.privacy === 'none') found.push(t('the holder is public'));
  if (s.years_chosen > 1) found.push(t('{years, number} years chosen in advance', { years: s.years_chosen }));
  if (Number(s.top_up) > 0)
    found.push(t('paid from an account, {least} at least', { least: formatMoney(s.top_up, s.currency) }));
  return found.join(' · ');
}

/** Who a seller is, how old its list is, what went wrong with it, and what changed in it. */
export function SellerFacts({ seller: s }: { seller: SellerKind }) {
  const about = { country: formatCountry(s.country), currency: s.currency };
  return (
    <>
      <strong>{s.name}</strong>{' '}
      <Typography component="span" color="textSecondary">
        {s.dated
          ? t('{country}, in {currency}; list of {day}', { ...about, day: formatDay(s.dated) })
          : t('{country}, in {currency}; no list yet', about)}
        {s.own ? ` · ${t('yours')}` : s.by_hand && ` · ${t('kept by hand')}`}
        {s.stale && s.dated && ` · ${s.by_hand ? t('an old list') : t('not heard from for days')}`}
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {termsInWords(s)}
      </Typography>
      {s.trouble && (
        <Typography variant="body2" color="error" sx={{ whiteSpace: 'pre-line' }}>
          {s.trouble}
        </Typography>
      )}
      {s.changes.length > 0 && s.changed_on && (
        <details>
          <summary>
            {t('{n, plural, one {# price} other {# prices}} changed on {day}', {
              n: s.changes.length,
              day: formatDay(s.changed_on),
            })}
          </summary>
          <ul>
            {s.changes.map((c) => (
              <li key={`${c.extension}${c.action}${c.years_from}`}>{changeInWords(c, s.currency)}</li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
