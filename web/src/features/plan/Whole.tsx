import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';

import type { Costs, SellerKind } from '../../shared/api';
import { formatDay, formatMoney } from '../../shared/lib/format';
import { Age } from '../../shared/ui/Age';
import { rich, t } from '../../shared/texts';
import { allBuyingInWords } from './Buying';
import type { PlanWish } from './planQuestion';

/** What the sellers said of single names, as far as they have answered. */
function Asked({ quotes }: { quotes: Costs['quotes'] }) {
  return (
    <Typography variant="caption" color="textSecondary" component="p" role="status">
      {quotes.waiting > 0 &&
        `${t('Sellers are still asked about {n, plural, one {# name} other {# names}}: till then their lists count.', {
          n: quotes.waiting,
        })} `}
      {quotes.unknown > 0 &&
        `${t(
          '{n, plural, one {Once a seller} other {# times a seller}} gave no answer of use: there the list counts.',
          {
            n: quotes.unknown,
          },
        )} `}
      {quotes.oldest &&
        quotes.waiting === 0 &&
        rich('Sellers were asked for the prices of the names themselves {age}.', { age: <Age at={quotes.oldest} /> })}
    </Typography>
  );
}

interface Props {
  costs: Costs;
  sellers: readonly SellerKind[];
  wish: Pick<PlanWish, 'budget' | 'out'>;
  onOut: (out: string[]) => void;
}

/** What all of it comes to, how sure that is, what is paid first, and what a budget leaves out. */
export function Whole({ costs, sellers, wish, onOut }: Props) {
  const { plan, currency, affordable } = costs;
  const money = (amount: string | number) => formatMoney(amount, currency);
  const nameOf = (code: string) => sellers.find((s) => s.code === code)?.name ?? code;
  const weighed = Number(plan.weight) !== Number(plan.total);
  const gap = Number(plan.weight) - Number(plan.bound);
  const accounts = plan.orders.filter((o) => Number(o.paid_in) > Number(o.paid));
  return (
    <Box sx={{ mt: 1.5 }}>
      {costs.buying && <Typography>{allBuyingInWords(costs)}</Typography>}
      <Typography role="status">
        <strong>
          {t(
            '{names, plural, one {This name} other {All # names}} over {years, plural, one {# year} other {# years}}: {total}.',
            { names: costs.names.length - plan.nowhere.length, years: costs.years, total: money(plan.total) },
          )}
        </strong>{' '}
        {weighed
          ? t('With what moves and paying ahead weigh: {weight}; no plan weighs less than {bound}.', {
              weight: money(plan.weight),
              bound: money(plan.bound),
            })
          : gap >= 1
            ? t('No plan costs less than {bound}.', { bound: money(plan.bound) })
            : t('No plan costs less.')}
      </Typography>
      {plan.orders.length > 0 && (
        <Typography>
          {t('To pay at once: {orders}.', {
            orders: plan.orders
              .map((o) => t('{amount} at {seller}', { amount: money(o.paid), seller: nameOf(o.seller) }))
              .join(', '),
          })}
        </Typography>
      )}
      {accounts.map((o) => (
        <Typography key={o.seller}>
          {t(
            '{seller} is paid from an account: {paid} at least has to go into it, and {left} of that stays for later.',
            {
              seller: nameOf(o.seller),
              paid: money(o.paid_in),
              left: money(Number(o.paid_in) - Number(o.paid)),
            },
          )}
        </Typography>
      ))}
      {plan.nowhere.length > 0 && (
        <Typography color="warning">
          {t('No seller has {names}: taken, or held back. Nothing of that is in the sum.', {
            names: plan.nowhere.join(', '),
          })}
        </Typography>
      )}
      <Asked quotes={costs.quotes} />
      {costs.rates_of && (
        <Typography variant="caption" color="textSecondary" component="p">
          {t('Other currencies by the European Central Bank’s rates of {day}. Later payments by today’s prices.', {
            day: formatDay(costs.rates_of),
          })}
        </Typography>
      )}
      {affordable && (
        <Alert
          severity={affordable.kept ? 'info' : 'warning'}
          sx={{ mt: 1 }}
          action={
            affordable.left_out.length > 0 && (
              <Button color="inherit" size="small" onClick={() => onOut([...wish.out, ...affordable.left_out])}>
                {t('Leave them out')}
              </Button>
            )
          }>
          {t('That is {over} over your budget of {budget}.', {
            over: money(Number(plan.total) - wish.budget),
            budget: money(wish.budget),
          })}{' '}
          {affordable.left_out.length > 0 &&
            t('Without {names}, held for protection, it comes to {total}.', {
              names: affordable.left_out.join(', '),
              total: money(affordable.plan.total),
            })}{' '}
          {!affordable.kept && t('Even the names that are used cost more than that.')}
        </Alert>
      )}
    </Box>
  );
}
