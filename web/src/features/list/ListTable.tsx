import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useRef } from 'react';

import type { Cell, Listed } from '../../shared/api';
import { shownStatus } from '../../shared/ui/status';
import { StatusMark } from '../../shared/ui/StatusMark';
import { t } from '../../shared/texts';

const ROW = 34;

const Line = memo(function Line({ row, top }: { row: Listed; top: number }) {
  const cells = new Map<string, Cell>(row.cells.map((c) => [c.extension, c]));
  return (
    <Box
      role="row"
      sx={{
        position: 'absolute',
        insetInline: 0,
        height: ROW,
        display: 'flex',
        alignItems: 'center',
        gap: 1,
        borderBottom: 1,
        borderColor: 'divider',
        whiteSpace: 'nowrap',
        minWidth: 'fit-content',
      }}
      style={{ transform: `translateY(${top}px)` }}>
      <Box
        role="rowheader"
        className="serif"
        title={row.shown === row.label ? row.label : `${row.shown} (${row.label})`}
        sx={{
          width: 158,
          flex: 'none',
          overflow: 'hidden',
          textOverflow: 'ellipsis',
          fontSize: '1.02rem',
          pl: 0.5,
        }}>
        {row.shown}
      </Box>
      {row.extensions.map((extension) => {
        const cell = cells.get(extension);
        return (
          <Box
            role="gridcell"
            key={extension}
            title={cell?.reason || undefined}
            sx={{ display: 'inline-flex', gap: 0.7, minWidth: 112, fontSize: '0.85rem' }}>
            <Box component="span" sx={{ color: 'text.secondary' }}>
              .{extension}
            </Box>
            <StatusMark status={shownStatus(cell)} likely={cell?.likely ?? false} />
          </Box>
        );
      })}
    </Box>
  );
});

/** The pasted names with their statuses; only those in view are drawn. */
export function ListTable({ rows }: { rows: readonly Listed[] }) {
  const scroller = useRef<HTMLDivElement>(null);
  // The virtualizer changes what its functions return between renders, so nothing here is memoized.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 15,
  });
  return (
    <Box
      ref={scroller}
      role="grid"
      tabIndex={0}
      aria-label={t('Pasted names')}
      aria-rowcount={rows.length}
      sx={{ overflow: 'auto', flex: 1, minHeight: 200, borderTop: 2, borderColor: 'wire' }}>
      <Box
        role="rowgroup"
        sx={{ position: 'relative', minWidth: 'fit-content' }}
        style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index];
          return row && <Line key={row.label} row={row} top={item.start} />;
        })}
      </Box>
      {rows.length === 0 && (
        <Typography color="textSecondary" sx={{ p: 2 }}>
          {t('No name of that status.')}
        </Typography>
      )}
    </Box>
  );
}
