import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Skeleton from '@mui/material/Skeleton';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import type { Row } from '../../shared/api';
import { useNear } from './useAround';
import { EmptyState } from '../../shared/ui/EmptyState';
import { TagFilledIcon, TagIcon } from '../../shared/ui/icons';
import { SeamedName } from '../../shared/ui/SeamedName';
import { shownStatus } from '../../shared/ui/status';
import { StatusMark } from '../../shared/ui/StatusMark';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { t } from '../../shared/texts';
import { NameButton } from './NameButton';

const CHECKED_AT_ONCE = 60;

interface Props {
  projectId: number;
  label: string;
  first: string | undefined;
  checking: boolean;
  onKeep: (label: string, kept: boolean) => void;
  onCheck: (labels: string[]) => void;
  onSelect: (label: string) => void;
}

function Near({ row, first, onKeep, onSelect }: Pick<Props, 'first' | 'onKeep' | 'onSelect'> & { row: Row }) {
  const cell = row.cells.find((c) => c.extension === first);
  return (
    <Stack
      component="li"
      direction="row"
      sx={{ alignItems: 'center', gap: 0.8, borderTop: 1, borderColor: 'divider', minHeight: 31 }}>
      <IconButton
        size="small"
        aria-pressed={row.kept}
        aria-label={
          row.kept ? t('Take {label} off the shortlist', { label: row.label }) : t('Keep {label}', { label: row.label })
        }
        color={row.kept ? 'secondary' : 'default'}
        onClick={() => onKeep(row.label, !row.kept)}
        sx={{ p: 0.3 }}>
        {row.kept ? <TagFilledIcon sx={{ fontSize: 17 }} /> : <TagIcon sx={{ fontSize: 17 }} />}
      </IconButton>
      <NameButton
        label={row.label}
        onSelect={onSelect}
        looks={{
          flex: 1,
          minWidth: 0,
          overflow: 'hidden',
          textOverflow: 'ellipsis',
          whiteSpace: 'nowrap',
          fontSize: '0.98rem',
        }}>
        <SeamedName label={row.label} starts={row.starts} />
      </NameButton>
      <Box component="span" sx={{ fontSize: '0.82rem' }}>
        <StatusMark status={shownStatus(cell)} wordless={!cell} />
      </Box>
      <Box component="span" sx={{ fontWeight: 600, minWidth: 24, textAlign: 'right' }}>
        {Math.round(row.grade)}
      </Box>
    </Stack>
  );
}

/** Names near the chosen one that keep its idea, the best first. */
export function NearNames({ projectId, label, first, checking, onKeep, onCheck, onSelect }: Props) {
  const { data, error, refetch } = useNear(projectId, label);
  if (error && !data) return <LoadFailed title={t('Near names could not be made')} error={error} onRetry={refetch} />;
  if (!data)
    return (
      <Stack sx={{ gap: 1 }}>
        {[0, 1, 2, 3, 4].map((i) => (
          <Skeleton key={i} variant="text" height={26} />
        ))}
      </Stack>
    );
  if (data.total === 0)
    return (
      <EmptyState title={t('Nothing near it')}>
        {t('Its letters hold no word to vary. Try a name made of words.')}
      </EmptyState>
    );
  return (
    <>
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between', mb: 0.5 }}>
        <Typography variant="caption" color="textSecondary">
          {t('{total, plural, one {# near name} other {# near names}}', { total: data.total })}
          {first && ` · ${t('status in .{extension}', { extension: first })}`}
        </Typography>
        <Button disabled={checking} onClick={() => onCheck(data.rows.slice(0, CHECKED_AT_ONCE).map((r) => r.label))}>
          {t('Check them')}
        </Button>
      </Stack>
      <Stack component="ul" aria-label={t('Near names')} sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {data.rows.map((row) => (
          <Near key={row.label} row={row} first={first} onKeep={onKeep} onSelect={onSelect} />
        ))}
      </Stack>
    </>
  );
}
