import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link, useSearchParams } from 'react-router';

import { asApiError, type Costed, type CostOrder, type SellerKind } from '../../shared/api';
import { formatDay, formatMoment, formatMoney } from '../../shared/lib/format';
import { useOpenProject } from '../../shared/lib/projectContext';
import { EmptyState } from '../../shared/ui/EmptyState';
import { PAPER } from '../../shared/ui/paper';
import { t } from '../../shared/texts';
import { lineInWords, wayInWords } from './inWords';
import { useLikedCurrency, usePlanned } from './usePlanned';

function Lines({ order, nameOf }: { order: CostOrder; nameOf: (code: string) => string }) {
  return (
    <>
      <Typography variant="h3" component="h3" sx={{ mt: 1.5 }}>
        {t('{seller}, {amount}', { seller: nameOf(order.seller), amount: formatMoney(order.total, order.currency) })}
      </Typography>
      <table>
        <tbody>
          {order.lines.map((line, i) => (
            <tr key={`${line.full_name}${line.kind}${i}`}>
              <td style={{ whiteSpace: 'nowrap' }}>{line.full_name || t('the order')}</td>
              <td>{lineInWords(line, order.currency)}</td>
              <td style={{ textAlign: 'right', whiteSpace: 'nowrap' }}>
                {Number(line.amount) < 0 && '−'}
                {formatMoney(Math.abs(Number(line.amount)), order.currency)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function Later({ costed, currency, nameOf }: { costed: Costed; currency: string; nameOf: (code: string) => string }) {
  if (!costed.cheapest)
    return (
      <tr>
        <td style={{ whiteSpace: 'nowrap' }}>{costed.full_name}</td>
        <td colSpan={2}>{t('No seller offers it.')}</td>
      </tr>
    );
  return (
    <tr>
      <td style={{ whiteSpace: 'nowrap' }}>
        <span className="serif">{costed.full_name}</span>, {costed.used ? t('used') : t('held')}
      </td>
      <td>{wayInWords(costed.cheapest.steps, nameOf).join(' ')}</td>
      <td style={{ textAlign: 'right', whiteSpace: 'nowrap' }}>{formatMoney(costed.cheapest.total, currency)}</td>
    </tr>
  );
}

/** The plan made for paper: what is bought where today, how each name is kept, and whose prices these are. */
export function PlanPaper() {
  const project = useOpenProject();
  const [params] = useSearchParams();
  const { worked, costs, sellers, wish, countries } = usePlanned(project, useLikedCurrency());
  const known: readonly SellerKind[] = sellers.data?.sellers ?? [];
  const nameOf = (code: string) => known.find((s) => s.code === code)?.name ?? code;
  const failed = asApiError(costs.error ?? sellers.error);
  if (failed && !worked)
    return (
      <EmptyState alert title={t('The page could not be made')}>
        {failed.problems[0]?.message ?? failed.message}
      </EmptyState>
    );
  if (!worked || !sellers.data) return <LinearProgress aria-label={t('Loading')} />;
  const { plan, currency, years } = worked;
  const country = countries.find((c) => c.code === wish.country)?.name;
  return (
    <Box component="main" sx={{ py: 2, '@media print': { py: 0 } }}>
      <Stack direction="row" sx={{ gap: 1, justifyContent: 'center', mb: 2, '@media print': { display: 'none' } }}>
        <Button variant="contained" onClick={() => window.print()}>
          {t('Print')}
        </Button>
        <Button component={Link} to={`/projects/${project.id}/plan?${params.toString()}`} variant="outlined">
          {t('Back')}
        </Button>
      </Stack>
      <Box className="paper" sx={PAPER}>
        <Typography variant="h1">{t('{name}: what the names cost', { name: project.name })}</Typography>
        <Typography sx={{ mb: 2 }}>
          {t(
            '{names, plural, one {One name} other {# names}} over {years, plural, one {one year} other {# years}}: {total}.',
            {
              names: worked.names.length - plan.nowhere.length,
              years,
              total: formatMoney(plan.total, currency),
            },
          )}{' '}
          {country ? t('Bought in {country}.', { country }) : t('Without tax: the country of the buyer is not said.')}
        </Typography>
        <Typography variant="h2">{t('To order today')}</Typography>
        {plan.orders.map((order) => (
          <Lines key={order.seller} order={order} nameOf={nameOf} />
        ))}
        <Typography variant="h2" sx={{ mt: 3 }}>
          {t('Each name alone, at its cheapest')}
        </Typography>
        <table>
          <tbody>
            {worked.names.map((costed) => (
              <Later key={costed.full_name} costed={costed} currency={currency} nameOf={nameOf} />
            ))}
          </tbody>
        </table>
        <Typography variant="h2" sx={{ mt: 3 }}>
          {t('Whose prices these are')}
        </Typography>
        <ul>
          {known
            .filter((s) => s.dated && !wish.less.includes(s.code))
            .map((s) => (
              <li key={s.code}>{t('{name}: list of {day}', { name: s.name, day: formatDay(s.dated ?? '') })}</li>
            ))}
        </ul>
        <Typography variant="caption" component="p" sx={{ mt: 3, color: '#55434f' }}>
          {t('Made with Vine Tag, {moment}. Later payments are by today’s prices; ask again before paying.', {
            moment: formatMoment(new Date().toISOString()),
          })}
        </Typography>
      </Box>
    </Box>
  );
}
