import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import type { Mistypes } from '../../shared/api';
import { isBuyable } from '../../shared/lib/concepts';
import { shareOf } from '../../shared/lib/format';
import { mistypedBy } from '../../shared/lib/mistyped';
import type { CheckWish } from '../../shared/lib/question';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { shownStatus } from '../../shared/ui/status';
import { StatusMark } from '../../shared/ui/StatusMark';
import { t } from '../../shared/texts';
import { NameButton } from './NameButton';
import { useMistypes } from './useAround';

const FIRST = 8;
/** A smaller share is not worth a sentence. */
const TOLD = 0.005;

/** Of a hundred people who mean the name, how many type something else, and with whom they land. */
function Figure({ shares }: { shares: Mistypes['shares'] }) {
  const known = shares.whole - shares.unknown;
  return (
    <Typography>
      {t('Of those who mean it, {share} type something else.', { share: shareOf(shares.whole) })}{' '}
      {known > 0
        ? t('{taken} land with somebody, {parked} on a name for sale, {free} with nobody.', {
            taken: shareOf(shares.taken),
            parked: shareOf(shares.parked),
            free: shareOf(shares.free),
          })
        : t('With whom they land is not known yet.')}{' '}
      {known > 0 &&
        shares.unknown >= TOLD &&
        t('Of {unknown} that is not known.', { unknown: shareOf(shares.unknown) })}
    </Typography>
  );
}

interface Props {
  projectId: number;
  /** A label, or a full name. */
  name: string;
  checking: boolean;
  onBegin: (request: CheckWish) => void;
  onSelect: (label: string) => void;
  /** Full names on the shortlist. */
  kept: ReadonlySet<string>;
  /** Keeps a full name for protection: the plan has it as held. */
  onHold: (fullName: string) => void;
}

/** What people type by mistake who mean a name, the likeliest first, and who holds that. */
export function Mistyped({ projectId, name, checking, onBegin, onSelect, kept, onHold }: Props) {
  const { data, error, refetch } = useMistypes(projectId, name);
  const [all, setAll] = useState(false);
  if (error) return <LoadFailed title={t('This could not be worked out')} error={error} onRetry={refetch} />;
  if (!data) return <Skeleton variant="rounded" height={120} />;
  const { mistypes, shares } = data;
  if (mistypes.length === 0) return <Typography>{t('Nothing is known of how this name is mistyped.')}</Typography>;
  const shown = all ? mistypes : mistypes.slice(0, FIRST);
  return (
    <Box>
      <Figure shares={shares} />
      <Box component="ol" aria-label={t('Typed by mistake')} sx={{ m: 0, mt: 0.5, p: 0, listStyle: 'none' }}>
        {shown.map((one) => (
          <Stack
            component="li"
            direction="row"
            key={one.full_name}
            sx={{ gap: 1, alignItems: 'baseline', borderTop: 1, borderColor: 'divider', py: 0.25 }}>
            <NameButton label={one.label} onSelect={onSelect}>
              <span className="serif">{one.shown}</span>
            </NameButton>
            <Typography component="span" variant="caption" color="textSecondary" sx={{ flex: 1 }}>
              {mistypedBy(one.kind)}
            </Typography>
            <Box component="span" sx={{ fontSize: '0.82rem' }}>
              <StatusMark status={shownStatus(one.cell ?? undefined)} likely={one.cell?.likely ?? false} />
            </Box>
            {one.cell &&
              isBuyable(one.cell.status) &&
              one.kind !== 'extension' &&
              (kept.has(one.full_name) ? (
                <Typography component="span" variant="caption" color="textSecondary">
                  {t('held')}
                </Typography>
              ) : (
                <Button
                  size="small"
                  title={t('Keep {name} for protection: the plan has it as held', { name: one.shown })}
                  aria-label={t('Hold {name}', { name: one.shown })}
                  onClick={() => onHold(one.full_name)}
                  sx={{ minWidth: 0, p: 0, lineHeight: 1.2 }}>
                  {t('Hold')}
                </Button>
              ))}
            <Box component="span" sx={{ minWidth: 96, textAlign: 'right', fontSize: '0.85rem' }}>
              {shareOf(one.share)}
            </Box>
          </Stack>
        ))}
      </Box>
      <Stack direction="row" sx={{ gap: 1, mt: 1, flexWrap: 'wrap' }}>
        <Button
          size="small"
          variant="outlined"
          disabled={checking}
          onClick={() => onBegin({ what: 'full_names', full_names: mistypes.map((one) => one.full_name) })}>
          {t('See who holds them')}
        </Button>
        {mistypes.length > FIRST && (
          <Button size="small" onClick={() => setAll(!all)}>
            {all ? t('Only the likeliest') : t('All {n, number}', { n: mistypes.length })}
          </Button>
        )}
      </Stack>
    </Box>
  );
}
