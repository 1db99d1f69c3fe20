import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import { asApiError, type Costs, type CouponKind, type SellerKind } from '../../shared/api';
import { formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { CouponDialog } from './CouponDialog';
import { conditionsInWords, oddsInWords, takesInWords } from './couponWords';
import { useCouponActs } from './usePlan';

interface OneProps {
  coupon: CouponKind;
  seller: SellerKind | undefined;
  currency: string;
  mayDrop: boolean;
  acts: ReturnType<typeof useCouponActs>;
}

function One({ coupon, seller, currency, mayDrop, acts }: OneProps) {
  const own = seller?.currency ?? '';
  const say = (worked: boolean) => acts.report.mutate({ coupon, worked: coupon.reported === worked ? null : worked });
  return (
    <Box component="li" sx={{ borderTop: 1, borderColor: 'divider', py: 0.9 }}>
      <Stack direction="row" sx={{ flexWrap: 'wrap', columnGap: 1.2, rowGap: 0.4, alignItems: 'center' }}>
        <Box component="code" sx={{ fontWeight: 650, fontFamily: 'inherit', letterSpacing: '0.03em' }}>
          {coupon.code}
        </Box>
        <span>{t('at {seller}', { seller: seller?.name ?? coupon.seller })}</span>
        <strong>{takesInWords(coupon, own)}</strong>
        {coupon.in_plan && <Chip size="small" color="secondary" variant="outlined" label={t('in this plan')} />}
        {coupon.held === 'own' && <Chip size="small" variant="outlined" label={t('yours')} />}
        <Typography component="span" sx={{ ml: 'auto' }}>
          {Number(coupon.saving) > 0
            ? t('saves {saving} if it works, {expected} to be expected', {
                saving: formatMoney(coupon.saving, currency),
                expected: formatMoney(coupon.expected, currency),
              })
            : t('saves nothing on these names')}
        </Typography>
      </Stack>
      <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 1, alignItems: 'center' }}>
        <Typography variant="body2" color="textSecondary" sx={{ flex: '1 1 260px' }}>
          {conditionsInWords(coupon, own).join(' · ')}
        </Typography>
        <Typography variant="body2">{t('Works: {odds}', { odds: oddsInWords(coupon.odds) })}</Typography>
        <Button
          size="small"
          variant={coupon.reported === true ? 'contained' : 'outlined'}
          color="secondary"
          aria-pressed={coupon.reported === true}
          aria-label={t('{code} worked', { code: coupon.code })}
          onClick={() => say(true)}>
          {t('It worked')}
        </Button>
        <Button
          size="small"
          variant={coupon.reported === false ? 'contained' : 'outlined'}
          color="warning"
          aria-pressed={coupon.reported === false}
          aria-label={t('{code} did not work', { code: coupon.code })}
          onClick={() => say(false)}>
          {t('It did not')}
        </Button>
        {mayDrop && (
          <Button
            size="small"
            aria-label={t('Take {code} away', { code: coupon.code })}
            onClick={() => acts.drop.mutate(coupon)}>
            {t('Take away')}
          </Button>
        )}
      </Stack>
    </Box>
  );
}

interface Props {
  projectId: number;
  costs: Costs;
  sellers: readonly SellerKind[];
  mayEdit: boolean;
}

const FIRST = 6;

/** The coupons of the sellers in question: what each takes off, how likely it works, what that would save; and saying whether it did. */
export function Coupons({ projectId, costs, sellers, mayEdit }: Props) {
  const acts = useCouponActs(projectId);
  const [adding, setAdding] = useState(false);
  const [all, setAll] = useState(false);
  const failed = asApiError(acts.report.error ?? acts.drop.error);
  const known = costs.coupons.filter((c) => sellers.some((s) => s.code === c.seller));
  const shown = all ? known : known.slice(0, FIRST);
  return (
    <Box component="section" aria-label={t('Coupons')} sx={{ mt: 3 }}>
      <Stack direction="row" sx={{ alignItems: 'baseline', gap: 1.5, flexWrap: 'wrap' }}>
        <Typography variant="h2">{t('Coupons')}</Typography>
        <Button size="small" onClick={() => setAdding(true)} disabled={sellers.length === 0}>
          {t('Add one')}
        </Button>
      </Stack>
      <Typography variant="body2" color="textSecondary">
        {t(
          'The plan counts on them, but for those you said did not work for you. How likely one works is reckoned from what people report; old reports count less and less.',
        )}
      </Typography>
      {failed && (
        <Typography role="alert" color="error">
          {failed.message}
        </Typography>
      )}
      {known.length === 0 ? (
        <Typography sx={{ mt: 1 }}>{t('No coupon of these sellers is known.')}</Typography>
      ) : (
        <Box component="ul" aria-label={t('Coupons')} sx={{ m: 0, mt: 1, p: 0, listStyle: 'none' }}>
          {shown.map((coupon) => (
            <One
              key={`${coupon.seller} ${coupon.code}`}
              coupon={coupon}
              seller={sellers.find((s) => s.code === coupon.seller)}
              currency={costs.currency}
              mayDrop={coupon.held === 'own' || (coupon.held === 'all' && mayEdit)}
              acts={acts}
            />
          ))}
        </Box>
      )}
      {known.length > FIRST && (
        <Button size="small" onClick={() => setAll(!all)}>
          {all ? t('Only the first') : t('All {n, number} coupons', { n: known.length })}
        </Button>
      )}
      {adding && <CouponDialog sellers={sellers} mayEdit={mayEdit} acts={acts} onClose={() => setAdding(false)} />}
    </Box>
  );
}
