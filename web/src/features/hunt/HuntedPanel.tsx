import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';

import type { Hunted } from '../../shared/api';
import { leavingWord, offerKind, pastUse } from '../../shared/lib/concepts';
import { formatCount, formatDay, formatMoment } from '../../shared/lib/format';
import { gradeOf } from '../../shared/lib/grading';
import { Age } from '../../shared/ui/Age';
import { TagFilledIcon, TagIcon } from '../../shared/ui/icons';
import { SeamedName } from '../../shared/ui/SeamedName';
import { rich, t } from '../../shared/texts';
import { BasketButton } from '../../shared/basket/BasketButton';
import { WatchButton } from '../../shared/watching/WatchButton';
import { dropTold, type HuntContext, Price, When } from './huntColumns';

interface Props {
  row: Hunted;
  projectId: number;
  context: HuntContext;
  onKeep: (row: Hunted) => void;
}

/** What is told of a name's past, line by line; what is not told is not there. */
export function pastOf({ offer }: Hunted): readonly (readonly [string, string])[] {
  const told: (readonly [string, string | null])[] = [
    [t('First registered'), offer.first_registered && formatDay(offer.first_registered)],
    [t('Times registered'), offer.times_registered === null ? null : formatCount(offer.times_registered)],
    [t('Links'), offer.links === null ? null : formatCount(offer.links)],
    [t('Linking sites'), offer.linking_sites === null ? null : formatCount(offer.linking_sites)],
    [t('Archived copies'), offer.archived === null ? null : formatCount(offer.archived)],
    [t('They were about'), offer.archived_about || null],
    [t('Used for'), offer.used_for ? pastUse(offer.used_for) : null],
    [t('Search rank of its words'), offer.rank === null ? null : formatCount(offer.rank)],
    [t('Also registered under'), offer.also.map((e) => `.${e}`).join(' ') || null],
  ];
  return told.filter((line): line is readonly [string, string] => line[1] !== null);
}

/** All that is told of the name under the cursor. */
export function HuntedPanel({ row, projectId, context, onKeep }: Props) {
  const { offer } = row;
  const past = pastOf(row);
  const lines: readonly (readonly [string, React.ReactNode])[] = [
    [t('Grade'), row.grade === null ? t('not known') : Math.round(gradeOf(row.scores, context.grading))],
    [t('Suits the brief'), Math.round(row.suits)],
    [t('Price'), offer.price === null ? t('not told') : <Price key="price" row={row} currency={context.currency} />],
    ...(offer.kind === 'auction'
      ? ([
          [t('Bids'), offer.bids === null ? t('not told') : formatCount(offer.bids)],
          [t('Ends'), offer.ends ? formatMoment(offer.ends) : t('not told')],
          [t('That is'), <When key="when" row={row} now={context.now} />],
        ] as const)
      : []),
    ...(offer.kind === 'dropping'
      ? ([
          [t('State'), offer.state ? leavingWord(offer.state) : t('not told')],
          [t('May become open'), dropTold(offer) || t('not told')],
        ] as const)
      : []),
  ];
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Box>
        <Typography variant="h2" component="h2" sx={{ overflowWrap: 'anywhere' }}>
          <SeamedName label={row.label} starts={row.starts} extension={row.extension} />
        </Typography>
        <Typography color="textSecondary">
          {t('{how} at {market}', { how: offerKind(offer.kind)?.word ?? offer.kind, market: offer.market_name })}
        </Typography>
      </Box>
      {offer.risk && <Alert severity="warning">{offer.risk}</Alert>}
      <Box component="dl" sx={{ display: 'grid', gridTemplateColumns: 'auto 1fr', columnGap: 1.5, rowGap: 0.4, m: 0 }}>
        {[...lines, ...past].map(([word, value]) => (
          <Box key={word} sx={{ display: 'contents' }}>
            <Typography component="dt" color="textSecondary">
              {word}
            </Typography>
            <Typography component="dd" sx={{ m: 0, textAlign: 'right', fontVariantNumeric: 'tabular-nums' }}>
              {value}
            </Typography>
          </Box>
        ))}
      </Box>
      {past.length === 0 && (
        <Typography color="textSecondary">{t('Nothing is told of its past: it is unknown.')}</Typography>
      )}
      <Typography variant="caption" color="textSecondary">
        {rich('By a list of {age}; ask before you pay.', { age: <Age at={offer.told} /> })}
      </Typography>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <Button
          variant={row.kept ? 'outlined' : 'contained'}
          startIcon={row.kept ? <TagFilledIcon /> : <TagIcon />}
          onClick={() => onKeep(row)}>
          {row.kept ? t('On the shortlist') : t('Keep')}
        </Button>
        <WatchButton
          projectId={projectId}
          shown={row.label}
          label={row.label}
          extension={row.extension}
          extensions={[row.extension]}
          variant="text"
        />
        <BasketButton projectId={projectId} names={[`${row.label}.${row.extension}`]} />
        <Button component={Link} to={`/projects/${projectId}/names/${row.label}.${row.extension}`}>
          {t('Everything about it')}
        </Button>
        {offer.address && (
          <Button href={offer.address} target="_blank" rel="noopener noreferrer nofollow">
            {t('Where it is offered')}
          </Button>
        )}
      </Stack>
    </Stack>
  );
}
