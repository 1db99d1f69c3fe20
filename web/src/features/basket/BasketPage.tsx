import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';

import type { Basket, BasketItem } from '../../shared/api';
import { useBasket, useBasketActs } from '../../shared/basket/useBasket';
import { formatCountry, formatCount, formatMoney } from '../../shared/lib/format';
import { EmptyState } from '../../shared/ui/EmptyState';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { BuyingNav } from '../../shared/basket/BuyingNav';
import { t } from '../../shared/texts';
import { useOrderActs } from '../../shared/basket/useOrders';
import { useContacts } from '../../shared/basket/useContacts';
import { BasketRow, Choices } from './BasketRow';
import { TypeIn } from './TypeIn';
import { useSellersWithLists } from './useSellers';

const PLAIN = {
  years: 1,
  renewal: 'ask',
  privacy: false,
  servers: [],
  coupon: '',
  seller: '',
  contacts: null,
} as const satisfies Partial<BasketItem>;
const HORIZONS = [1, 2, 3, 5, 10];
const LINE: Readonly<Record<string, string>> = {
  registration: t('registration'),
  promotion: t('promotion'),
  privacy: t('out of the public record'),
  registry_fee: t('fee for the registry'),
  coupon: t('coupon'),
  tax: t('tax'),
  tax_within: t('tax within'),
};

/** What is paid to whom, line by line. */
function Orders({ basket }: { basket: Basket }) {
  return (
    <Box component="section" aria-label={t('What is paid to whom')} sx={{ mt: 3 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {t('What is paid to whom')}
      </Typography>
      <Stack direction="row" sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        {basket.orders.map((order, place) => (
          <Box
            key={place}
            sx={{
              bgcolor: 'background.paper',
              border: 1,
              borderColor: 'divider',
              borderRadius: 1,
              p: 1.5,
              minWidth: 280,
            }}>
            <Typography variant="h3">{order.seller}</Typography>
            <Box
              component="table"
              sx={{ width: '100%', '& td': { py: 0.2 }, '& td:last-child': { textAlign: 'right' } }}>
              <tbody>
                {order.lines.map((line, i) => (
                  <tr key={i}>
                    <td>{`${line.full_name} ${LINE[line.kind] ?? line.kind}`.trim()}</td>
                    <td>{formatMoney(line.amount, order.currency)}</td>
                  </tr>
                ))}
                <tr>
                  <td>
                    <strong>{order.tax_known ? t('In all') : t('In all, without tax')}</strong>
                  </td>
                  <td>
                    <strong>{formatMoney(order.total, order.currency)}</strong>
                  </td>
                </tr>
              </tbody>
            </Box>
          </Box>
        ))}
      </Stack>
    </Box>
  );
}

/** Placing the order here, an order a seller, or why that cannot be done for some of it. */
function OrderHere({ basket }: { basket: Basket }) {
  const { place } = useOrderActs();
  const why = [...new Set(basket.items.map((item) => item.reviewed.not_here).filter(Boolean))];
  const orders = new Set(basket.orders.map((order) => order.seller)).size;
  if (basket.ready_here)
    return (
      <Stack
        direction="row"
        sx={{ gap: 2, alignItems: 'center', flexWrap: 'wrap', width: '100%', displayPrint: 'none' }}>
        <Button variant="contained" size="large" disabled={place.isPending} onClick={() => place.mutate()}>
          {t('Order here')}
        </Button>
        <Typography color="textSecondary">
          {t('{orders, plural, one {One order} other {# orders, one a seller}}. Nothing is paid before you say so.', {
            orders,
          })}
        </Typography>
      </Stack>
    );
  return (
    <Alert severity="info" sx={{ width: '100%', displayPrint: 'none' }}>
      {t('It cannot be ordered here as it stands:')} {why.join(' ')}{' '}
      <Link to="/contacts" style={{ color: 'inherit' }}>
        {t('To the contacts')}
      </Link>
    </Alert>
  );
}

/** What everything in the basket comes to, and what is left to do before it can be bought. */
function Sum({ basket, years, onYears }: { basket: Basket; years: number; onYears: (years: number) => void }) {
  const { review, takeOut } = useBasketActs();
  const looked = basket.items.every((item) => item.reviewed.at);
  return (
    <Stack direction="row" sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'center', mt: 2 }}>
      <Box>
        <Typography sx={{ fontSize: '1.3rem', fontWeight: 600, fontVariantNumeric: 'tabular-nums' }}>
          {t('{money} now', { money: formatMoney(basket.total, basket.currency) })}
        </Typography>
        <Typography variant="body2" color="textSecondary">
          {basket.country
            ? t('with tax, for a buyer in {country}', { country: formatCountry(basket.country) })
            : t('without tax: no brief says where its owner lives')}
        </Typography>
      </Box>
      <TextField
        select
        label={t('All of it over')}
        value={years}
        onChange={(e) => onYears(Number(e.target.value))}
        sx={{ width: 130 }}>
        {HORIZONS.map((n) => (
          <MenuItem key={n} value={n}>
            {t('{n, plural, one {# year} other {# years}}', { n })}
          </MenuItem>
        ))}
      </TextField>
      <Typography sx={{ fontVariantNumeric: 'tabular-nums' }}>{formatMoney(basket.whole, basket.currency)}</Typography>
      <Stack direction="row" sx={{ gap: 1, ml: 'auto', flexWrap: 'wrap', displayPrint: 'none' }}>
        <Button variant="contained" disabled={review.isPending} onClick={() => review.mutate()}>
          {review.isPending ? t('Asking about all of it …') : t('Look at all of it once more')}
        </Button>
        <Button href="/api/basket/file?form=csv" variant="outlined">
          {t('Order as CSV')}
        </Button>
        <Button href="/api/basket/file?form=json" variant="outlined">
          {t('JSON')}
        </Button>
        <Button variant="outlined" onClick={() => window.print()}>
          {t('Print as a checklist')}
        </Button>
        <Button onClick={() => takeOut.mutate(null)}>{t('Empty it')}</Button>
      </Stack>
      {basket.waiting > 0 && (
        <Typography role="status" color="textSecondary" sx={{ width: '100%' }}>
          {t('Sellers are asked what {count, plural, one {one name costs} other {# names cost}} …', {
            count: basket.waiting,
          })}
        </Typography>
      )}
      {looked && basket.waiting === 0 && (
        <Alert severity={basket.ready ? 'success' : 'warning'} sx={{ width: '100%' }}>
          {basket.ready
            ? t('Everything is as planned. Order it within half an hour, here or at the sellers, or look at it again.')
            : t('Not everything can be bought as it stands: agree to what changed, or take it out.')}
        </Alert>
      )}
      {looked && basket.ready && <OrderHere basket={basket} />}
    </Stack>
  );
}

/** All that is to be bought, and the last look at it before paying. */
export function BasketPage() {
  const [years, setYears] = useState(5);
  const { data, error, refetch } = useBasket(years);
  const { changeAll } = useBasketActs();
  const [all, setAll] = useState(false);
  const sellers = useSellersWithLists();
  const sets = useContacts().data?.sets ?? [];
  if (!data) {
    if (!error) return <LinearProgress aria-label={t('Loading')} />;
    return <LoadFailed title={t('The basket could not be loaded')} error={error} onRetry={refetch} />;
  }
  if (!data.items.length)
    return (
      <Box component="main" sx={{ maxWidth: 1120, mx: 'auto', px: 2, py: 3 }}>
        <BuyingNav />
        <EmptyState
          title={t('The basket is empty')}
          action={
            <Button component={Link} to="/" variant="contained">
              {t('To the projects')}
            </Button>
          }>
          {t('Put a name in from its own page, all of a shortlist or a plan at once, or type it.')}
        </EmptyState>
        <TypeIn />
      </Box>
    );
  return (
    <Box component="main" sx={{ maxWidth: 1120, mx: 'auto', px: 2, py: 3 }}>
      <BuyingNav />
      <Typography variant="h1">{t('Basket')}</Typography>
      <Typography color="textSecondary">
        {t('{count} of {most} names. Nothing that costs more is chosen for you.', {
          count: formatCount(data.items.length),
          most: formatCount(data.most),
        })}
      </Typography>
      <TypeIn />
      <Sum basket={data} years={years} onYears={setYears} />
      <Button sx={{ mt: 1, displayPrint: 'none' }} aria-expanded={all} onClick={() => setAll(!all)}>
        {t('For all of them at once')}
      </Button>
      {all && (
        <Box sx={{ p: 1.5, border: 1, borderColor: 'divider', borderRadius: 1 }}>
          <Choices
            item={data.items[0] ?? PLAIN}
            sellers={sellers}
            sets={sets}
            error={changeAll.error}
            onChange={(part) => changeAll.mutate(part)}
          />
        </Box>
      )}
      <Box component="ul" aria-label={t('Names in the basket')} sx={{ listStyle: 'none', m: 0, p: 0, mt: 1 }}>
        {data.items.map((item) => (
          <BasketRow
            key={item.id}
            item={item}
            currency={data.currency}
            years={data.years}
            sellers={sellers}
            sets={sets}
          />
        ))}
      </Box>
      <Orders basket={data} />
    </Box>
  );
}
