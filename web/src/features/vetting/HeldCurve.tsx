import Box from '@mui/material/Box';
import { useColorScheme } from '@mui/material/styles';
import { LineChart } from '@mui/x-charts/LineChart';

import { formatCount, formatMoney, shareOf } from '../../shared/lib/format';
import { t } from '../../shared/texts';

export interface CurvePoint {
  /** Thousandths of the currency. */
  yearly: number;
  caught: number;
  names: number;
}

const INK = { light: '#24625b', dark: '#7cc5b8' };

/** How many of those who would land elsewhere are caught, by what it costs a year. */
export function HeldCurve({ points, currency }: { points: readonly CurvePoint[]; currency: string }) {
  const { mode, systemMode } = useColorScheme();
  const ink = (mode === 'system' ? systemMode : mode) === 'dark' ? INK.dark : INK.light;
  return (
    <Box>
      <LineChart
        height={210}
        skipAnimation
        margin={{ left: 4, right: 24, top: 12, bottom: 4 }}
        xAxis={[
          {
            data: points.map((p) => p.yearly / 1000),
            scaleType: 'linear',
            min: 0,
            valueFormatter: (n: number) => formatMoney(n, currency),
          },
        ]}
        yAxis={[{ width: 40, min: 0, max: 1, valueFormatter: (n: number) => formatCount(100 * n) }]}
        series={[
          {
            id: 'caught',
            label: t('Of 100 who would land elsewhere, caught by what it costs a year'),
            data: points.map((p) => p.caught),
            color: ink,
            curve: 'stepAfter' as const,
            showMark: false,
            valueFormatter: (n: number | null) => shareOf(n ?? 0),
          },
        ]}
        slotProps={{ legend: { direction: 'horizontal', position: { vertical: 'bottom', horizontal: 'center' } } }}
      />
      <details>
        <summary>{t('As a table')}</summary>
        <Box
          component="table"
          aria-label={t('Caught, by what it costs a year')}
          sx={{ borderCollapse: 'collapse', '& th, & td': { px: 1, py: 0.2, textAlign: 'right' } }}>
          <thead>
            <tr>
              <th scope="col">{t('A year')}</th>
              <th scope="col">{t('Names')}</th>
              <th scope="col">{t('Caught')}</th>
            </tr>
          </thead>
          <tbody>
            {points.map((p) => (
              <tr key={p.yearly}>
                <td>{formatMoney(p.yearly / 1000, currency)}</td>
                <td>{p.names}</td>
                <td>{shareOf(p.caught)}</td>
              </tr>
            ))}
          </tbody>
        </Box>
      </details>
    </Box>
  );
}
