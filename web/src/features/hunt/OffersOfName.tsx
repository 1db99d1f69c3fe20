import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import type { Judged, MarketOffer } from '../../shared/api';
import { leavingWord, offerKind } from '../../shared/lib/concepts';
import { formatCount, formatDay, formatLeft, formatMoment, formatMoney } from '../../shared/lib/format';
import { useNow } from '../../shared/lib/useNow';
import { Age } from '../../shared/ui/Age';
import { rich, t } from '../../shared/texts';
import { dropTold } from './huntColumns';

const amountOf = (text: string): string => {
  const [amount = '', currency = ''] = text.split(' ');
  return currency ? formatMoney(amount, currency) : text;
};

/** One offer in a line. */
function facts(offer: MarketOffer, now: number): string {
  const said: string[] = [];
  if (offer.price !== null) said.push(formatMoney(offer.price, offer.currency));
  if (offer.bids !== null)
    said.push(t('{bids, plural, =0 {no bids} one {# bid} other {# bids}}', { bids: offer.bids }));
  if (offer.ends)
    said.push(t('ends {left}, {moment}', { left: formatLeft(offer.ends, now), moment: formatMoment(offer.ends) }));
  if (offer.state) said.push(leavingWord(offer.state));
  if (offer.drops_from) said.push(t('may become open {when}', { when: dropTold(offer) }));
  if (offer.first_registered) said.push(t('first registered {day}', { day: formatDay(offer.first_registered) }));
  if (offer.linking_sites !== null)
    said.push(t('{sites, plural, one {# linking site} other {# linking sites}}', { sites: offer.linking_sites }));
  if (offer.archived !== null) said.push(t('{count} archived copies', { count: formatCount(offer.archived) }));
  return said.join(', ');
}

const moment = (text: string): string => (/^\d{4}-/.test(text) ? formatMoment(text) : amountOf(text));

function changeInWords({ what, before, after }: Judged['offer_changes'][number]): string {
  const was = { before: moment(before), after: moment(after) };
  if (what === 'price') return t('the price went from {before} to {after}', was);
  if (what === 'extended') return t('the end went from {before} to {after}', was);
  if (what === 'drops') return t('the drop went from {before} to {after}', was);
  if (what === 'kind')
    return t('from {before} to {after}', {
      before: offerKind(before)?.word ?? before,
      after: offerKind(after)?.word ?? after,
    });
  return before ? t('no longer offered; the last price was {before}', was) : t('no longer offered');
}

/** What markets tell of a name, under whatever extension, and how that changed. */
export function OffersOfName({ name }: { name: Judged }) {
  const now = useNow();
  if (!name.offers.length && !name.offer_changes.length)
    return <Typography color="textSecondary">{t('No market’s list tells of this name.')}</Typography>;
  return (
    <Stack sx={{ gap: 0.8 }}>
      {name.offers.map((offer) => (
        <Box key={`${offer.full_name}${offer.market}`}>
          <strong>{offer.full_name}</strong>{' '}
          {t('{how} at {market}', { how: offerKind(offer.kind)?.word ?? offer.kind, market: offer.market_name })}{' '}
          <Typography component="span" variant="caption" color="textSecondary">
            {rich('by a list of {age}', { age: <Age at={offer.told} /> })}
          </Typography>
          <Typography variant="body2">{facts(offer, now)}</Typography>
          {offer.risk && (
            <Alert severity="warning" sx={{ my: 0.5 }}>
              {offer.risk}
            </Alert>
          )}
          {offer.address && (
            <Button size="small" href={offer.address} target="_blank" rel="noopener noreferrer nofollow">
              {t('Where it is offered')}
            </Button>
          )}
        </Box>
      ))}
      {name.offer_changes.length > 0 && (
        <details>
          <summary>{t('How that changed')}</summary>
          <Box component="ul" sx={{ m: 0, pl: 2 }}>
            {name.offer_changes.map((one, i) => (
              <li key={i}>
                {one.full_name} ({one.market}): {changeInWords(one)}, <Age at={one.at} />
              </li>
            ))}
          </Box>
        </details>
      )}
    </Stack>
  );
}
