import Box from '@mui/material/Box';
import { NavLink } from 'react-router';

import { useBasket } from '../../shared/basket/useBasket';
import { formatCount } from '../../shared/lib/format';
import { t } from '../../shared/texts';

/** The way to the basket, with how much is in it; nothing while there is nothing. */
export function BasketLink() {
  const { data } = useBasket();
  if (!data?.items.length) return null;
  return (
    <Box component={NavLink} to="/basket" sx={{ color: 'text.secondary', textDecoration: 'none' }}>
      {t('Basket {count}', { count: formatCount(data.items.length) })}
    </Box>
  );
}
