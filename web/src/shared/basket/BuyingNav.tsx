import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import { NavLink } from 'react-router';

import { t } from '../texts';

const PLACES = [
  ['/basket', t('Basket')],
  ['/orders', t('Orders')],
  ['/owned', t('My names')],
  ['/contacts', t('Contacts')],
] as const;

/** From what is to be bought to what was ordered and for whom. */
export const BuyingNav = () => (
  <Stack
    component="nav"
    aria-label={t('Buying and owning')}
    direction="row"
    sx={{ columnGap: 2.5, flexWrap: 'wrap', mb: 1.5, displayPrint: 'none' }}>
    {PLACES.map(([to, word]) => (
      <Box
        key={to}
        component={NavLink}
        to={to}
        sx={{
          color: 'text.secondary',
          textDecoration: 'none',
          fontWeight: 600,
          py: 0.6,
          borderBottom: 2,
          borderColor: 'transparent',
          '&.active': { color: 'primary.main', borderColor: 'secondary.main' },
        }}>
        {word}
      </Box>
    ))}
  </Stack>
);
