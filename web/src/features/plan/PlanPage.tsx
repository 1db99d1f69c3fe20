import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';

import { asApiError, type Costs } from '../../shared/api';
import { formatDay, formatMoney } from '../../shared/lib/format';
import { useLikedCurrency, usePlanned } from './usePlanned';
import { useOpenProject } from '../../shared/lib/projectContext';
import { EmptyState } from '../../shared/ui/EmptyState';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { t } from '../../shared/texts';
import { CostTable } from './CostTable';
import { NameCosts } from './NameCosts';
import { MOST_PLANNED } from './planQuestion';
import { SellerChoice } from './SellerChoice';
import { SellerList } from './SellerList';
import { WishFields } from './WishFields';

/** What all of it comes to, and how sure that is. */
function Whole({ costs }: { costs: Costs }) {
  const { plan, currency } = costs;
  const gap = Number(plan.weight) - Number(plan.bound);
  return (
    <Typography role="status" sx={{ mt: 1.5 }}>
      {t(
        '{names, plural, one {This name} other {All # names}} over {years, plural, one {# year} other {# years}}: {total}.',
        {
          names: costs.names.length,
          years: costs.years,
          total: formatMoney(plan.total, currency),
        },
      )}{' '}
      {gap >= 1
        ? t('No plan costs less than {bound}.', { bound: formatMoney(plan.bound, currency) })
        : t('No plan costs less.')}
    </Typography>
  );
}

/** What the names of the shortlist cost over the years, at each seller and at best. */
export function PlanPage() {
  const project = useOpenProject();
  const liked = useLikedCurrency();
  const { list, names, wish, change, costs, worked, sellers, countries } = usePlanned(project, liked);
  const [chosen, setChosen] = useState<string | null>(null);
  const failed = asApiError(costs.error);
  if (list.error && !list.data)
    return <LoadFailed title={t('The shortlist could not be loaded')} error={list.error} onRetry={list.refetch} />;
  if (list.isPending || sellers.isPending) return <LinearProgress aria-label={t('Loading')} />;
  if (sellers.error)
    return <LoadFailed title={t('The sellers could not be loaded')} error={sellers.error} onRetry={sellers.refetch} />;
  if (names.length === 0)
    return (
      <EmptyState
        title={t('Nothing to plan yet')}
        action={
          <Button component={Link} to={`/projects/${project.id}`} variant="outlined">
            {t('To the bench')}
          </Button>
        }>
        {t('Keep some names first; what they cost over the years is worked out here.')}
      </EmptyState>
    );
  const known = sellers.data.sellers;
  const shown = worked?.names.find((n) => n.full_name === chosen) ?? worked?.names[0];
  return (
    <Box component="main" sx={{ maxWidth: 1180, mx: 'auto', px: { xs: 1.5, md: 3 }, py: 3 }}>
      <Typography variant="h1">{t('Plan')}</Typography>
      <Typography color="textSecondary" sx={{ mb: 2 }}>
        {t('What each name costs over all the years you mean to keep it, not the first alone.')}
      </Typography>
      <WishFields wish={wish} countries={countries} error={failed} onChange={change} />
      <SellerChoice sellers={known} less={wish.less} onLess={(less) => change({ less })} />
      {failed && (
        <Alert
          severity="error"
          sx={{ mb: 2 }}
          action={
            failed.problems.length === 0 && (
              <Button color="inherit" size="small" onClick={() => void costs.refetch()}>
                {t('Try again')}
              </Button>
            )
          }>
          {failed.problems[0]?.message ?? failed.message}{' '}
          {worked && t('What stands below is as it was worked out before.')}
        </Alert>
      )}
      {wish.country === '' && wish.vat === '' && (
        <Alert severity="info" sx={{ mb: 2 }}>
          {t('Amounts are without tax: which one there is, depends on the country of the buyer.')}
        </Alert>
      )}
      {names.length - wish.out.length > MOST_PLANNED && (
        <Alert severity="info" sx={{ mb: 2 }}>
          {t('The first {most, number} of {n, number} names are planned: leave some out to plan others.', {
            most: MOST_PLANNED,
            n: names.length,
          })}
        </Alert>
      )}
      {known.length === 0 && (
        <Alert severity="info" sx={{ mb: 2 }}>
          {t('No seller’s prices are known yet; they are asked for once a day.')}
        </Alert>
      )}
      {costs.isFetching && <LinearProgress aria-label={t('Working it out')} />}
      {worked && (
        <>
          <CostTable
            costs={worked}
            sellers={known.filter((s) => !wish.less.includes(s.code))}
            names={names}
            out={wish.out}
            chosen={shown?.full_name ?? null}
            onChoose={setChosen}
            onOut={(out) => change({ out })}
          />
          <Whole costs={worked} />
          {worked.rates_of && (
            <Typography variant="caption" color="textSecondary" component="p" sx={{ mb: 2 }}>
              {t('Other currencies by the European Central Bank’s rates of {day}. Later payments by today’s prices.', {
                day: formatDay(worked.rates_of),
              })}
            </Typography>
          )}
          {shown && <NameCosts costed={shown} currency={worked.currency} sellers={known} />}
        </>
      )}
      <Typography variant="h2" sx={{ mt: 3, mb: 1 }}>
        {t('Whose prices these are')}
      </Typography>
      <SellerList sellers={known} />
    </Box>
  );
}
