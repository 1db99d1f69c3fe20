import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { LineChart } from '@mui/x-charts/LineChart';

import type { Scarcity as Left } from '../../shared/api';
import { formatCount, formatDay } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { useInks } from '../../shared/ui/useInks';
import { useScarcity } from './useShortNames';

const HEIGHT = 230;

/** When half will be gone, as far as that can be said. */
export function halfInWords({ extension, projected, half_gone: day, earliest, latest, free, whole }: Left): string {
  const last = free.at(-1) ?? 0;
  const share = { extension, share: Math.round((100 * last) / whole) };
  if (last * 2 <= whole) return t('.{extension}: {share, number} in 100 are left; half are gone already.', share);
  if (!projected)
    return t('.{extension}: {share, number} in 100 are left; too few days are known for an estimate.', share);
  if (!day)
    return t(
      '.{extension}: {share, number} in 100 are left; as it goes, half will not be gone within fifty years.',
      share,
    );
  const range = {
    day: formatDay(day),
    from: earliest ? formatDay(earliest) : t('soon'),
    to: latest ? formatDay(latest) : t('never'),
  };
  return t(
    '.{extension}: {share, number} in 100 are left; if it goes on so, half are gone about {day} (an estimate: {from} to {to}).',
    { ...share, ...range },
  );
}

/** How many names of a shape are left under each extension, from one zone file to the next. */
export function Scarcity({ shape }: { shape: string }) {
  const { data } = useScarcity(shape);
  const inks = useInks();
  if (!data?.length) return null;
  const days = [...new Set(data.flatMap((one) => one.days))].sort();
  return (
    <Box component="section" aria-label={t('How many are left')} sx={{ mt: 3 }}>
      <Typography variant="h3" component="h2">
        {shape.startsWith('?')
          ? t('How many names of {letters, plural, one {# letter} other {# letters}} are left', {
              letters: shape.length,
            })
          : t('How many names like {shape} are left', { shape })}
      </Typography>
      {days.length > 1 && (
        <LineChart
          height={HEIGHT}
          skipAnimation
          margin={{ left: 8, right: 52, top: 16, bottom: 8 }}
          xAxis={[{ data: days, scaleType: 'point', valueFormatter: (day: string) => formatDay(day) }]}
          yAxis={[{ width: 72, min: 0, valueFormatter: (n: number) => formatCount(n) }]}
          series={data.map((one, i) => ({
            id: one.extension,
            label: `.${one.extension}`,
            data: days.map((day) => one.free[one.days.indexOf(day)] ?? null),
            color: inks[i % inks.length] ?? '#000',
            curve: 'linear' as const,
            connectNulls: true,
          }))}
          slotProps={{ legend: { direction: 'horizontal', position: { vertical: 'bottom', horizontal: 'center' } } }}
        />
      )}
      <Box component="ul" sx={{ m: 0, pl: 2 }}>
        {data.map((one) => (
          <li key={one.extension}>{halfInWords(one)}</li>
        ))}
      </Box>
    </Box>
  );
}
