import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import type { ReactNode } from 'react';

import { t } from '../texts';

export interface Head<S extends string> {
  /** What rows are sorted by when it is pressed; none for a head that sorts nothing. */
  sort: S | null;
  word: string;
  title?: string;
  figure?: boolean;
}

interface Props<S extends string> {
  label: string;
  minWidth: number;
  heads: readonly Head<S>[];
  sorted: { by: S; down: boolean };
  /** Whether every row of the page is chosen. */
  all: boolean;
  onAll: (on: boolean) => void;
  onSort: (by: S) => void;
  /** The rows. */
  children: ReactNode;
}

/** A table whose rows are chosen, one by one or the whole page, and sorted by pressing a head. */
export function PickTable<S extends string>(props: Props<S>) {
  const { label, minWidth, heads, sorted, all, onAll, onSort, children } = props;
  return (
    <Box sx={{ overflowX: 'auto' }}>
      <Box
        component="table"
        aria-label={label}
        sx={{
          width: '100%',
          minWidth,
          borderCollapse: 'collapse',
          '& td, & th': { py: 0.35, pr: 1.5, textAlign: 'left', verticalAlign: 'middle' },
          '& th': { fontSize: '0.8125rem', fontWeight: 600 },
          '& tbody tr': { borderTop: 1, borderColor: 'divider' },
          '& .num': { textAlign: 'right', fontVariantNumeric: 'tabular-nums', whiteSpace: 'nowrap' },
        }}>
        <thead>
          <tr>
            <th>
              <PickBox label={t('Choose all of the page')} on={all} onChange={onAll} />
            </th>
            {heads.map(({ sort, word, title, figure }) => {
              const on = sort === sorted.by;
              return (
                <th
                  key={word}
                  scope="col"
                  className={figure ? 'num' : undefined}
                  aria-sort={on ? (sorted.down ? 'descending' : 'ascending') : undefined}>
                  {sort === null ? (
                    word
                  ) : (
                    <Button
                      size="small"
                      color="inherit"
                      title={title}
                      sx={{ px: 0, minWidth: 0, fontWeight: on ? 700 : 600 }}
                      onClick={() => onSort(sort)}>
                      {word} {on && (sorted.down ? '↓' : '↑')}
                    </Button>
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </Box>
    </Box>
  );
}

/** Chooses a row, or all. */
export function PickBox({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <Checkbox
      size="small"
      checked={on}
      onChange={(_, now) => onChange(now)}
      slotProps={{ input: { 'aria-label': label } }}
    />
  );
}
