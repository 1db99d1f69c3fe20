import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';

import type { PlacedName, PlacedOrder } from '../../shared/api';
import { formatDay, formatMoment, formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { useOrderActs } from '../../shared/basket/useOrders';

const WAITING: readonly string[] = ['paid', 'sent', 'pending', 'failed'];
const SHAPES: Readonly<Record<string, string>> = {
  agreed: '○',
  paid: '◔',
  sent: '◑',
  pending: '◕',
  registered: '●',
  failed: '×',
  refunded: '×',
};
const RECEIPTS: Readonly<Record<string, string>> = { receipt: t('Receipt'), credit_note: t('Credit note') };

/** What became of one name, in words and a mark that does not need colour. */
function NameRow({ name, currency }: { name: PlacedName; currency: string }) {
  return (
    <Box component="tr" sx={{ '& td': { py: 0.7, verticalAlign: 'top' }, borderTop: 1, borderColor: 'divider' }}>
      <Box component="td" sx={{ pr: 2, overflowWrap: 'anywhere', minWidth: 150 }}>
        {name.project === null ? (
          name.shown
        ) : (
          <Box component={Link} to={`/projects/${name.project}/names/${name.full_name}`} sx={{ color: 'inherit' }}>
            {name.shown}
          </Box>
        )}
        <Typography variant="caption" color="textSecondary" component="div">
          {t('{years, plural, one {a year} other {# years}}', { years: name.years })}
          {name.privacy && `, ${t('out of the public record')}`}
        </Typography>
      </Box>
      <Box component="td" sx={{ pr: 2, width: '55%' }}>
        <span aria-hidden>{SHAPES[name.state] ?? '○'}</span> {name.state_words}
        {name.expires_at && ` · ${t('until {day}', { day: formatDay(name.expires_at) })}`}
        {name.told && (
          <Typography variant="body2" color="textSecondary">
            {name.told}
          </Typography>
        )}
      </Box>
      <Box component="td" sx={{ textAlign: 'right', whiteSpace: 'nowrap', fontVariantNumeric: 'tabular-nums' }}>
        {formatMoney(name.amount, currency)}
      </Box>
    </Box>
  );
}

/** How far an order is, in one sentence. */
export function standing(order: PlacedOrder): string {
  const done = order.names.filter((one) => one.state === 'registered').length;
  const count = order.names.length;
  if (order.stage === 'called_off')
    return order.names.some((one) => one.action === 'register')
      ? t('Called off; its names are back in the basket')
      : t('Called off');
  if (order.stage === 'open') return t('To be paid');
  if (order.stage === 'done')
    return t('{done, number} of {count, number} {count, plural, one {name} other {names}} done', { done, count });
  return t('Being worked on: {done, number} of {count, number} done', { done, count });
}

/** What can be done about an order that is not paid. */
function Paying({ order }: { order: PlacedOrder }) {
  const { pay, credit, callOff } = useOrderActs();
  const busy = pay.isPending || credit.isPending || callOff.isPending;
  const told: Readonly<Record<string, string>> = {
    declined: t('The last payment was declined. Nothing was paid.'),
    abandoned: t('You came back without paying. Nothing was paid.'),
    open: t('A payment is under way. If you have paid, this page will say so in a moment.'),
    begun: t('A payment is under way. If you have paid, this page will say so in a moment.'),
  };
  return (
    <Stack sx={{ gap: 1, mt: 1 }}>
      {told[order.payment] && (
        <Alert severity={order.payment === 'declined' ? 'warning' : 'info'}>{told[order.payment]}</Alert>
      )}
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        {order.at_page && (
          <Button variant="contained" disabled={busy} onClick={() => pay.mutate(order.id)}>
            {t('Pay {money}', { money: formatMoney(order.total, order.currency) })}
          </Button>
        )}
        {order.by_credit && (
          <Button variant="outlined" disabled={busy} onClick={() => credit.mutate(order.id)}>
            {t('From the credit with {seller}', { seller: order.seller_name })}
          </Button>
        )}
        <Button disabled={busy} onClick={() => callOff.mutate(order.id)}>
          {t('Call it off')}
        </Button>
      </Stack>
    </Stack>
  );
}

/** One order: what it comes to, what became of each name, and what is left to do. */
export function OrderCard({ order, alone = false }: { order: PlacedOrder; alone?: boolean }) {
  const { callOff, carryOn } = useOrderActs();
  const done = order.names.filter((one) => !WAITING.includes(one.state)).length;
  const unsent = order.stage === 'paid' && order.names.some((one) => one.state === 'paid');
  return (
    <Box
      component="section"
      aria-label={t('Order {number}', { number: order.number })}
      sx={{ bgcolor: 'background.paper', border: 1, borderColor: 'divider', borderRadius: 1, p: 2, mt: 2 }}>
      <Stack direction="row" sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'baseline' }}>
        {!alone && (
          <Typography variant="h2">
            <Box component={Link} to={`/orders/${order.id}`} sx={{ color: 'inherit' }}>
              {order.number}
            </Box>
          </Typography>
        )}
        <Typography sx={{ flex: 1 }}>
          {order.seller_name} · {formatMoment(order.placed_at)}
        </Typography>
        <Typography sx={{ fontWeight: 600, fontVariantNumeric: 'tabular-nums' }}>
          {formatMoney(order.total, order.currency)}
        </Typography>
      </Stack>
      <Typography role="status" sx={{ mt: 0.5 }}>
        {standing(order)}
      </Typography>
      {order.stage === 'paid' && (
        <LinearProgress
          variant="determinate"
          aria-label={t('How far the order is')}
          value={(100 * done) / Math.max(1, order.names.length)}
          sx={{ my: 1 }}
        />
      )}
      {order.stage === 'open' && <Paying order={order} />}
      {order.stopped && (
        <Alert
          severity="error"
          sx={{ mt: 1 }}
          action={
            <Button color="inherit" onClick={() => carryOn.mutate(order.id)}>
              {t('Carry on')}
            </Button>
          }>
          {t('A fault of ours stopped the work on it. Nothing is lost, and nothing is paid twice.')}
        </Alert>
      )}
      <Box sx={{ overflowX: 'auto', mt: 1 }}>
        <Box component="table" sx={{ width: '100%', borderCollapse: 'collapse' }}>
          <tbody>
            {order.names.map((one) => (
              <NameRow key={one.id} name={one} currency={order.currency} />
            ))}
          </tbody>
        </Box>
      </Box>
      <Stack direction="row" sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'center', mt: 1.5 }}>
        {order.receipts.map((kind) => (
          <Button
            key={kind}
            component={Link}
            to={`/orders/${order.id}/receipts/${kind}`}
            variant="outlined"
            size="small">
            {RECEIPTS[kind] ?? kind}
          </Button>
        ))}
        {unsent && (
          <Button size="small" onClick={() => callOff.mutate(order.id)}>
            {t('Call off what is not sent yet')}
          </Button>
        )}
        <Typography variant="body2" color="textSecondary" sx={{ ml: 'auto', fontVariantNumeric: 'tabular-nums' }}>
          {order.stage !== 'open' &&
            order.stage !== 'called_off' &&
            t('paid {paid}, given back {back}', {
              paid: formatMoney(order.paid, order.currency),
              back: formatMoney(order.refunded, order.currency),
            })}
        </Typography>
      </Stack>
    </Box>
  );
}
