import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import type { Presented } from '../../shared/api';
import { t } from '../../shared/texts';

interface Props {
  met: Presented;
  shown: string;
  /** The other names of the shortlist, to be seen beside. */
  others: readonly string[];
}

const FEW = 5;

/** A name as it is met: spelt, said, in capitals, as an address, from far away and among others. */
export function SaidAndSeen({ met, shown, others }: Props) {
  const lines: readonly (readonly [string, string])[] = [
    [t('Said'), met.said || t('not known')],
    [t('In capitals'), met.capitals],
    [t('As an address'), met.email],
    [t('As a handle'), met.handle || t('none in these letters')],
  ];
  return (
    <Box
      sx={{
        display: 'grid',
        gap: 2,
        gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1.2fr) minmax(0, 1fr)' },
        mt: 1,
      }}>
      <Box>
        <Stack
          component="ol"
          direction="row"
          aria-label={t('Spelt on the telephone')}
          sx={{ listStyle: 'none', m: 0, p: 0, flexWrap: 'wrap', gap: 0.6, mb: 1 }}>
          {met.alphabet.map(({ letter, word }, i) => (
            <Box
              component="li"
              key={i}
              sx={{ border: 1, borderColor: 'divider', borderRadius: 1, px: 0.8, py: 0.2, textAlign: 'center' }}>
              <Box component="span" className="serif" sx={{ fontWeight: 600, display: 'block', lineHeight: 1.2 }}>
                {letter}
              </Box>
              <Box component="span" sx={{ fontSize: '0.72rem', color: 'text.secondary' }}>
                {word}
              </Box>
            </Box>
          ))}
        </Stack>
        <Box
          component="dl"
          sx={{ m: 0, display: 'grid', gridTemplateColumns: 'auto 1fr', columnGap: 1.5, rowGap: 0.3 }}>
          {lines.map(([word, value]) => (
            <Box key={word} sx={{ display: 'contents' }}>
              <Typography component="dt" variant="body2" color="textSecondary">
                {word}
              </Typography>
              <Box
                component="dd"
                sx={{ m: 0, overflowWrap: 'anywhere', letterSpacing: word === lines[1]?.[0] ? 1 : 0 }}>
                {value}
              </Box>
            </Box>
          ))}
        </Box>
      </Box>
      <Stack direction="row" sx={{ gap: 3, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <Box>
          <Typography variant="caption" color="textSecondary" component="p">
            {t('From across the street')}
          </Typography>
          <Box
            className="serif"
            aria-hidden
            sx={{ fontSize: '1.7rem', fontWeight: 600, filter: 'blur(2.6px)', overflowWrap: 'anywhere' }}>
            {shown}
          </Box>
        </Box>
        {others.length > 0 && (
          <Box>
            <Typography variant="caption" color="textSecondary" component="p">
              {t('Among the others')}
            </Typography>
            {[shown, ...others.slice(0, FEW)].toSorted().map((name) => (
              <Box
                key={name}
                className="serif"
                sx={{ lineHeight: 1.4, fontWeight: name === shown ? 700 : 400, overflowWrap: 'anywhere' }}>
                {name}
              </Box>
            ))}
          </Box>
        )}
      </Stack>
    </Box>
  );
}
