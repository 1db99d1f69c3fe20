import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import { asApiError, type SellerKind } from '../../shared/api';
import { formatDay } from '../../shared/lib/format';
import { FileButton } from '../../shared/ui/FileButton';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { SellerFacts } from '../../shared/ui/SellerFacts';
import { t } from '../../shared/texts';
import { ListDialog } from './ListDialog';
import { SellerDialog } from './SellerDialog';
import { type ListKind, useSellerActs, useSellers } from './useSellers';

interface CardProps {
  seller: SellerKind;
  acts: ReturnType<typeof useSellerActs>;
  onTerms: () => void;
  onList: (kind: ListKind) => void;
}

/** One seller: its terms and lists, and what may be done with them. */
function Card({ seller, acts, onTerms, onList }: CardProps) {
  const [sure, setSure] = useState(false);
  const removable = seller.may_change && !seller.publishes;
  return (
    <Box
      component="section"
      aria-label={seller.name}
      sx={{ bgcolor: 'background.paper', border: 1, borderColor: 'divider', borderRadius: 1, p: 1.5 }}>
      <SellerFacts seller={seller} />
      <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 1, mt: 1 }}>
        {seller.dated && (
          <Button component="a" href={`/api/sellers/${seller.code}/prices`} download variant="outlined">
            {t('Prices as CSV')}
          </Button>
        )}
        {seller.may_change && (
          <>
            <Button variant="outlined" onClick={() => onList('prices')}>
              {t('Bring a price list')}
            </Button>
            <Button variant="outlined" onClick={() => onList('coupons')}>
              {t('Bring coupons')}
            </Button>
            <Button variant="outlined" onClick={onTerms}>
              {t('Change terms')}
            </Button>
          </>
        )}
        {seller.may_change && seller.by_hand && seller.publishes && (
          <Button variant="outlined" onClick={() => acts.follow.mutate(seller.code)}>
            {t('Follow its own lists again')}
          </Button>
        )}
        {removable && !sure && (
          <Button color="error" onClick={() => setSure(true)}>
            {t('Remove')}
          </Button>
        )}
        {removable && sure && (
          <>
            <Button color="error" variant="contained" onClick={() => acts.remove.mutate(seller.code)}>
              {t('Remove with all its prices')}
            </Button>
            <Button onClick={() => setSure(false)}>{t('Cancel')}</Button>
          </>
        )}
      </Stack>
    </Box>
  );
}

/** Sellers of names, their price lists and coupons: everybody's, and one's own. */
export function SellersPage() {
  const { data, error, refetch } = useSellers();
  const acts = useSellerActs();
  const [editing, setEditing] = useState<{ seller: SellerKind | null; everybody: boolean } | null>(null);
  const [bringing, setBringing] = useState<{ seller: SellerKind; kind: ListKind } | null>(null);
  if (!data)
    return error ? (
      <LoadFailed title={t('The sellers could not be loaded')} error={error} onRetry={refetch} />
    ) : (
      <LinearProgress aria-label={t('Loading')} />
    );
  const refused = asApiError(acts.bringRates.error);
  const failed = asApiError(acts.remove.error ?? acts.follow.error ?? acts.refresh.error);
  return (
    <Box component="main" sx={{ maxWidth: 900, mx: 'auto', px: { xs: 1.5, md: 3 }, py: 3 }}>
      <Typography variant="h1">{t('Sellers')}</Typography>
      <Typography color="textSecondary" sx={{ mb: 2 }}>
        {t(
          'Whose prices plans and sheets go by. Those that publish lists are asked once a day; a seller of your own is seen by you alone.',
        )}
      </Typography>
      <Stack direction="row" sx={{ gap: 1, mb: 2, flexWrap: 'wrap', alignItems: 'center' }}>
        <Button variant="contained" onClick={() => setEditing({ seller: null, everybody: false })}>
          {t('A seller of my own')}
        </Button>
        {data.may_edit && (
          <>
            <Button variant="outlined" onClick={() => setEditing({ seller: null, everybody: true })}>
              {t('A seller for everybody')}
            </Button>
            <Button variant="outlined" disabled={acts.refresh.isPending} onClick={() => acts.refresh.mutate()}>
              {t('Ask all for their lists now')}
            </Button>
            <FileButton
              accept=".csv,text/csv"
              label={t('A file of exchange rates')}
              onFile={(chosen) => void chosen.text().then((text) => acts.bringRates.mutate(text))}>
              {t('Bring exchange rates')}
            </FileButton>
          </>
        )}
        {data.rates_of && (
          <Typography variant="body2" color="textSecondary">
            {t('Exchange rates of {day}, by the European Central Bank', { day: formatDay(data.rates_of) })}
          </Typography>
        )}
      </Stack>
      {acts.refresh.isSuccess && (
        <Alert severity="info" sx={{ mb: 2 }}>
          {t('They are being asked.')}
        </Alert>
      )}
      {failed && (
        <Alert severity="error" sx={{ mb: 2 }}>
          {failed.message}
        </Alert>
      )}
      {refused && (
        <Alert severity="error" sx={{ mb: 2 }} onClose={() => acts.bringRates.reset()}>
          {t('The rates stay as they were.')}{' '}
          {refused.problems.map((p) => t('{where}: {what}', { where: p.path, what: p.message })).join(' ') ||
            refused.message}
        </Alert>
      )}
      <Stack sx={{ gap: 1.5 }}>
        {data.sellers.map((seller) => (
          <Card
            key={seller.code}
            seller={seller}
            acts={acts}
            onTerms={() => setEditing({ seller, everybody: !seller.own })}
            onList={(kind) => setBringing({ seller, kind })}
          />
        ))}
        {data.sellers.length === 0 && (
          <Typography>
            {t('Nobody is known who sells names. Add a seller of your own, with its price list.')}
          </Typography>
        )}
      </Stack>
      {editing && <SellerDialog {...editing} acts={acts} onClose={() => setEditing(null)} />}
      {bringing && <ListDialog {...bringing} acts={acts} onClose={() => setBringing(null)} />}
    </Box>
  );
}
