import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { type ReactNode, useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';

import { formatCount } from '../../shared/lib/format';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { t } from '../../shared/texts';
import { useWatches } from '../../shared/watching/useWatches';
import { Feeds } from './Feeds';
import { HappeningList } from './HappeningList';
import { Letters } from './Letters';
import { NewWatch } from './NewWatch';
import { useAllHappenings, useRead } from './useHappenings';
import { useNews } from './useNews';
import { WatchList } from './WatchList';

function Part({ title, children, action }: { title: string; children: ReactNode; action?: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ mb: 4 }}>
      <Stack direction="row" sx={{ alignItems: 'baseline', justifyContent: 'space-between', mb: 0.8 }}>
        <Typography variant="h2">{title}</Typography>
        {action}
      </Stack>
      {children}
    </Box>
  );
}

/** What happened to what is watched. */
function Happened() {
  const { data, hasNextPage, isFetchingNextPage, fetchNextPage } = useAllHappenings();
  const { mutate: read } = useRead();
  const rows = data?.pages.flatMap((page) => page.rows);
  const news = useNews(rows);
  const newest = rows?.find((one) => !one.read)?.id;
  useEffect(() => {
    if (newest) read(newest);
  }, [newest, read]);
  if (!rows) return <LinearProgress aria-label={t('Loading')} />;
  if (!rows.length)
    return (
      <Typography color="textSecondary">
        {t('Nothing yet: names are asked about at most some times a day, and what changes is told here.')}
      </Typography>
    );
  return (
    <>
      <HappeningList rows={rows} news={news} />
      {hasNextPage && (
        <Button disabled={isFetchingNextPage} onClick={() => void fetchNextPage()} sx={{ mt: 1 }}>
          {t('What happened before')}
        </Button>
      )}
    </>
  );
}

/** All that is watched for a person, what happened, and how they are told. */
export function WatchingPage() {
  const { data, error, refetch } = useWatches();
  const [search] = useSearchParams();
  const [adding, setAdding] = useState(false);
  if (!data) {
    if (!error) return <LinearProgress aria-label={t('Loading')} />;
    return <LoadFailed title={t('What you watch could not be loaded')} error={error} onRetry={refetch} />;
  }
  const { names, most_names, spent, budget } = data.standing;
  return (
    <Box component="main" sx={{ maxWidth: 1180, mx: 'auto', px: 2, py: 3 }}>
      <Typography variant="h1">{t('Watching')}</Typography>
      <Typography color="textSecondary" role="status" sx={{ mb: 2.5 }}>
        {t('{names} of {most} full names; {spent} of {budget} look-ups of today used', {
          names: formatCount(names),
          most: formatCount(most_names),
          spent: formatCount(spent),
          budget: formatCount(budget),
        })}
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gap: 4,
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 340px' },
        }}>
        <Box>
          <Part title={t('What happened')}>
            <Happened />
          </Part>
          <Part
            title={t('What you watch')}
            action={
              !adding && (
                <Button variant="outlined" onClick={() => setAdding(true)}>
                  {t('Watch something')}
                </Button>
              )
            }>
            {adding && <NewWatch onDone={() => setAdding(false)} />}
            <WatchList watches={data.watches} />
          </Part>
        </Box>
        <Box>
          <Part title={t('By letter')}>
            <Letters code={search.get('confirm') ?? ''} />
          </Part>
          <Part title={t('Elsewhere')}>
            <Feeds />
          </Part>
        </Box>
      </Box>
    </Box>
  );
}
