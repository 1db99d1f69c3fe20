import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Chip from '@mui/material/Chip';
import Typography from '@mui/material/Typography';
import { Fragment, useState } from 'react';

import type { OwnedName } from '../../shared/api';
import { formatDay, formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { OwnedDetails } from './OwnedDetails';
import type { Question } from './useOwned';

const HEADS = [
  ['name', t('Full name')],
  ['expires', t('Runs out')],
  ['', t('Renewal')],
  ['', t('At')],
  ['cost', t('A year')],
  ['registered', t('Registered')],
] as const;
const PHASES: Readonly<Record<string, string>> = {
  grace: t('has run out'),
  redemption: t('only to be had back'),
  lost: t('lost, or renewed elsewhere'),
};

interface Props {
  rows: readonly OwnedName[];
  question: Question;
  chosen: ReadonlySet<number>;
  onSort: (sort: Question['sort']) => void;
  onChoose: (ids: ReadonlySet<number>) => void;
}

/** The names of a page, each opened by a press. */
export function OwnedTable({ rows, question, chosen, onSort, onChoose }: Props) {
  const [open, setOpen] = useState<number | null>(null);
  const all = rows.length > 0 && rows.every((row) => chosen.has(row.id));
  const choose = (ids: readonly number[], on: boolean) => {
    const next = new Set(chosen);
    for (const id of ids) {
      if (on) next.add(id);
      else next.delete(id);
    }
    onChoose(next);
  };
  return (
    <Box sx={{ overflowX: 'auto' }}>
      <Box
        component="table"
        aria-label={t('My names')}
        sx={{
          width: '100%',
          minWidth: 760,
          borderCollapse: 'collapse',
          '& td, & th': { py: 0.4, pr: 1.5, textAlign: 'left', verticalAlign: 'middle' },
          '& th': { fontSize: '0.8125rem', fontWeight: 600 },
          '& tbody tr': { borderTop: 1, borderColor: 'divider' },
        }}>
        <thead>
          <tr>
            <th>
              <Checkbox
                size="small"
                checked={all}
                onChange={(_, on) =>
                  choose(
                    rows.map((row) => row.id),
                    on,
                  )
                }
                slotProps={{ input: { 'aria-label': t('Choose all of the page') } }}
              />
            </th>
            {HEADS.map(([sort, word]) => {
              const on = sort !== '' && question.sort.replace('-', '') === sort;
              const down = on && question.sort.startsWith('-');
              return (
                <th key={word} scope="col" aria-sort={on ? (down ? 'descending' : 'ascending') : undefined}>
                  {sort === '' ? (
                    word
                  ) : (
                    <Button
                      size="small"
                      color="inherit"
                      sx={{ px: 0, minWidth: 0 }}
                      onClick={() => onSort(on && !down ? `-${sort}` : sort)}>
                      {word} {on && (down ? '↓' : '↑')}
                    </Button>
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <Fragment key={row.id}>
              <tr>
                <td>
                  <Checkbox
                    size="small"
                    checked={chosen.has(row.id)}
                    onChange={(_, on) => choose([row.id], on)}
                    slotProps={{ input: { 'aria-label': t('Choose {name}', { name: row.shown }) } }}
                  />
                </td>
                <td>
                  <Button
                    color="inherit"
                    className="serif"
                    aria-expanded={open === row.id}
                    onClick={() => setOpen(open === row.id ? null : row.id)}
                    sx={{ px: 0, fontSize: '1.05rem', textAlign: 'left', overflowWrap: 'anywhere' }}>
                    {row.shown}
                  </Button>{' '}
                  {row.differs.length > 0 && (
                    <Chip size="small" color="warning" variant="outlined" label={t('the registry says otherwise')} />
                  )}{' '}
                  {row.tags.map((tag) => (
                    <Chip key={tag} size="small" variant="outlined" label={tag} sx={{ mr: 0.4 }} />
                  ))}
                </td>
                <td>
                  {row.expires_at ? formatDay(row.expires_at) : t('not known')}
                  {PHASES[row.phase] && (
                    <Typography variant="caption" component="div" color="error.main">
                      {PHASES[row.phase]}
                    </Typography>
                  )}
                </td>
                <td>
                  {row.renewal === 'itself'
                    ? row.ceiling
                      ? t('by itself, up to {money}', { money: formatMoney(row.ceiling, row.ceiling_currency) })
                      : t('by itself at its seller')
                    : t('ask me first')}
                </td>
                <td>{row.seller || t('not known')}</td>
                <Box component="td" sx={{ fontVariantNumeric: 'tabular-nums' }}>
                  {row.yearly === null ? t('not known') : formatMoney(row.yearly, row.yearly_currency)}
                </Box>
                <td>{row.registered_at ? formatDay(row.registered_at) : ''}</td>
              </tr>
              {open === row.id && (
                <tr>
                  <td colSpan={HEADS.length + 1}>
                    {/* Where the table is wider than the screen this stays in sight, whole. */}
                    <Box sx={{ position: 'sticky', left: 0, maxWidth: 'calc(100vw - 40px)', pl: { md: 6 } }}>
                      <OwnedDetails key={row.servers.join()} name={row} />
                    </Box>
                  </td>
                </tr>
              )}
            </Fragment>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}
