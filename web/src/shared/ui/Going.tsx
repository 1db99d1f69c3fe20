import Typography from '@mui/material/Typography';

import type { Judged } from '../api';
import { formatCount } from '../lib/format';
import { t } from '../texts';

const inHundred = (share: number): string =>
  share > 0 && share < 0.01 ? t('under 1') : t('{n, number}', { n: Math.round(100 * share) });

/** How fast names like this one go, in one sentence; nothing where too few were followed. */
export function Going({ going }: Pick<Judged, 'going'>) {
  const told = going.find((g) => g.days === 30) ?? going.at(-1);
  if (!told) return null;
  const { letters_from: from, letters_to: to, extension, words, grade_from: least, grade_to: most } = told;
  const alike = [
    from === to ? t('{n} letters', { n: from }) : t('{from} to {to} letters', { from, to }),
    words !== null && t('{words, plural, one {# word} other {# words}}', { words }),
    least !== null && most !== null && t('a grade of {least, number} to {most, number}', { least, most: most - 1 }),
    extension && t('under .{extension}', { extension }),
  ];
  return (
    <Typography variant="body2" color="textSecondary" sx={{ maxWidth: 520 }}>
      {t(
        'Of {names} names like it that were open ({alike}), {share} in 100 were taken within {days, number} days (range {low} to {high}).',
        {
          names: formatCount(told.names),
          alike: alike.filter(Boolean).join(', '),
          days: told.days,
          share: inHundred(told.share),
          low: inHundred(told.low),
          high: inHundred(told.high),
        },
      )}
    </Typography>
  );
}
