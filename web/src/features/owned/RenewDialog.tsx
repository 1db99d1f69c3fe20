import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useState } from 'react';

import type { OneRenewal } from '../../shared/api';
import { formatDay, formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { YearsField } from '../../shared/ui/YearsField';
import { useOwnedActs, useRenewal } from './useOwned';

const MOST_YEARS = 10;

/** What is done with one name, what it costs, and whether it would be less elsewhere. */
function Line({ one, currency }: { one: OneRenewal; currency: string }) {
  return (
    <Box component="tr" sx={{ borderTop: 1, borderColor: 'divider', '& td': { py: 0.6, verticalAlign: 'top' } }}>
      <Box component="td" sx={{ overflowWrap: 'anywhere', pr: 1 }}>
        {one.shown}
        {one.until && (
          <Typography variant="caption" color="textSecondary" component="div">
            {one.action === 'restore'
              ? t('ran out {day}; it is had back, with a year', { day: formatDay(one.until) })
              : t('runs out {day}', { day: formatDay(one.until) })}
          </Typography>
        )}
        {one.elsewhere && one.here && one.there && (
          <Typography variant="caption" color="textSecondary" component="div">
            {t('Over five years {here} here, {there} after moving to {seller}', {
              here: formatMoney(one.here, currency),
              there: formatMoney(one.there, currency),
              seller: one.elsewhere,
            })}
          </Typography>
        )}
        {one.why_not && (
          <Typography variant="body2" color="warning.main">
            {one.why_not}
          </Typography>
        )}
      </Box>
      <Box component="td" sx={{ textAlign: 'right', whiteSpace: 'nowrap', fontVariantNumeric: 'tabular-nums' }}>
        {one.amount === null ? '–' : formatMoney(one.amount, one.currency)}
      </Box>
    </Box>
  );
}

/** What renewing names costs, before anything is agreed to. */
export function RenewDialog({ ids, onClose }: { ids: number[]; onClose: () => void }) {
  const narrow = useMediaQuery('(max-width: 600px)');
  const [years, setYears] = useState(1);
  const { data, error, isFetching, refetch } = useRenewal(ids, years);
  const { renew } = useOwnedActs();
  const can = data?.totals.length ? data : null;
  return (
    <Dialog open onClose={onClose} fullScreen={narrow} maxWidth="sm" fullWidth aria-labelledby="renew-owned">
      <DialogTitle id="renew-owned">
        {t('Renew {count, plural, one {one name} other {# names}}', { count: ids.length })}
      </DialogTitle>
      <DialogContent>
        <Stack sx={{ gap: 1.4, pt: 1 }}>
          <YearsField years={years} most={MOST_YEARS} onYears={setYears} />
          {isFetching && <LinearProgress aria-label={t('Asking the sellers')} />}
          {error && <Alert severity="error">{error.message}</Alert>}
          {data && (
            <>
              <Box component="table" sx={{ width: '100%', borderCollapse: 'collapse' }}>
                <tbody>
                  {data.names.map((one) => (
                    <Line key={one.id} one={one} currency={data.currency} />
                  ))}
                </tbody>
              </Box>
              {data.totals.map((one) => (
                <Stack key={one.seller} direction="row" sx={{ justifyContent: 'space-between' }}>
                  <Typography sx={{ fontWeight: 600 }}>{t('To {seller}, with tax', { seller: one.seller })}</Typography>
                  <Typography sx={{ fontWeight: 600, fontVariantNumeric: 'tabular-nums' }}>
                    {formatMoney(one.amount, one.currency)}
                  </Typography>
                </Stack>
              ))}
            </>
          )}
          {renew.error && (
            <Alert
              severity="error"
              action={
                <Button color="inherit" onClick={() => void refetch()}>
                  {t('Look again')}
                </Button>
              }>
              {renew.error.message}
            </Alert>
          )}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t('Cancel')}</Button>
        <Button
          variant="contained"
          disabled={!can || isFetching || renew.isPending}
          onClick={() => can && renew.mutate({ ids, years, sign: can.sign }, { onSuccess: onClose })}>
          {t('Order the renewal')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
