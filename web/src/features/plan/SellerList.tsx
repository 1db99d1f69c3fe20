import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';

import type { SellerKind } from '../../shared/api';
import { formatDay } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { changeInWords } from './inWords';

/** Whose lists the costs are from, how old they are, and what changed in them. */
export function SellerList({ sellers }: { sellers: readonly SellerKind[] }) {
  return (
    <Box component="ul" aria-label={t('Sellers')} sx={{ m: 0, pl: 2.5 }}>
      {sellers.map((s) => (
        <li key={s.code}>
          <strong>{s.name}</strong>{' '}
          <Typography component="span" color="textSecondary">
            {s.dated
              ? t('{country}, in {currency}; list of {day}', {
                  country: s.country,
                  currency: s.currency,
                  day: formatDay(s.dated),
                })
              : t('{country}, in {currency}; no list yet', { country: s.country, currency: s.currency })}
            {s.stale && s.dated && ` · ${t('not heard from for days')}`}
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
        </li>
      ))}
    </Box>
  );
}
