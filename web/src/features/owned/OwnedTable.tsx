import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Typography from '@mui/material/Typography';
import { Fragment, useState } from 'react';

import type { OwnedName } from '../../shared/api';
import { formatDay, formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { type Head, PickBox, PickTable } from '../../shared/ui/PickTable';
import { OwnedDetails } from './OwnedDetails';
import type { Question } from './useOwned';

type Sort = 'name' | 'expires' | 'cost' | 'registered';

const HEADS: readonly Head<Sort>[] = [
  { sort: 'name', word: t('Full name') },
  { sort: 'expires', word: t('Runs out') },
  { sort: null, word: t('Renewal') },
  { sort: null, word: t('At') },
  { sort: 'cost', word: t('A year') },
  { sort: 'registered', word: t('Registered') },
];
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
  const down = question.sort.startsWith('-');
  const by = question.sort.replace('-', '') as Sort;
  return (
    <PickTable
      label={t('My names')}
      minWidth={760}
      heads={HEADS}
      sorted={{ by, down }}
      all={all}
      onAll={(on) =>
        choose(
          rows.map((row) => row.id),
          on,
        )
      }
      onSort={(sort) => onSort(sort === by && !down ? `-${sort}` : sort)}>
      {rows.map((row) => (
        <Fragment key={row.id}>
          <tr>
            <td>
              <PickBox
                label={t('Choose {name}', { name: row.shown })}
                on={chosen.has(row.id)}
                onChange={(on) => choose([row.id], on)}
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
    </PickTable>
  );
}
