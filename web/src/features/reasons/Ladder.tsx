import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Skeleton from '@mui/material/Skeleton';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import type { Rung } from '../../shared/api';
import { useLadder } from './useAround';
import { DownIcon, UpIcon } from '../../shared/ui/icons';
import { StatusMark } from '../../shared/ui/StatusMark';
import type { ShownStatus } from '../../shared/ui/status';
import type { CheckWish } from '../../shared/lib/question';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { t } from '../../shared/texts';
import { NameButton } from './NameButton';

interface Props {
  projectId: number;
  label: string;
  order: readonly string[];
  onOrder: (order: string[]) => void;
  checking: boolean;
  onBegin: (request: CheckWish) => void;
  onSelect: (label: string) => void;
}

const moved = (order: readonly string[], kind: string, by: number): string[] => {
  const from = order.indexOf(kind);
  const next = order.filter((k) => k !== kind);
  next.splice(Math.max(0, from + by), 0, kind);
  return next;
};

/** The first open name down the ladder, unless a rung above it is not settled yet. */
export function bestOpen(rungs: readonly Rung[]): { name: string | null; settled: boolean } {
  for (const { names } of rungs) {
    for (const n of names) {
      if (n.status === 'open') return { name: n.full_name, settled: true };
      if (n.status === '' || n.status === 'waiting' || n.status === 'unsure')
        return {
          name: rungs.flatMap((r) => r.names).find((m) => m.status === 'open')?.full_name ?? null,
          settled: false,
        };
    }
  }
  return { name: null, settled: true };
}

/** Where to look when a name is taken: rung by rung to the best open form of it. */
export function Ladder({ projectId, label, order, onOrder, checking, onBegin, onSelect }: Props) {
  const { data, error, refetch } = useLadder(projectId, label, order);
  if (error && !data) return <LoadFailed title={t('The ladder could not be made')} error={error} onRetry={refetch} />;
  if (!data)
    return (
      <Stack sx={{ gap: 1 }}>
        {[0, 1, 2].map((i) => (
          <Skeleton key={i} variant="rounded" height={48} />
        ))}
      </Stack>
    );
  const { name, settled } = bestOpen(data);
  return (
    <>
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between', gap: 1, mb: 0.5 }}>
        <Typography variant="body2" role="status">
          {name ? (
            <>
              {settled ? t('First open:') : t('Open so far:')} <strong className="serif">{name}</strong>
            </>
          ) : settled ? (
            t('None of these is open.')
          ) : (
            t('Not known yet: check them.')
          )}
        </Typography>
        <Button
          disabled={checking}
          onClick={() =>
            onBegin({ what: 'full_names', full_names: data.flatMap((r) => r.names.map((n) => n.full_name)) })
          }>
          {t('Check them')}
        </Button>
      </Stack>
      <Box
        component="ol"
        aria-label={t('Fallback order')}
        sx={{ m: 0, p: 0, listStyle: 'none', borderLeft: 2, borderColor: 'wire' }}>
        {data.map((rung) => (
          <Box component="li" key={rung.kind} sx={{ pl: 1, py: 0.5, borderTop: 1, borderColor: 'divider' }}>
            <Stack direction="row" sx={{ alignItems: 'center' }}>
              <Typography variant="caption" color="textSecondary" sx={{ flex: 1 }}>
                {rung.title}
              </Typography>
              <IconButton
                size="small"
                aria-label={t('Sooner: {title}', { title: rung.title })}
                disabled={order[0] === rung.kind}
                onClick={() => onOrder(moved(order, rung.kind, -1))}
                sx={{ p: 0.2 }}>
                <UpIcon sx={{ fontSize: 16 }} />
              </IconButton>
              <IconButton
                size="small"
                aria-label={t('Later: {title}', { title: rung.title })}
                disabled={order.at(-1) === rung.kind}
                onClick={() => onOrder(moved(order, rung.kind, 1))}
                sx={{ p: 0.2 }}>
                <DownIcon sx={{ fontSize: 16 }} />
              </IconButton>
            </Stack>
            {rung.names.map((n) => (
              <Stack direction="row" key={n.full_name} sx={{ justifyContent: 'space-between', gap: 1 }}>
                <NameButton
                  label={n.label}
                  onSelect={onSelect}
                  looks={{ fontWeight: n.full_name === name ? 650 : 400 }}>
                  {n.full_name}
                </NameButton>
                <Box component="span" sx={{ fontSize: '0.82rem' }}>
                  <StatusMark status={(n.status || 'unasked') as ShownStatus} likely={n.likely} />
                </Box>
              </Stack>
            ))}
          </Box>
        ))}
      </Box>
    </>
  );
}
