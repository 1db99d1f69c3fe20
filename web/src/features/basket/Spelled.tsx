import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import type { BasketItem } from '../../shared/api';
import { t } from '../../shared/texts';

/** A name large, letter by letter, as it will be bought. */
export function Spelled({ item }: { item: BasketItem }) {
  return (
    <Stack
      direction="row"
      role="img"
      aria-label={t('{name}, spelled: {letters}', {
        name: item.shown,
        letters: item.spelled.map((one) => one.said).join(', '),
      })}
      sx={{ flexWrap: 'wrap', gap: 0.6 }}>
      {item.spelled.map((one, place) => (
        <Box key={place} aria-hidden sx={{ textAlign: 'center', minWidth: 26 }}>
          <Box className="serif" sx={{ fontSize: '1.9rem', lineHeight: 1.1, fontWeight: 600 }}>
            {one.letter}
          </Box>
          <Typography variant="caption" color="textSecondary">
            {one.said}
          </Typography>
        </Box>
      ))}
    </Stack>
  );
}
