import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';

import type { Costed } from '../../shared/api';
import { formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';

interface Props {
  costed: Costed;
  currency: string;
  nameOf: (code: string) => string;
}

/** What staying with each seller comes to: all of it, a year, the first payment, the dearest year. */
export function AtSellers({ costed, currency, nameOf }: Props) {
  const known = costed.sellers.filter((s) => s.total !== null);
  if (known.length === 0) return null;
  const money = (amount: string | null) => formatMoney(amount, currency);
  return (
    <>
      <Typography variant="h3" sx={{ mt: 2, mb: 0.5 }}>
        {t('Staying with one seller')}
      </Typography>
      <Box sx={{ overflowX: 'auto' }}>
        <Box
          component="table"
          aria-label={t('Staying with one seller')}
          sx={{
            borderCollapse: 'collapse',
            '& th, & td': { pr: 2.5, py: 0.3, textAlign: 'right', whiteSpace: 'nowrap', fontWeight: 400 },
            '& th:first-of-type': { textAlign: 'left' },
            '& thead th': { color: 'text.secondary', fontSize: '0.85rem' },
          }}>
          <thead>
            <tr>
              <th scope="col">{t('Seller')}</th>
              <th scope="col">{t('in all')}</th>
              <th scope="col">{t('a year')}</th>
              <th scope="col">{t('first payment')}</th>
              <th scope="col">{t('dearest year')}</th>
            </tr>
          </thead>
          <tbody>
            {known.map((s) => (
              <tr key={s.seller}>
                <th scope="row">{nameOf(s.seller)}</th>
                <td>{money(s.total)}</td>
                <td>{money(s.a_year)}</td>
                <td>{money(s.first)}</td>
                <td>{money(s.dearest)}</td>
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
    </>
  );
}
