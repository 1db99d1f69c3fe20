import Box from '@mui/material/Box';

import type { KnownFigure } from '../../shared/api';
import { formatCount, formatMoney, shareOf } from '../../shared/lib/format';
import { t } from '../../shared/texts';

/** Searches a month as they were told: a number, a range, that many and more, or nothing known. */
export function searchesOf({ low, high }: Pick<KnownFigure, 'low' | 'high'>): string {
  if (low === null) return t('unknown');
  if (high === null) return t('{low, number} and more', { low });
  return low === high ? formatCount(low) : t('{low, number} – {high, number}', { low, high });
}

/** A source, with the country and language its figures are of. */
export function viewWord(key: string): string {
  const [source = '', country = '', language = ''] = key.split('|');
  return [source, country, language].filter(Boolean).join(' · ');
}

export const priceOf = ({ price, currency }: KnownFigure): string =>
  price === null ? '–' : formatMoney(price, currency);

export const competitionOf = ({ competition }: KnownFigure): string =>
  competition === null ? '–' : shareOf(competition);

/** The names of the twelve months that end with `last` (2026-10); numbers where nobody said which they are. */
export function monthNames(last: string): string[] {
  const [year, month] = last.split('-').map(Number);
  return Array.from({ length: 12 }, (_, i) => {
    if (!year || !month) return t('month {n, number}', { n: i + 1 });
    const day = new Date(Date.UTC(year, month - 12 + i, 1));
    return day.toLocaleDateString('en', { month: 'short', year: '2-digit', timeZone: 'UTC' });
  });
}

interface BarsProps {
  figure: KnownFigure;
  width?: number;
  height?: number;
}

/** Twelve months as small bars, the strongest filled. */
export function MonthBars({ figure: { months, last_month }, width = 74, height = 20 }: BarsProps) {
  if (!months.length) return null;
  const known = months.map((m) => m ?? 0);
  const most = Math.max(...known, 1);
  const step = width / 12;
  const names = monthNames(last_month);
  const told = months.map((m, i) => `${names[i]}: ${m === null ? t('unknown') : formatCount(m)}`).join(', ');
  return (
    <Box component="svg" width={width} height={height} role="img" aria-label={told} sx={{ verticalAlign: 'middle' }}>
      <title>{told}</title>
      {known.map((m, i) => {
        const tall = Math.max(1, (m / most) * (height - 1));
        return (
          <Box
            component="rect"
            key={names[i]}
            x={i * step}
            y={height - tall}
            width={step - 1.2}
            height={tall}
            sx={{ fill: m === most ? 'var(--mui-palette-warning-main)' : 'var(--mui-palette-secondary-main)' }}
          />
        );
      })}
    </Box>
  );
}
