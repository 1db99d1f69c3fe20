import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useColorScheme } from '@mui/material/styles';
import { LineChart } from '@mui/x-charts/LineChart';

import type { Costs, SellerKind } from '../../shared/api';
import { formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';

// By place: the plan first. Dark enough on paper, light enough at night.
const INKS = {
  light: ['#4f2143', '#24625b', '#8a5208', '#3b5488', '#9a3412', '#5c6b1f', '#7a4a7c', '#66525f'],
  dark: ['#dcb3cf', '#7cc5b8', '#e3ab58', '#9db4e6', '#f0a184', '#b9c971', '#c9a2cb', '#bfaab7'],
};
const HEIGHT = 260;

interface Props {
  costs: Pick<Costs, 'paid' | 'currency'>;
  sellers: readonly SellerKind[];
}

/** What has been paid by the end of each year: by the plan, and staying with one seller for all names. */
export function PaidChart({ costs: { paid, currency }, sellers }: Props) {
  const { mode, systemMode } = useColorScheme();
  const inks = (mode === 'system' ? systemMode : mode) === 'dark' ? INKS.dark : INKS.light;
  const nameOf = (code: string) =>
    code === '' ? t('This plan') : (sellers.find((s) => s.code === code)?.name ?? code);
  const years = (paid[0]?.amounts ?? []).map((_, i) => i + 1);
  return (
    <Box component="section" aria-label={t('Paid over the years')} sx={{ mt: 2 }}>
      <Typography variant="h2">{t('Paid over the years')}</Typography>
      <Typography variant="body2" color="textSecondary">
        {t('All that has been paid by the end of each year: by this plan, and staying with one seller for all names.')}
      </Typography>
      <LineChart
        height={HEIGHT}
        skipAnimation
        margin={{ left: 8, right: 36, top: 16, bottom: 8 }}
        xAxis={[{ data: years, scaleType: 'point', valueFormatter: (n: number) => t('year {n, number}', { n }) }]}
        yAxis={[{ width: 56, min: 0, valueFormatter: (n: number) => formatMoney(n, currency) }]}
        series={paid.map(({ seller, amounts }, i) => ({
          id: seller || 'plan',
          label: nameOf(seller),
          data: amounts.map(Number),
          color: inks[i % inks.length] ?? '#000',
          curve: 'linear' as const,
          showMark: i === 0,
          valueFormatter: (n: number | null) => formatMoney(n, currency),
        }))}
        slotProps={{ legend: { direction: 'horizontal', position: { vertical: 'bottom', horizontal: 'center' } } }}
      />
      <details>
        <summary>{t('As a table')}</summary>
        <Box sx={{ overflowX: 'auto' }}>
          <Box
            component="table"
            aria-label={t('Paid over the years')}
            sx={{
              borderCollapse: 'collapse',
              '& th, & td': { px: 1, py: 0.3, textAlign: 'right', whiteSpace: 'nowrap' },
            }}>
            <thead>
              <tr>
                <th scope="col">{t('Year')}</th>
                {paid.map(({ seller }) => (
                  <th scope="col" key={seller}>
                    {nameOf(seller)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {years.map((year, i) => (
                <tr key={year}>
                  <th scope="row">{year}</th>
                  {paid.map(({ seller, amounts }) => (
                    <td key={seller}>{formatMoney(amounts[i] ?? null, currency)}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </Box>
        </Box>
      </details>
    </Box>
  );
}
