import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { Link, useParams } from 'react-router';

import { BuyingNav } from '../../shared/basket/BuyingNav';
import { t } from '../../shared/texts';
import { EmptyState } from '../../shared/ui/EmptyState';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { OrderCard } from './OrderCard';
import { useOrder, useOrders } from '../../shared/basket/useOrders';

/** All that was ordered, the newest first. */
export function OrdersPage() {
  const { data, error, refetch } = useOrders();
  if (!data) {
    if (!error) return <LinearProgress aria-label={t('Loading')} />;
    return <LoadFailed title={t('Orders could not be loaded')} error={error} onRetry={refetch} />;
  }
  return (
    <Box component="main" sx={{ maxWidth: 1120, mx: 'auto', px: 2, py: 3 }}>
      <BuyingNav />
      <Typography variant="h1">{t('Orders')}</Typography>
      {data.orders.map((order) => (
        <OrderCard key={order.id} order={order} />
      ))}
      {!data.orders.length && (
        <EmptyState
          title={t('Nothing was ordered yet')}
          action={
            <Button component={Link} to="/basket" variant="contained">
              {t('To the basket')}
            </Button>
          }>
          {t('An order is placed from the basket, once everything in it was looked at.')}
        </EmptyState>
      )}
    </Box>
  );
}

/** One order. */
export function OrderPage() {
  const { order: id } = useParams();
  const { data, error, refetch } = useOrder(Number(id));
  if (!data) {
    if (!error) return <LinearProgress aria-label={t('Loading')} />;
    return <LoadFailed title={t('The order could not be loaded')} error={error} onRetry={refetch} />;
  }
  return (
    <Box component="main" sx={{ maxWidth: 1120, mx: 'auto', px: 2, py: 3 }}>
      <BuyingNav />
      <Typography variant="h1">{t('Order {number}', { number: data.number })}</Typography>
      <OrderCard order={data} alone />
      <Button component={Link} to="/orders" sx={{ mt: 2 }}>
        {t('All orders')}
      </Button>
    </Box>
  );
}
