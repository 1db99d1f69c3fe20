import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useCallback, useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';

import { asApiError, type Zone, type ZoneRecord } from '../../shared/api';
import { BuyingNav } from '../../shared/basket/BuyingNav';
import { formatMoment } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { useNotify } from '../../shared/ui/Notices';
import { Delegation } from './Delegation';
import { Keys } from './Keys';
import { RecordRows } from './RecordRows';
import { Toolbar } from './Toolbar';
import { useDraft } from './useDraft';
import { useJudged, useZone, useZoneActs } from './useZone';
import { WorldPanel } from './WorldPanel';

/** How what is kept stands to what is in force, in a line. */
function standingOf(zone: Zone, edited: boolean): string {
  if (edited) return t('What is typed here is not in force yet.');
  if (zone.current && zone.published_at) return t('In force since {at}.', { at: formatMoment(zone.published_at) });
  if (zone.answering) return t('What is kept here is not in force: name servers still have what was before.');
  return zone.records.length ? t('Kept here, and not in force.') : t('Nothing is kept here yet.');
}

const bare = (records: readonly ZoneRecord[]) => records.map((one) => JSON.stringify(one));

function ZoneEditor({ zone }: { zone: Zone }) {
  const notify = useNotify();
  const { rows, records, edited, past, future, act } = useDraft(zone);
  const { remarks, settled } = useJudged(zone.id, records);
  const { put, look, withdraw, point } = useZoneActs(zone.id);
  const failed = asApiError(put.error);
  const conflict = failed?.code === 'changed_elsewhere';
  const wrong = remarks.filter((one) => one.wrong).length;
  const onType = useCallback(
    (key: number, field: keyof ZoneRecord, value: string | number) => act({ kind: 'type', key, field, value }),
    [act],
  );
  const onDrop = useCallback((key: number) => act({ kind: 'drop', key }), [act]);
  const send = (edition: number) => {
    put.mutate({ records, edition }, { onSuccess: (kept) => act({ kind: 'begin', records: kept.records }) });
  };
  const can = !put.isPending && wrong === 0 && (edited || (!zone.current && zone.hosts.length > 0));
  useEffect(() => {
    const hear = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      // A dialog above has keys of its own.
      if (event.target instanceof Element && event.target.closest('[role=dialog]')) return;
      const key = event.key.toLowerCase();
      if (key === 's') {
        if (can) send(zone.edition);
      } else if (key === 'z' && event.shiftKey) act({ kind: 'redo' });
      else if (key === 'z') act({ kind: 'undo' });
      else if (key === 'y') act({ kind: 'redo' });
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', hear);
    return () => window.removeEventListener('keydown', hear);
  });
  const take = (next: ZoneRecord[], gone: readonly ZoneRecord[] = []) => {
    act({ kind: 'put', records: next });
    if (gone.length) {
      notify(
        t('Put in. {count, plural, one {One record} other {# records}} went for it: {which}', {
          count: gone.length,
          which: gone.map((one) => `${one.name} ${one.kind}`).join(', '),
        }),
        () => act({ kind: 'undo' }),
      );
    }
  };
  const beside = (more: ZoneRecord[]) => {
    const there = new Set(bare(records));
    take([...records, ...more.filter((one) => !there.has(JSON.stringify(one)))]);
  };
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 320px' },
        gap: 3,
        alignItems: 'start',
      }}>
      <Stack sx={{ gap: 1.4, minWidth: 0 }}>
        <Delegation zone={zone} pending={point.isPending} onPoint={() => point.mutate(zone.hosts)} />
        {zone.trouble && (
          <Alert severity="warning">
            {zone.trouble}
            {zone.proof && (
              <Box sx={{ mt: 0.6, overflowWrap: 'anywhere' }}>
                {t(
                  'Where its name servers are now, put this text (TXT) at {name}, and put the zone into force again:',
                  {
                    name: zone.proof.name,
                  },
                )}{' '}
                <code>{zone.proof.text}</code>
              </Box>
            )}
          </Alert>
        )}
        <Toolbar
          zone={zone}
          records={records}
          canUndo={past.length > 0}
          canRedo={future.length > 0}
          onUndo={() => act({ kind: 'undo' })}
          onRedo={() => act({ kind: 'redo' })}
          onAdd={() =>
            act({ kind: 'put', records: [...records, { name: '', kind: 'A', ttl: zone.usual_ttl, data: '' }] })
          }
          onTake={take}
          onBeside={beside}
        />
        {rows.length > 0 ? (
          <RecordRows
            rows={rows}
            kinds={zone.kinds}
            origin={zone.full_name}
            remarks={settled ? remarks : []}
            onType={onType}
            onDrop={onDrop}
          />
        ) : (
          <Typography sx={{ py: 2 }}>
            {t('No record yet. Begin with what you want of the name, add records one by one, or read a master file.')}
          </Typography>
        )}
        {remarks
          .filter((one) => one.place === null)
          .map((one) => (
            <Alert key={one.message} severity={one.wrong ? 'error' : 'info'}>
              {one.message}
            </Alert>
          ))}
        {put.error && !conflict && <Alert severity="error">{put.error.message}</Alert>}
        {conflict && (
          <Conflict
            id={zone.id}
            onMine={send}
            onTheirs={(theirs) => {
              put.reset();
              act({ kind: 'put', records: theirs });
            }}
          />
        )}
        <Stack direction="row" sx={{ gap: 1.2, flexWrap: 'wrap', alignItems: 'center' }}>
          <Button variant="contained" disabled={!can} onClick={() => send(zone.edition)}>
            {zone.hosts.length > 0 ? t('Put it into force') : t('Keep it')}
          </Button>
          <Typography role="status" color="textSecondary">
            {wrong > 0
              ? t('{wrong, plural, one {One thing has} other {# things have}} to be mended first.', { wrong })
              : standingOf(zone, edited)}
          </Typography>
          {zone.answering && (
            <Button size="small" color="error" disabled={withdraw.isPending} onClick={() => withdraw.mutate()}>
              {t('Take it out of force')}
            </Button>
          )}
        </Stack>
      </Stack>
      <div>
        <WorldPanel zone={zone} looking={look.isPending} onLook={() => look.mutate()} />
        {zone.can_point && <Keys id={zone.id} />}
      </div>
    </Box>
  );
}

/** Somebody else put other records into force meanwhile. */
function Conflict(props: { id: number; onMine: (edition: number) => void; onTheirs: (records: ZoneRecord[]) => void }) {
  const { data, refetch } = useZone(props.id);
  const [asked, setAsked] = useState(false);
  useEffect(() => {
    void refetch().then(() => setAsked(true));
  }, [refetch]);
  return (
    <Alert severity="warning">
      {t('The records were changed in another window meanwhile. Yours are not saved yet.')}
      <Stack direction="row" sx={{ gap: 1, mt: 0.6 }}>
        <Button variant="outlined" color="inherit" disabled={!asked} onClick={() => data && props.onMine(data.edition)}>
          {t('Keep mine')}
        </Button>
        <Button
          variant="outlined"
          color="inherit"
          disabled={!asked}
          onClick={() => data && props.onTheirs(data.records)}>
          {t('Take theirs')}
        </Button>
      </Stack>
    </Alert>
  );
}

/** The zone of a name one owns: its records, name servers, and what the world sees of it. */
export function ZonePage() {
  const { id } = useParams();
  const { data, error, refetch } = useZone(Number(id));
  if (!data) {
    if (!error) return <LinearProgress aria-label={t('Loading')} />;
    return <LoadFailed title={t('The records could not be loaded')} error={error} onRetry={refetch} />;
  }
  return (
    <Box component="main" sx={{ maxWidth: 1180, mx: 'auto', px: 2, py: 3 }}>
      <BuyingNav />
      <Button component={Link} to={`/owned?text=${encodeURIComponent(data.full_name)}`} size="small" sx={{ px: 0 }}>
        ← {t('My names')}
      </Button>
      <Typography variant="h1" className="serif" sx={{ overflowWrap: 'anywhere', mb: 1.5 }}>
        {data.shown}
      </Typography>
      <ZoneEditor key={data.id} zone={data} />
    </Box>
  );
}
