import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { LineChart } from '@mui/x-charts/LineChart';

import type { LengthPrices as Asked } from '../../shared/api';
import { formatCount, formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { useInks } from '../../shared/ui/useInks';
import { useLengthPrices } from './useShortNames';

const HEIGHT = 250;

/** The shortest and the longest of one extension that are told of, in words. */
export function spanInWords(extension: string, { currency, prices }: Asked): string {
  const told = prices.filter((one) => one.extension === extension);
  const [first, last] = [told[0], told.at(-1)];
  if (!first || !last) return '';
  const names = told.reduce((sum, one) => sum + one.names, 0);
  const values = {
    extension,
    names: formatCount(names),
    short: first.letters,
    long: last.letters,
    low: formatMoney(first.low.toFixed(2), currency),
    middle: formatMoney(first.middle.toFixed(2), currency),
    high: formatMoney(first.high.toFixed(2), currency),
    later: formatMoney(last.middle.toFixed(2), currency),
  };
  return first === last
    ? t(
        '.{extension}: of {names} for sale, those of {short, plural, one {# letter} other {# letters}} ask {middle} in the middle, half of them {low} to {high}.',
        values,
      )
    : t(
        '.{extension}: of {names} for sale, those of {short, plural, one {# letter} other {# letters}} ask {middle} in the middle, half of them {low} to {high}; those of {long} letters {later}.',
        values,
      );
}

/** What names for sale ask by their length, under each extension. */
export function LengthPrices({ projectId, extensions }: { projectId: number; extensions: string }) {
  const { data } = useLengthPrices(projectId, extensions);
  const inks = useInks();
  if (!data?.prices.length) return null;
  const shown = [...new Set(data.prices.map((one) => one.extension))];
  const letters = [...new Set(data.prices.map((one) => one.letters))].sort((a, b) => a - b);
  const middle = (extension: string, n: number) =>
    data.prices.find((one) => one.extension === extension && one.letters === n)?.middle ?? null;
  return (
    <Box component="section" aria-label={t('What names for sale ask')} sx={{ mt: 3 }}>
      <Typography variant="h3" component="h2">
        {t('What names for sale ask, by their letters')}
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {t(
          'The price in the middle by the lists of markets, each name once at its lowest. Each step up is ten times as much.',
        )}
      </Typography>
      {letters.length > 1 && (
        <LineChart
          height={HEIGHT}
          skipAnimation
          margin={{ left: 8, right: 36, top: 16, bottom: 8 }}
          xAxis={[{ data: letters, scaleType: 'point', valueFormatter: (n: number) => formatCount(n) }]}
          yAxis={[
            {
              width: 84,
              scaleType: 'log',
              valueFormatter: (n: number) =>
                Number.isInteger(Math.round(Math.log10(n) * 1e6) / 1e6) ? formatMoney(n, data.currency) : '',
            },
          ]}
          series={shown.map((extension, i) => ({
            id: extension,
            label: `.${extension}`,
            data: letters.map((n) => middle(extension, n)),
            valueFormatter: (n: number | null) => (n === null ? '' : formatMoney(n.toFixed(2), data.currency)),
            color: inks[i % inks.length] ?? '#000',
            curve: 'linear' as const,
            connectNulls: true,
          }))}
          slotProps={{ legend: { direction: 'horizontal', position: { vertical: 'bottom', horizontal: 'center' } } }}
        />
      )}
      <Box component="ul" sx={{ m: 0, pl: 2 }}>
        {shown.map((extension) => (
          <li key={extension}>{spanInWords(extension, data)}</li>
        ))}
      </Box>
    </Box>
  );
}
