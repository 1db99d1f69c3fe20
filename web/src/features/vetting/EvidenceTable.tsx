import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';

import type { EvidenceOfFinding } from '../../shared/api';
import { t } from '../../shared/texts';
import { type Column, COLUMNS, handleGrid, saysOf, shown, whyOf } from './evidence';

const FIRST = 8;
const TABLE = {
  borderCollapse: 'collapse',
  width: '100%',
  fontSize: '0.86rem',
  '& th': { textAlign: 'left', fontWeight: 600, color: 'text.secondary', whiteSpace: 'nowrap' },
  '& th, & td': { px: 1, py: 0.4, verticalAlign: 'top', borderTop: 1, borderColor: 'divider' },
  '& th:first-of-type, & td:first-of-type': { pl: 0 },
} as const;

function Cell({ column, row, first }: { column: Column; row: EvidenceOfFinding; first: boolean }) {
  const value = shown(column, row);
  return (
    <Box
      component="td"
      sx={{ ...(column.figure && { textAlign: 'right', whiteSpace: 'nowrap' }), overflowWrap: 'break-word' }}>
      {first && typeof row.same === 'string' ? <Alike text={value} same={row.same} /> : value}
    </Box>
  );
}

/** A mark with the letters it shares with the name set off. */
export function Alike({ text, same }: { text: string; same: string }) {
  const places = same.split(' ').filter(Boolean).map(Number);
  const parts = [];
  let at = 0;
  for (let i = 0; i + 1 < places.length; i += 2) {
    const [from = 0, to = 0] = [places[i], places[i + 1]];
    if (from > at) parts.push(text.slice(at, from));
    parts.push(
      <Box
        component="mark"
        key={from}
        sx={{ bgcolor: 'transparent', color: 'inherit', borderBottom: 2, borderColor: 'amber' }}>
        {text.slice(from, to)}
      </Box>,
    );
    at = to;
  }
  return (
    <span className="serif">
      {parts}
      {text.slice(at)}
    </span>
  );
}

/** Platforms by handles: what each says of each. */
function Handles({ rows }: { rows: readonly EvidenceOfFinding[] }) {
  const { handles, platforms } = handleGrid(rows);
  return (
    <Box sx={{ overflowX: 'auto' }}>
      <Box component="table" aria-label={t('Handles on platforms')} sx={TABLE}>
        <thead>
          <tr>
            <th scope="col">{t('Platform')}</th>
            {handles.map((handle) => (
              <th scope="col" key={handle}>
                {`@${handle}`}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[...platforms].map(([platform, of]) => (
            <tr key={platform}>
              <th scope="row">{platform}</th>
              {handles.map((handle) => {
                const row = of.get(handle);
                const says = row?.says;
                return (
                  <Box
                    component="td"
                    key={handle}
                    title={whyOf(row)}
                    sx={{
                      color: says === 'free' ? 'secondary.main' : says === 'taken' ? 'text.primary' : 'text.secondary',
                      fontWeight: says === 'free' ? 600 : 400,
                      whiteSpace: 'nowrap',
                    }}>
                    {saysOf(row)}
                  </Box>
                );
              })}
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

interface Props {
  kind: string;
  word: string;
  rows: readonly EvidenceOfFinding[];
}

/** What speaks for a finding. */
export function EvidenceTable({ kind, word, rows }: Props) {
  const [all, setAll] = useState(false);
  const columns = (COLUMNS[kind] ?? []).filter((column) => rows.some((row) => shown(column, row) !== ''));
  if (!rows.length) return null;
  if (kind === 'handles') return <Handles rows={rows} />;
  if (!columns.length) return null;
  return (
    <>
      <Box sx={{ overflowX: 'auto' }}>
        <Box component="table" aria-label={t('Evidence: {word}', { word })} sx={TABLE}>
          <thead>
            <tr>
              {columns.map((column) => (
                <Box
                  component="th"
                  scope="col"
                  key={column.key}
                  style={column.figure ? { textAlign: 'right' } : undefined}>
                  {column.word}
                </Box>
              ))}
            </tr>
          </thead>
          <tbody>
            {(all ? rows : rows.slice(0, FIRST)).map((row, i) => (
              <tr key={i}>
                {columns.map((column, at) => (
                  <Cell key={column.key} column={column} row={row} first={at === 0} />
                ))}
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
      {rows.length > FIRST && (
        <Button size="small" onClick={() => setAll(!all)}>
          {all ? t('Only the first') : t('All {n, number}', { n: rows.length })}
        </Button>
      )}
    </>
  );
}
