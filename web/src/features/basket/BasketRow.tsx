import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';

import { asApiError, type BasketChange, type BasketItem } from '../../shared/api';
import { useBasketActs } from '../../shared/basket/useBasket';
import { formatMoney } from '../../shared/lib/format';
import { Age } from '../../shared/ui/Age';
import type { ShownStatus } from '../../shared/ui/status';
import { StatusMark } from '../../shared/ui/StatusMark';
import { YearsField } from '../../shared/ui/YearsField';
import { rich, t } from '../../shared/texts';
import { Spelled } from './Spelled';

const MOST_YEARS = 10;
const RENEWALS = [
  ['ask', t('ask me first')],
  ['itself', t('by itself')],
] as const;

interface ChoicesProps {
  item: Pick<BasketItem, 'years' | 'renewal' | 'privacy' | 'coupon' | 'seller' | 'contacts'> & {
    servers: readonly string[];
  };
  sellers: readonly { code: string; name: string }[];
  sets: readonly { id: number; name: string; usual: boolean }[];
  onChange: (part: BasketChange) => void;
  error: unknown;
}

/** How something is bought: the term, where, and what goes with it. */
export function Choices({ item, sellers, sets, onChange, error }: ChoicesProps) {
  const failed = asApiError(error);
  const [servers, setServers] = useState(item.servers.join(', '));
  const [coupon, setCoupon] = useState(item.coupon);
  const sendServers = () => {
    const typed = servers.split(/[\s,;]+/).filter(Boolean);
    if (typed.join() !== item.servers.join()) onChange({ servers: typed });
  };
  return (
    <Stack direction="row" sx={{ gap: 1.2, flexWrap: 'wrap', alignItems: 'flex-start', displayPrint: 'none' }}>
      <YearsField years={item.years} most={MOST_YEARS} onYears={(years) => onChange({ years })} />
      <TextField
        select
        label={t('Bought from')}
        value={item.seller}
        onChange={(e) => onChange({ seller: e.target.value })}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        sx={{ minWidth: 170 }}>
        <MenuItem value="">{t('whoever asks least')}</MenuItem>
        {sellers.map((one) => (
          <MenuItem key={one.code} value={one.code}>
            {one.name}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label={t('Renewed')}
        value={item.renewal}
        onChange={(e) => onChange({ renewal: e.target.value as BasketItem['renewal'] })}
        sx={{ minWidth: 130 }}>
        {RENEWALS.map(([value, word]) => (
          <MenuItem key={value} value={value}>
            {word}
          </MenuItem>
        ))}
      </TextField>
      {sets.length > 1 && (
        <TextField
          select
          label={t('For')}
          value={item.contacts ?? sets.find((one) => one.usual)?.id ?? ''}
          onChange={(e) => onChange({ contacts: Number(e.target.value) })}
          sx={{ minWidth: 140 }}>
          {sets.map((one) => (
            <MenuItem key={one.id} value={one.id}>
              {one.name}
            </MenuItem>
          ))}
        </TextField>
      )}
      <FormControlLabel
        control={
          <Checkbox size="small" checked={item.privacy} onChange={(e) => onChange({ privacy: e.target.checked })} />
        }
        label={t('out of the public record')}
      />
      <TextField
        label={t('Name servers')}
        placeholder={t('those of the seller')}
        value={servers}
        onChange={(e) => setServers(e.target.value)}
        onBlur={sendServers}
        error={Boolean(failed?.at('servers', true))}
        helperText={failed?.at('servers', true)}
        slotProps={{ inputLabel: { shrink: true } }}
        sx={{ width: 230 }}
      />
      <TextField
        label={t('Coupon')}
        value={coupon}
        onChange={(e) => setCoupon(e.target.value)}
        onBlur={() => coupon !== item.coupon && onChange({ coupon })}
        error={Boolean(failed?.at('coupon'))}
        helperText={failed?.at('coupon')}
        sx={{ width: 120 }}
      />
    </Stack>
  );
}

/** What the last look found of an item, and agreeing to it. */
function Found({ item }: { item: BasketItem }) {
  const { agree } = useBasketActs();
  const { reviewed } = item;
  return (
    <>
      {reviewed.at && (
        <Typography variant="body2" color="textSecondary">
          <StatusMark status={reviewed.status as ShownStatus} likely={false} />{' '}
          {rich('as of {age}', { age: <Age at={reviewed.at} /> })}
          {reviewed.status === 'unsure' && ` · ${reviewed.reason}`}
        </Typography>
      )}
      {reviewed.changed.length > 0 && (
        <Alert
          severity="warning"
          action={
            reviewed.sign && (
              <Button
                color="inherit"
                disabled={agree.isPending}
                onClick={() => agree.mutate({ id: item.id, sign: reviewed.sign })}>
                {t('Agree')}
              </Button>
            )
          }>
          {reviewed.changed.join(' ')}
        </Alert>
      )}
      {reviewed.missing.map((text) => (
        <Alert key={text} severity="error">
          {t('This stands against it: {why}', { why: text })}
        </Alert>
      ))}
      {reviewed.asks.map((text) => (
        <Typography key={text} variant="body2">
          {t('The registry may ask: {what}', { what: text })}
        </Typography>
      ))}
    </>
  );
}

/** How it is bought, as one reads it from paper. */
export const onPaper = ({ years, renewal, privacy, servers, coupon }: BasketItem): string =>
  [
    t('☐ {years, plural, one {a year} other {# years}}', { years }),
    renewal === 'itself' ? t('☐ renewed by itself') : t('☐ not renewed by itself'),
    privacy ? t('☐ out of the public record') : t('☐ nothing added for the public record'),
    servers.length > 0 && t('☐ name servers {servers}', { servers: servers.join(', ') }),
    coupon && t('☐ coupon {coupon}', { coupon }),
  ]
    .filter(Boolean)
    .join('   ');

interface Props {
  item: BasketItem;
  currency: string;
  years: number;
  sellers: ChoicesProps['sellers'];
  sets: ChoicesProps['sets'];
}

/** One name in the basket. */
export function BasketRow({ item, currency, years, sellers, sets }: Props) {
  const { change, takeOut } = useBasketActs();
  return (
    <Box component="li" sx={{ py: 1.5, borderBottom: 1, borderColor: 'divider' }}>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'flex-start', flexWrap: 'wrap' }}>
        <Box sx={{ flex: 1, minWidth: 260 }}>
          {item.reviewed.at ? (
            <Spelled item={item} />
          ) : (
            <Typography component="h2" className="serif" sx={{ fontSize: '1.35rem', overflowWrap: 'anywhere' }}>
              {item.shown}
            </Typography>
          )}
          <Typography variant="caption" color="textSecondary">
            <Box component={Link} to={`/projects/${item.project}/names/${item.full_name}`} sx={{ color: 'inherit' }}>
              {item.project_name}
            </Box>
          </Typography>
        </Box>
        <Box sx={{ textAlign: 'right' }}>
          <Typography sx={{ fontWeight: 600, fontVariantNumeric: 'tabular-nums' }}>
            {item.amount === null ? t('nobody sells it so') : formatMoney(item.amount, currency)}
          </Typography>
          <Typography variant="caption" color="textSecondary" component="div">
            {item.amount !== null &&
              t('{years, plural, one {a year} other {# years}} at {seller}', {
                years: item.years,
                seller: item.sold_by,
              })}
          </Typography>
          {item.whole !== null && (
            <Typography variant="caption" color="textSecondary" component="div">
              {t('{money} over {years, plural, one {a year} other {# years}} there', {
                money: formatMoney(item.whole, currency),
                years,
              })}
            </Typography>
          )}
        </Box>
        <Button
          sx={{ displayPrint: 'none' }}
          onClick={() => takeOut.mutate(item.id)}
          aria-label={t('Take {name} out', { name: item.shown })}>
          {t('Take out')}
        </Button>
      </Stack>
      <Stack sx={{ gap: 1, mt: 1 }}>
        <Found item={item} />
        <Typography sx={{ display: 'none', displayPrint: 'block' }}>{onPaper(item)}</Typography>
        <Choices
          key={`${item.servers.join()} ${item.coupon}`}
          item={item}
          sellers={sellers}
          sets={sets}
          error={change.error}
          onChange={(part) => change.mutate({ id: item.id, ...part })}
        />
      </Stack>
    </Box>
  );
}
