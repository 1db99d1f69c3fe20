import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { lazy, Suspense, useState } from 'react';
import { Link, useSearchParams } from 'react-router';

import { asApiError } from '../../shared/api';
import { useLikedCurrency, usePlanned } from './usePlanned';
import { BasketButton } from '../../shared/basket/BasketButton';
import { useOpenProject } from '../../shared/lib/projectContext';
import { EmptyState } from '../../shared/ui/EmptyState';
import { FileMenu } from '../../shared/ui/FileMenu';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { t } from '../../shared/texts';
import { CostTable } from './CostTable';
import { Coupons } from './Coupons';
import { NameCosts } from './NameCosts';
import { MOST_PLANNED, usedOf } from './planQuestion';
import { SellerChoice } from './SellerChoice';
import { SellerList } from './SellerList';
import { usePlanFile } from './usePlan';
import { Whole } from './Whole';
import { WishFields } from './WishFields';

const PaidChart = lazy(async () => ({ default: (await import('./PaidChart')).PaidChart }));

/** What the names of the shortlist cost over the years, at each seller and at best. */
export function PlanPage() {
  const project = useOpenProject();
  const liked = useLikedCurrency();
  const { list, names, wish, question, change, costs, worked, sellers, countries } = usePlanned(project, liked);
  const file = usePlanFile(project.id, question, project.name);
  const [params] = useSearchParams();
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
  const considered = known.filter((s) => !wish.less.includes(s.code));
  const shown = worked?.names.find((n) => n.full_name === chosen) ?? worked?.names[0];
  return (
    <Box component="main" sx={{ maxWidth: 1180, mx: 'auto', px: { xs: 1.5, md: 3 }, py: 3 }}>
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between', gap: 1, flexWrap: 'wrap' }}>
        <Typography variant="h1">{t('Plan')}</Typography>
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
          <BasketButton
            projectId={project.id}
            names={(worked?.names ?? []).map((one) => one.full_name)}
            word={t('All into the basket')}
          />
          <Button
            component={Link}
            to={`/projects/${project.id}/plan/print?${params.toString()}`}
            variant="outlined"
            disabled={!worked}>
            {t('On paper')}
          </Button>
          <FileMenu onForm={(form) => file.mutate(form)} disabled={!worked || file.isPending} />
        </Stack>
      </Stack>
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
      {file.error && (
        <Alert severity="error" sx={{ mb: 2 }}>
          {asApiError(file.error)?.message}
        </Alert>
      )}
      {costs.isFetching && !worked?.quotes.waiting && <LinearProgress aria-label={t('Working it out')} />}
      {worked && (
        <>
          <CostTable
            costs={worked}
            sellers={considered}
            names={names}
            out={wish.out}
            chosen={shown?.full_name ?? null}
            onChoose={setChosen}
            onOut={(out) => change({ out })}
            used={usedOf(wish, question.full_names)}
            onUsed={(used) => change({ used })}
          />
          <Whole costs={worked} sellers={known} wish={wish} onOut={(out) => change({ out })} />
          {worked.years > 1 && worked.names.length > 0 && (
            <Suspense fallback={<LinearProgress aria-label={t('Loading')} />}>
              <PaidChart costs={worked} sellers={known} />
            </Suspense>
          )}
          {shown && (
            <NameCosts
              costed={shown}
              currency={worked.currency}
              sellers={known}
              onCeiling={(amount) => change({ ceilings: { ...wish.ceilings, [shown.full_name]: amount } })}
            />
          )}
          <Coupons
            projectId={project.id}
            costs={worked}
            sellers={considered.filter((s) => s.dated)}
            mayEdit={sellers.data.may_edit}
          />
        </>
      )}
      <Stack direction="row" sx={{ alignItems: 'baseline', gap: 1.5, mt: 3, mb: 1, flexWrap: 'wrap' }}>
        <Typography variant="h2">{t('Whose prices these are')}</Typography>
        <Button size="small" component={Link} to="/sellers">
          {t('Sellers and lists')}
        </Button>
      </Stack>
      <SellerList sellers={known} />
    </Box>
  );
}
