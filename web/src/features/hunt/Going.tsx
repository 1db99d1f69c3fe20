import Typography from '@mui/material/Typography';

import type { Judged } from '../../shared/api';
import { formatCount } from '../../shared/lib/format';
import { t } from '../../shared/texts';

const inHundred = (share: number): string =>
  share > 0 && share < 0.01 ? t('under 1') : t('{n, number}', { n: Math.round(100 * share) });

/** How fast names like this one go, in one sentence; nothing where too few were followed. */
export function Going({ going }: Pick<Judged, 'going'>) {
  const told = going.find((g) => g.days === 30) ?? going.at(-1);
  if (!told) return null;
  const like = {
    names: formatCount(told.names),
    letters:
      told.letters_from === told.letters_to
        ? t('{n} letters', { n: told.letters_from })
        : t('{from} to {to} letters', { from: told.letters_from, to: told.letters_to }),
    extension: told.extension,
    days: told.days,
    share: inHundred(told.share),
    low: inHundred(told.low),
    high: inHundred(told.high),
  };
  return (
    <Typography variant="body2" color="textSecondary" sx={{ maxWidth: 520 }}>
      {told.extension
        ? t(
            'Of {names} names like it that were open ({letters} under .{extension}), {share} in 100 were taken within {days, number} days (range {low} to {high}).',
            like,
          )
        : t(
            'Of {names} names like it that were open ({letters}), {share} in 100 were taken within {days, number} days (range {low} to {high}).',
            like,
          )}
    </Typography>
  );
}
