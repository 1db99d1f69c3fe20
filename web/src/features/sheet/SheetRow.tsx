import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Skeleton from '@mui/material/Skeleton';
import { memo } from 'react';

import type { Cell, Row } from '../../shared/api';
import { gradeOf, type Grading, MEASURES } from '../../shared/lib/grading';
import { TagFilledIcon, TagIcon } from '../../shared/ui/icons';
import { GradeFigure } from '../../shared/ui/GradeFigure';
import { SeamedName } from '../../shared/ui/SeamedName';
import { StatusMark } from '../../shared/ui/StatusMark';
import { shownStatus } from '../../shared/ui/status';

export const ROW_HEIGHT = 33;
/** A figure under it is coloured: the grade suffers from it. */
const LOW = 40;

export type Beside = 'statuses' | 'measures';

export const columns = (beside: Beside, extensions: number): string =>
  beside === 'measures' ? `30px minmax(140px, 1fr) 60px 54px repeat(${MEASURES.length}, 62px)` : `30px minmax(140px, 1fr) 60px 46px repeat(${extensions}, 66px)`;

interface Props {
  row: Row | undefined;
  index: number;
  id: string;
  top: number;
  extensions: readonly string[];
  beside: Beside;
  /** How grades are made; until it has come, the server's own are shown. */
  grading: Grading | null;
  selected: boolean;
  onSelect: (label: string) => void;
  onKeep: (label: string, kept: boolean) => void;
}

const cellOf = (row: Row, extension: string): Cell | undefined => row.cells.find((c) => c.extension === extension);

/** One name with its figures and statuses; a skeleton until it has come. */
export const SheetRow = memo(function SheetRow({ row, index, id, top, extensions, beside, grading, selected, onSelect, onKeep }: Props) {
  return (
    // The grid that holds the rows takes the keys, as grids do; a row is for the pointer.
    // eslint-disable-next-line jsx-a11y/interactive-supports-focus, jsx-a11y/click-events-have-key-events
    <div
      role="row"
      id={id}
      aria-rowindex={index + 2}
      aria-selected={selected}
      className="sheet-row"
      style={{ transform: `translateY(${top}px)`, gridTemplateColumns: columns(beside, extensions.length) }}
      onClick={() => { if (row) onSelect(row.label); }}
    >
      {row ? (
        <>
          <div role="gridcell">
            <IconButton size="small" tabIndex={-1} aria-pressed={row.kept} aria-label={`${row.kept ? 'Take' : 'Keep'} ${row.label}${row.kept ? ' off the shortlist' : ''}`} color={row.kept ? 'secondary' : 'default'} onClick={(e) => { e.stopPropagation(); onKeep(row.label, !row.kept); }} sx={{ p: 0.5 }}>
              {row.kept ? <TagFilledIcon sx={{ fontSize: 19 }} /> : <TagIcon sx={{ fontSize: 19 }} />}
            </IconButton>
          </div>
          <Box role="rowheader" title={row.change || row.label} sx={{ overflow: 'hidden', textOverflow: 'ellipsis', fontSize: '1.04rem' }}><SeamedName label={row.label} starts={row.starts} />{row.dot && <Box component="span" sx={{ color: 'text.secondary' }}>.{row.dot}</Box>}</Box>
          <div role="gridcell"><GradeFigure grade={grading ? gradeOf(row.scores, grading) : row.grade} width={24} /></div>
          <div role="gridcell">{row.letters}</div>
          {beside === 'measures' && MEASURES.map(({ name, word }) => (
            <Box role="gridcell" key={name} title={word} sx={{ color: (row.scores[name] ?? 100) < LOW ? 'amber' : 'inherit' }}>
              {row.scores[name] === undefined ? <span title="Not graded">–</span> : <GradeFigure grade={row.scores[name]} width={18} plain />}
            </Box>
          ))}
          {beside === 'statuses' && extensions.map((extension) => {
            const cell = cellOf(row, extension);
            return <Box role="gridcell" key={extension} title={cell?.reason ?? undefined} sx={{ fontSize: '0.82rem' }}><StatusMark status={shownStatus(cell)} wordless={!cell} /></Box>;
          })}
        </>
      ) : (
        <Skeleton variant="text" sx={{ gridColumn: '2 / -1', width: '60%' }} />
      )}
    </div>
  );
});
