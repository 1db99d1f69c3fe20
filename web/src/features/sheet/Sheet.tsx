import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';

import type { Row } from '../../shared/api';
import { Blank } from '../../shared/ui/Blank';
import { Unseen } from '../../shared/ui/Unseen';
import { type Grading, MEASURES } from '../../shared/lib/grading';
import { type Beside, columns, ROW_HEIGHT, SheetRow } from './SheetRow';
import { type Asked, EVERYTHING, narrows, type Sort } from './useQuestion';
import { useFirstPage, useRows } from './useSheet';

interface Props {
  projectId: number;
  extensions: readonly string[];
  /** What stands beside the names: statuses by extension, or figures by measure. */
  beside: Beside;
  grading: Grading | null;
  hasWords: boolean;
  hasRecipes: boolean;
  asked: Asked;
  onAsk: (part: Partial<Asked>) => void;
  selected: string | null;
  onSelect: (label: string | null) => void;
  onKeep: (label: string, kept: boolean) => void;
  onCheck: (labels: string[]) => void;
  onDismiss: (label: string) => void;
  onVary: () => void;
}

interface Heading {
  sort: Sort;
  word: string;
  title?: string;
}

const HEADS: readonly Heading[] = [
  { sort: 'name', word: 'Name' },
  { sort: 'grade', word: 'Grade' },
  { sort: 'letters', word: 'Letters' },
];
const BY_MEASURE: readonly Heading[] = MEASURES.map(({ name, word, asks }) => ({ sort: name as Sort, word: word.replace('Keyword fit', 'Fit'), title: `${asks} Sort by it.` }));

const look = {
  '& .sheet-row, & .sheet-head': { display: 'grid', alignItems: 'center', columnGap: '2px', pl: 0.5, minWidth: 'fit-content' },
  '& .sheet-row': { position: 'absolute', insetInline: 0, top: 0, height: ROW_HEIGHT, cursor: 'default', borderBottom: '1px solid var(--mui-palette-divider)', whiteSpace: 'nowrap' },
  '& .sheet-row:hover': { bgcolor: 'background.paper' },
  '& .sheet-row[aria-selected=true]': { bgcolor: 'background.paper', boxShadow: 'inset 3px 0 0 var(--mui-palette-secondary-main)' },
  '& .sheet-head': { position: 'sticky', top: 0, zIndex: 2, height: 30, bgcolor: 'background.default', borderBottom: '2px solid var(--mui-palette-wire)', fontSize: '0.8rem', color: 'text.secondary', fontWeight: 600 },
} as const;

function Head({ extensions, beside, asked, onAsk }: Pick<Props, 'extensions' | 'beside' | 'asked' | 'onAsk'>) {
  const press = (sort: Sort) => {
    if (asked.sort !== sort) onAsk({ sort, reverse: false });
    else if (!asked.reverse) onAsk({ reverse: true });
    else onAsk({ sort: 'best', reverse: false });
  };
  return (
    <div role="row" className="sheet-head" aria-rowindex={1} style={{ gridTemplateColumns: columns(beside, extensions.length) }}>
      <span role="columnheader"><Unseen>Kept</Unseen></span>
      {(beside === 'measures' ? [...HEADS, ...BY_MEASURE] : HEADS).map(({ sort, word, title }) => {
        const on = asked.sort === sort;
        const down = (sort !== 'name' && sort !== 'letters') !== asked.reverse;
        return (
          <span role="columnheader" key={sort} aria-sort={on ? (down ? 'descending' : 'ascending') : 'none'}>
            <ButtonBase tabIndex={-1} onClick={() => { press(sort); }} title={title ?? `Sort by ${word.toLowerCase()}`} sx={{ font: 'inherit', color: on ? 'secondary.main' : 'inherit' }}>
              {word}{on && <span aria-hidden>&nbsp;{down ? '↓' : '↑'}</span>}
            </ButtonBase>
          </span>
        );
      })}
      {beside === 'statuses' && extensions.map((e) => <Box component="span" role="columnheader" key={e} title={`.${e}`} sx={{ overflow: 'hidden', textOverflow: 'ellipsis', color: 'text.primary' }}>.{e}</Box>)}
    </div>
  );
}

function Nothing({ hasWords, hasRecipes, asked, onAsk }: Pick<Props, 'hasWords' | 'hasRecipes' | 'asked' | 'onAsk'>) {
  if (!hasRecipes) return <Blank title="All recipes are off">Switch one on, on the left: names are made by recipes.</Blank>;
  if (narrows(asked)) {
    return (
      <Blank title="No name passes these filters" action={<Button variant="outlined" onClick={() => { onAsk(EVERYTHING); }}>Show all names</Button>}>
        {asked.open_in ? 'Names show as open once they were checked and the registry said so.' : 'Try fewer letters, or another step of the wire above.'}
      </Blank>
    );
  }
  return hasWords ? (
    <Blank title="No name keeps these limits">Allow more letters or words on the left, or take back a word to avoid.</Blank>
  ) : (
    <Blank title="Add a word on the left">Two or three are enough to begin with. The names come at once.</Blank>
  );
}

/** The sheet: names by extensions, as many rows as there are, only those in view drawn. */
export function Sheet({ projectId, extensions, beside, grading, hasWords, hasRecipes, asked, onAsk, selected, onSelect, onKeep, onCheck, onDismiss, onVary }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const { data, error, isPending, isPlaceholderData, refetch } = useFirstPage(projectId, asked);
  const total = data?.total ?? 0;
  // The virtualizer changes what its functions return between renders, so nothing here is memoized.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 12,
    scrollMargin: 30,
  });
  const shown = rows.getVirtualItems();
  const rowAt = useRows(projectId, asked, data, shown[0]?.index ?? 0, shown.at(-1)?.index ?? 0);
  const at = useRef(0);
  const top = rowAt(0);
  useEffect(() => {
    if (selected === null && top) onSelect(top.label);
  }, [selected, top, onSelect]);
  // A row far away is chosen once it has come.
  const [wanted, setWanted] = useState<number | null>(null);
  const wantedRow = wanted === null ? undefined : rowAt(wanted);
  useEffect(() => {
    if (!wantedRow) return;
    onSelect(wantedRow.label);
    setWanted(null);
  }, [wantedRow, onSelect]);
  const question = JSON.stringify(asked);
  useEffect(() => {
    at.current = 0;
    scroller.current?.scrollTo({ top: 0 });
  }, [question]);

  // Keys may come faster than the page is drawn anew, so what they speak of is remembered here.
  const chosen = useRef(selected);
  useEffect(() => { chosen.current = selected; }, [selected]);
  const choose = (index: number, label: string) => {
    at.current = index;
    chosen.current = label;
    setWanted(null);
    onSelect(label);
  };
  const go = (index: number) => {
    const next = Math.min(total - 1, Math.max(0, index));
    rows.scrollToIndex(next);
    const row = rowAt(next);
    if (row) {
      choose(next, row.label);
      return;
    }
    at.current = next;
    setWanted(next);
  };
  const current = (): Row | undefined => {
    const row = rowAt(at.current);
    return row?.label === chosen.current ? row : undefined;
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey || event.target instanceof HTMLInputElement) return;
    const screen = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 330) / ROW_HEIGHT) - 2);
    const moves: Record<string, number> = {
      ArrowDown: at.current + 1, ArrowUp: at.current - 1, PageDown: at.current + screen, PageUp: at.current - screen, Home: 0, End: total - 1,
    };
    const row = current();
    const to = moves[event.key];
    if (to !== undefined) go(to);
    else if ((event.key === 't' || event.key === ' ') && row) onKeep(row.label, !row.kept);
    else if (event.key === 'c' && row) onCheck([row.label]);
    else if (event.key === 'v' && row) onVary();
    else if (event.key === 'x' && row) {
      onDismiss(row.label);
      setWanted(at.current);
    }
    else return;
    event.preventDefault();
  };

  if (error && !data) {
    return <Blank alert title="The names could not be loaded" action={<Button variant="outlined" onClick={() => { void refetch(); }}>Try again</Button>}>{error.message}</Blank>;
  }
  if (!isPending && total === 0) return <Nothing hasWords={hasWords} hasRecipes={hasRecipes} asked={asked} onAsk={onAsk} />;
  const activeRow = shown.find((item) => rowAt(item.index)?.label === selected);
  return (
    <Box
      ref={scroller}
      role="grid"
      tabIndex={0}
      aria-label="Names"
      aria-rowcount={total + 1}
      aria-busy={isPending || isPlaceholderData}
      aria-activedescendant={activeRow ? `row-${activeRow.index}` : undefined}
      onKeyDown={onKeyDown}
      sx={{ overflow: 'auto', minHeight: 0, flex: 1, ...look }}
    >
      <Head extensions={extensions} beside={beside} asked={asked} onAsk={onAsk} />
      <Box role="rowgroup" sx={{ position: 'relative', height: rows.getTotalSize(), minWidth: 'fit-content' }}>
        {shown.map((item) => {
          const row = rowAt(item.index);
          return (
            <SheetRow
              key={item.key}
              id={`row-${item.index}`}
              row={row}
              index={item.index}
              top={item.start - 30}
              extensions={extensions}
              beside={beside}
              grading={grading}
              selected={row !== undefined && row.label === selected}
              onSelect={(label) => { choose(item.index, label); }}
              onKeep={onKeep}
            />
          );
        })}
      </Box>
    </Box>
  );
}
