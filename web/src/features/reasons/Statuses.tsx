import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import type { Cell, Evidence, Judged } from '../../shared/api';
import { isBuyable } from '../../shared/lib/concepts';
import { formatDay, formatMoment, formatMoney } from '../../shared/lib/format';
import { Age } from '../../shared/ui/Age';
import { shownStatus } from '../../shared/ui/status';
import { StatusMark } from '../../shared/ui/StatusMark';
import type { CheckWish } from '../../shared/lib/question';
import { rich, t } from '../../shared/texts';

/** What the answers say of dates and prices. */
function Facts({ cell, earlier }: { cell: Cell; earlier: string | undefined }) {
  const facts: string[] = [];
  if (cell.status === 'unsure') facts.push(cell.reason);
  if (cell.imported) facts.push(t('As a file says that was brought in; nobody here has asked yet.'));
  if (cell.likely) facts.push(t('Likely: no source with authority has said so.'));
  if (cell.registered) facts.push(t('Registered {day}.', { day: formatDay(cell.registered) }));
  if (cell.expires) {
    const day = formatDay(cell.expires);
    facts.push(cell.status === 'dropping' ? t('Expired {day}.', { day }) : t('Expires {day}.', { day }));
  }
  if (cell.status === 'dropping')
    facts.push(
      cell.drops_from && cell.drops_to
        ? t('May become open {from} to {until}.', { from: formatDay(cell.drops_from), until: formatDay(cell.drops_to) })
        : t('When it may become open is not known.'),
    );
  if (cell.holder_asks !== null)
    facts.push(t('Its holder asks {price}.', { price: formatMoney(cell.holder_asks, cell.currency) }));
  else if (cell.first_year !== null && isBuyable(cell.status))
    facts.push(
      t('{firstYear} the first year, then {renewal} a year.', {
        firstYear: formatMoney(cell.first_year, cell.currency),
        renewal: formatMoney(cell.renewal, cell.currency),
      }),
    );
  return (
    <>
      {facts.join(' ')}
      {earlier && <> {rich('The price is from {age}.', { age: <Age at={earlier} /> })}</>}
    </>
  );
}

function Said({ evidence }: { evidence: readonly Evidence[] }) {
  return (
    <Box component="ul" sx={{ m: 0, pl: 2 }}>
      {evidence.map((e) => (
        <li
          key={`${e.source}${e.at}`}
          title={[e.address, e.detail, e.statuses.join(', '), formatMoment(e.at)].filter(Boolean).join(' · ')}>
          {e.imported ? t('As a file says: {said}', { said: e.text }) : e.text}{' '}
          {e.earlier && (
            <>{t('Said earlier, and not asked again since: what a registry says of it does not tell a price.')} </>
          )}
          {e.registrar && <>{t('Registrar: {registrar}.', { registrar: e.registrar })} </>}
          <Age at={e.at} />
        </li>
      ))}
    </Box>
  );
}

/** What it costs under one extension, over the years it is meant to be kept. */
function Cost({ under, taxed }: { under: Judged['costs']['extensions'][number]; taxed: boolean }) {
  const { first, later, whole, currency, years } = under;
  if (!first || !whole) return null;
  const amounts = { first: formatMoney(first.amount, currency), whole: formatMoney(whole.amount, currency), years };
  return (
    <Typography variant="caption" color="textSecondary" component="div" sx={{ lineHeight: 1.35 }}>
      {later
        ? t(
            '{first} the first year, {later} each later one; {whole} over {years, plural, one {one year} other {# years}}',
            { ...amounts, later: formatMoney(later.amount, currency) },
          )
        : t('{first} the first year; {whole} over {years, plural, one {one year} other {# years}}', amounts)}
      {whole.seller ? t(', by the list of {seller}', { seller: whole.seller }) : t(', as a seller asks for it')}
      {taxed ? '.' : t(', without tax.')}
    </Typography>
  );
}

interface Props {
  label: string;
  /** What it costs under the brief's extensions. */
  costs: Judged['costs'];
  extensions: readonly string[];
  cells: readonly Cell[];
  evidence: readonly Evidence[];
  checking: boolean;
  onBegin: (request: CheckWish) => void;
}

/** The status of the name under each of the brief's extensions, and others that were asked, with evidence and age. */
export function Statuses({ label, costs, extensions, cells, evidence, checking, onBegin }: Props) {
  const [open, setOpen] = useState<string | null>(null);
  const others = cells.filter((c) => !extensions.includes(c.extension) && c.status !== 'waiting');
  const free = others.filter((c) => c.status === 'open');
  const [all, setAll] = useState(false);
  const listed = [...extensions, ...(all ? others.map((c) => c.extension) : [])];
  return (
    <>
      <Stack component="ul" aria-label={t('Statuses')} sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {listed.map((extension) => {
          const cell = cells.find((c) => c.extension === extension);
          const said = evidence.filter((e) => e.extension === extension);
          const under = costs.extensions.find((c) => c.extension === extension);
          return (
            <Box component="li" key={extension} sx={{ py: 0.6, borderTop: 1, borderColor: 'divider' }}>
              <Stack direction="row" sx={{ alignItems: 'baseline', gap: 1 }}>
                <Box component="span" sx={{ fontWeight: 600, minWidth: 62 }}>
                  .{extension}
                </Box>
                <StatusMark status={shownStatus(cell)} likely={cell?.likely ?? false} />
                <Typography variant="caption" color="textSecondary" sx={{ ml: 'auto' }}>
                  {cell?.asked_at && <Age at={cell.asked_at} />}
                </Typography>
              </Stack>
              {cell && (
                <Typography variant="caption" color="textSecondary" component="div" sx={{ lineHeight: 1.35 }}>
                  {cell.pending ? (
                    t('Asked; the answer has not come yet.')
                  ) : (
                    <Facts cell={cell} earlier={said.find((e) => e.earlier)?.at} />
                  )}{' '}
                  {said.length > 0 && (
                    <Box
                      component="button"
                      type="button"
                      aria-expanded={open === extension}
                      onClick={() => setOpen(open === extension ? null : extension)}
                      sx={{
                        border: 0,
                        p: 0,
                        bgcolor: 'transparent',
                        color: 'secondary.main',
                        font: 'inherit',
                        cursor: 'pointer',
                        textDecoration: 'underline',
                      }}>
                      {t('Who says so')}
                    </Box>
                  )}
                  {open === extension && <Said evidence={said} />}
                </Typography>
              )}
              {under && <Cost under={under} taxed={costs.taxed} />}
            </Box>
          );
        })}
      </Stack>
      {others.length > 0 && (
        <Button size="small" onClick={() => setAll(!all)}>
          {all
            ? t('Only my extensions')
            : t('{others, plural, one {# other extension} other {# other extensions}}, {free, number} open', {
                others: others.length,
                free: free.length,
              })}
        </Button>
      )}
      <Stack direction="row" sx={{ gap: 1, mt: 1, flexWrap: 'wrap' }}>
        <Button
          size="small"
          variant="outlined"
          disabled={checking}
          title={t('Ask the registry and a seller too, as one should before paying')}
          onClick={() => onBegin({ what: 'labels', labels: [label], aim: 'buying', again: 'all' })}>
          {t('As before buying')}
        </Button>
        <Button
          size="small"
          variant="outlined"
          disabled={checking}
          title={t('Ask under every extension of the catalogue')}
          onClick={() => onBegin({ what: 'labels', labels: [label], everywhere: true })}>
          {t('Everywhere')}
        </Button>
      </Stack>
    </>
  );
}
