import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { BarChart } from '@mui/x-charts/BarChart';

import { formatCount, formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { useMonths } from './useOwned';

const HEIGHT = 190;
const monthWord = (iso: string) =>
  new Date(iso).toLocaleDateString('en', { month: 'short', year: '2-digit', timeZone: 'UTC' });

/** What renewing everything for a year costs, month by month, for two years. */
export function MonthsChart() {
  const { data } = useMonths();
  if (!data?.months.some((one) => one.names)) return null;
  const { currency, months } = data;
  const unknown = months.slice(0, 12).reduce((sum, one) => sum + one.unknown, 0);
  const year = months.slice(0, 12).reduce((sum, one) => sum + Number(one.amount), 0);
  return (
    <Box component="section" aria-label={t('What renewing costs by month')} sx={{ mt: 2 }}>
      <Typography variant="h2">{t('What renewing costs by month')}</Typography>
      <Typography variant="body2" color="textSecondary">
        {t('{money} in the next twelve months, each name renewed for a year where it is, by the sellers’ lists.', {
          money: formatMoney(year, currency),
        })}{' '}
        {unknown > 0 &&
          t('{unknown, plural, one {Of one name} other {Of # names}} it is not known what that costs.', { unknown })}
      </Typography>
      <BarChart
        height={HEIGHT}
        skipAnimation
        hideLegend
        margin={{ left: 8, right: 12, top: 16, bottom: 4 }}
        xAxis={[{ data: months.map((one) => monthWord(one.month)), scaleType: 'band' }]}
        yAxis={[{ width: 56, min: 0, valueFormatter: (n: number) => formatMoney(n, currency) }]}
        series={[
          {
            data: months.map((one) => Number(one.amount)),
            color: '#24625b',
            valueFormatter: (n, { dataIndex }) =>
              t('{money}, {count, plural, one {one name} other {# names}}', {
                money: formatMoney(n, currency),
                count: months[dataIndex]?.names ?? 0,
              }),
          },
        ]}
      />
      <details>
        <summary>{t('As a table')}</summary>
        <Box
          component="table"
          aria-label={t('What renewing costs by month')}
          sx={{ borderCollapse: 'collapse', '& th, & td': { px: 1, py: 0.3, textAlign: 'right' } }}>
          <thead>
            <tr>
              <th scope="col">{t('Month')}</th>
              <th scope="col">{t('Names')}</th>
              <th scope="col">{t('Cost')}</th>
            </tr>
          </thead>
          <tbody>
            {months.map((one) => (
              <tr key={one.month}>
                <th scope="row">{monthWord(one.month)}</th>
                <td>{formatCount(one.names)}</td>
                <td>{formatMoney(one.amount, currency)}</td>
              </tr>
            ))}
          </tbody>
        </Box>
      </details>
    </Box>
  );
}
