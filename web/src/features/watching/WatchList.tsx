import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useState } from 'react';
import { Link } from 'react-router';

import { asApiError, type KeptWatch, type WatchedName } from '../../shared/api';
import { isBuyable, offerKind, watchKind } from '../../shared/lib/concepts';
import { formatCount, formatDay, formatLeft, formatMoment, formatMoney } from '../../shared/lib/format';
import { useNow } from '../../shared/lib/useNow';
import { Age } from '../../shared/ui/Age';
import type { ShownStatus } from '../../shared/ui/status';
import { StatusMark } from '../../shared/ui/StatusMark';
import { rich, t } from '../../shared/texts';
import { useWatching } from '../../shared/watching/useWatches';
import { WhyAndUntil } from '../../shared/watching/WhyAndUntil';
import { ROWS, useWatchedNames } from './useWatchList';

/** What else is known of a watched name: its offer, when it may become open, when it runs out. */
function tellOf({ known }: WatchedName, now: number): string {
  if (known.kind && known.ends) return t('auction until {end}', { end: formatMoment(known.ends) });
  if (known.kind && known.price)
    return t('{how}, {price}', {
      how: offerKind(known.kind)?.word ?? known.kind,
      price: formatMoney(known.price, known.currency ?? ''),
    });
  if (known.drops_from && known.drops_to)
    return formatDay(known.drops_from) === formatDay(known.drops_to)
      ? t('may become open {day}', { day: formatDay(known.drops_from) })
      : t('may become open {from} to {to}', { from: formatDay(known.drops_from), to: formatDay(known.drops_to) });
  if (known.expires)
    return Date.parse(known.expires) < now
      ? t('ran out {day}', { day: formatDay(known.expires) })
      : t('runs out {day}', { day: formatDay(known.expires) });
  if (known.first_year && isBuyable(known.status ?? ''))
    return t('{price} the first year', { price: formatMoney(known.first_year, known.terms_currency ?? '') });
  return '';
}

/** The full names of a watch, what is known of each, and when it is asked about again. */
function Names({ watch }: { watch: KeptWatch }) {
  const [page, setPage] = useState(0);
  const { data } = useWatchedNames(watch.id, page);
  const now = useNow();
  if (!data) return <Typography color="textSecondary">{t('Loading')}</Typography>;
  const last = Math.ceil(data.total / ROWS) - 1;
  return (
    <Box sx={{ mt: 1, overflowX: 'auto' }}>
      <Box
        component="table"
        aria-label={t('Names of {title}', { title: watch.title })}
        sx={{
          width: '100%',
          minWidth: 560,
          borderCollapse: 'collapse',
          '& td, & th': { py: 0.3, pr: 1.5, textAlign: 'left' },
        }}>
        <thead>
          <tr>
            <th>{t('Full name')}</th>
            <th>{t('Status')}</th>
            <th>{t('What else')}</th>
            <th>{t('Asked')}</th>
            <th>{t('Again')}</th>
          </tr>
        </thead>
        <tbody>
          {data.rows.map((row) => (
            <tr key={`${row.label}.${row.extension}`}>
              <td>
                <Box
                  component={Link}
                  className="serif"
                  to={`/projects/${watch.project}/names/${row.label}.${row.extension}`}
                  sx={{ color: 'text.primary' }}>
                  {`${row.label}.${row.extension}`}
                </Box>
              </td>
              <td>
                <StatusMark status={(row.known.status ?? 'unasked') as ShownStatus} likely={false} />
              </td>
              <td>{row.trouble ? t('nothing was found out last') : tellOf(row, now)}</td>
              <td>{row.asked_at ? <Age at={row.asked_at} /> : t('not yet')}</td>
              <td>
                {row.next_at === null
                  ? t('not any more')
                  : Date.parse(row.next_at) <= now
                    ? t('when it has its turn')
                    : formatLeft(row.next_at, now)}
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
      {last > 0 && (
        <Stack direction="row" sx={{ gap: 1, alignItems: 'center', mt: 0.5 }}>
          <Button size="small" disabled={page === 0} onClick={() => setPage(page - 1)}>
            {t('Those before')}
          </Button>
          <Typography variant="body2">
            {t('{page} of {pages}', { page: formatCount(page + 1), pages: formatCount(last + 1) })}
          </Typography>
          <Button size="small" disabled={page >= last} onClick={() => setPage(page + 1)}>
            {t('Those after')}
          </Button>
        </Stack>
      )}
    </Box>
  );
}

function Change({ watch, onDone }: { watch: KeptWatch; onDone: () => void }) {
  const { change } = useWatching();
  const [reason, setReason] = useState(watch.reason);
  const [end, setEnd] = useState(watch.ends_on);
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    const changed = { id: watch.id, reason, ...(end !== watch.ends_on && { ends_on: end }) };
    change.mutate(changed, { onSuccess: onDone });
  };
  return (
    <Stack component="form" noValidate onSubmit={submit} sx={{ gap: 1, mt: 1 }}>
      <WhyAndUntil
        reason={reason}
        end={end}
        onReason={setReason}
        onEnd={setEnd}
        problem={asApiError(change.error)?.at('ends_on') ?? change.error?.message}
      />
      <Stack direction="row" sx={{ gap: 1 }}>
        <Button type="submit" variant="contained" disabled={change.isPending}>
          {t('Keep it so')}
        </Button>
        <Button onClick={onDone}>{t('Leave it')}</Button>
      </Stack>
    </Stack>
  );
}

function OneWatch({ watch }: { watch: KeptWatch }) {
  const { change, end, remove } = useWatching();
  const [open, setOpen] = useState(false);
  const [changing, setChanging] = useState(false);
  const [sure, setSure] = useState(false);
  const over = watch.ended_at !== null;
  const search = new URLSearchParams(watch.question).toString();
  return (
    <Box component="li" sx={{ py: 1, borderBottom: 1, borderColor: 'divider' }}>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'baseline' }}>
        <Box sx={{ flex: 1, minWidth: 220 }}>
          <Typography
            component="h3"
            className="serif"
            sx={{ fontSize: '1.05rem', fontWeight: 600, overflowWrap: 'anywhere' }}>
            {watch.kind === 'hunt' ? (
              <Box component={Link} to={`/projects/${watch.project}/hunt?${search}`} sx={{ color: 'text.primary' }}>
                {watch.title}
              </Box>
            ) : (
              watch.title
            )}
          </Typography>
          <Typography variant="body2" color="textSecondary">
            {over
              ? rich('{kind} · <link>{project}</link> · ended {end}', {
                  kind: watchKind(watch.kind)?.word ?? watch.kind,
                  project: watch.project_name,
                  end: formatDay(watch.ended_at ?? watch.ends_on),
                  link: (it) => <Link to={`/projects/${watch.project}`}>{it}</Link>,
                })
              : rich('{kind} · <link>{project}</link> · until {end}', {
                  kind: watchKind(watch.kind)?.word ?? watch.kind,
                  project: watch.project_name,
                  end: formatDay(watch.ends_on),
                  link: (it) => (
                    <Box component={Link} to={`/projects/${watch.project}`} sx={{ color: 'text.secondary' }}>
                      {it}
                    </Box>
                  ),
                })}
          </Typography>
          {watch.reason && <Typography variant="body2">{watch.reason}</Typography>}
        </Box>
        <Stack direction="row" sx={{ gap: 0.5, flexWrap: 'wrap' }}>
          {watch.names > 0 && (
            <Button size="small" aria-expanded={open} onClick={() => setOpen(!open)}>
              {t('{count, plural, one {# full name} other {# full names}}', { count: watch.names })}
            </Button>
          )}
          {over ? (
            <>
              <Button size="small" onClick={() => change.mutate({ id: watch.id, ended: false })}>
                {t('Go on')}
              </Button>
              {sure ? (
                <Button size="small" color="error" onClick={() => remove.mutate(watch.id)}>
                  {t('Delete it with what it told')}
                </Button>
              ) : (
                <Button size="small" onClick={() => setSure(true)}>
                  {t('Delete')}
                </Button>
              )}
            </>
          ) : (
            <>
              <Button size="small" aria-expanded={changing} onClick={() => setChanging(!changing)}>
                {t('Change')}
              </Button>
              <Button size="small" onClick={() => end(watch)}>
                {t('End it')}
              </Button>
            </>
          )}
        </Stack>
      </Stack>
      {changing && !over && <Change watch={watch} onDone={() => setChanging(false)} />}
      {open && <Names watch={watch} />}
    </Box>
  );
}

/** What is watched, and what was. */
export function WatchList({ watches }: { watches: readonly KeptWatch[] }) {
  const going = watches.filter((one) => one.ended_at === null);
  const over = watches.filter((one) => one.ended_at !== null);
  return (
    <>
      {going.length ? (
        <Box component="ul" aria-label={t('What you watch')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {going.map((watch) => (
            <OneWatch key={watch.id} watch={watch} />
          ))}
        </Box>
      ) : (
        <Typography color="textSecondary">
          {t(
            'Nothing is watched. Open a name, or a search of the hunt, and press “Watch”; or begin here with names you type.',
          )}
        </Typography>
      )}
      {over.length > 0 && (
        <Box component="details" sx={{ mt: 2 }}>
          <summary>
            {t('{count, plural, one {One that is over} other {# that are over}}', { count: over.length })}
          </summary>
          <Box component="ul" aria-label={t('What is over')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {over.map((watch) => (
              <OneWatch key={watch.id} watch={watch} />
            ))}
          </Box>
        </Box>
      )}
    </>
  );
}
