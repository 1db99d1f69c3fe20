import Button from '@mui/material/Button';
import { type KeyboardEvent, type MouseEvent, useCallback, useEffect, useMemo, useRef } from 'react';

import type { Hunted } from '../../shared/api';
import { commandOf, useLetterKeys } from '../../shared/lib/keymap';
import { moveOf, pressedIn, toHeads } from '../../shared/sheet/sheetActs';
import { SheetGrid } from '../../shared/sheet/SheetGrid';
import { useCursor } from '../../shared/sheet/useCursor';
import { useSheetWindow } from '../../shared/sheet/useSheetWindow';
import { ROW_HEIGHTS, type View } from '../../shared/sheet/useView';
import { EmptyState } from '../../shared/ui/EmptyState';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { t } from '../../shared/texts';
import { type HuntContext, huntLayout } from './huntColumns';
import { HUNT_FIELDS, type HuntAsk, type HuntQuestion } from './huntQuestion';
import { huntQuery, useFirstHunt } from './useHunt';

const BEST = {
  word: t('best first'),
  title: t('By the words of a name and what is told of its past. Press a head for another order.'),
};

/** What a row of the hunt is known by: a market tells of a full name once. */
export const keyOf = (row: Hunted): string => `${row.label}.${row.extension} ${row.offer.market}`;

interface Props {
  projectId: number;
  question: HuntQuestion;
  onAsk: HuntAsk;
  view: View;
  onView: (part: Partial<View>) => void;
  context: HuntContext;
  chosen: Hunted | null;
  onChoose: (row: Hunted | null) => void;
  onKeep: (row: Hunted) => void;
  onOpen: (row: Hunted) => void;
  /** Where no market tells of anything. */
  none: boolean;
  /** Whether lists are fetched or read just now. */
  coming: boolean;
}

// A row with what stands behind its name; the same row every time, so that it is not drawn anew.
const dotted = new WeakMap<Hunted, Hunted & { dot: string }>();
function withDot(row: Hunted): Hunted & { dot: string } {
  const found = dotted.get(row) ?? { ...row, dot: row.extension };
  dotted.set(row, found);
  return found;
}

/** The sheet of offers and drops: made of the parts of the sheet of names. */
export function HuntSheet(props: Props) {
  const { projectId, question, onAsk, view, onView, context, chosen, onChoose, onKeep, onOpen, none, coming } = props;
  const { data, error, isPending, isPlaceholderData, refetch } = useFirstHunt(projectId, question);
  const layout = useMemo(
    () => huntLayout(view.columns, view.pinned, view.widths),
    [view.columns, view.pinned, view.widths],
  );
  const queryOf = (page: number) => huntQuery(projectId, question, page);
  const window = useSheetWindow({ queryOf, first: data, height: ROW_HEIGHTS[view.density], layout });
  const { scroller, total, drawn, rowAt, scrollTo, toTop, screen } = window;
  const latest = useRef(drawn);
  useEffect(() => {
    latest.current = drawn;
  });
  const onSelect = useCallback(
    (key: string | null) => {
      onChoose(latest.current.find((row) => row !== undefined && keyOf(row) === key) ?? null);
    },
    [onChoose],
  );
  const selected = chosen ? keyOf(chosen) : null;
  const place = `hunt ${projectId} ${JSON.stringify(question)}`;
  const cursor = useCursor({ rowAt, keyOf, total, place, selected, onSelect, scrollTo, toTop });
  const letters = useLetterKeys();

  if (error && !data) return <LoadFailed title={t('The offers could not be loaded')} error={error} onRetry={refetch} />;
  if (!isPending && total === 0)
    return HUNT_FIELDS.filtersOf(question) > 0 ? (
      <EmptyState
        title={t('Nothing passes these filters')}
        action={
          <Button variant="outlined" onClick={() => onAsk(HUNT_FIELDS.unfiltered)}>
            {t('Show everything')}
          </Button>
        }>
        {t('What a list does not tell of a name fails a filter that asks for it.')}
      </EmptyState>
    ) : coming ? (
      <EmptyState title={t('Lists of markets are being fetched')}>
        {t('The first take about a minute. The names come by themselves.')}
      </EmptyState>
    ) : (
      <EmptyState title={none ? t('No market has told of names yet') : t('Nothing is offered just now')}>
        {t('Lists of markets are fetched every hour; an administrator can bring others.')}
      </EmptyState>
    );

  const onKeyDown = (event: KeyboardEvent) => {
    const { target } = event;
    if (target instanceof HTMLElement && target.dataset.head) return;
    const command = commandOf('sheet', event, letters);
    if (!command) return;
    const row = cursor.row();
    const to = moveOf(command, cursor.at(), screen(), total);
    if (to !== undefined) cursor.go(to);
    else if (command === 'keep' && row) onKeep(row);
    else if (command === 'open' && row) onOpen(row);
    else if (command === 'heads') toHeads(scroller.current);
    else return;
    event.preventDefault();
  };
  const onClick = (event: MouseEvent) => {
    const [index, button] = pressedIn(event);
    const row = rowAt(index);
    if (!row) return;
    if (button?.dataset.act === 'keep') onKeep(row);
    else cursor.choose(index, keyOf(row));
  };
  const onDoubleClick = (event: MouseEvent) => {
    const [index, button] = pressedIn(event);
    const row = rowAt(index);
    if (row && !button) onOpen(row);
  };
  return (
    <SheetGrid
      label={t('Offers and drops')}
      name="hunted"
      window={window}
      drawn={drawn.map((row) => row && withDot(row))}
      layout={layout}
      context={context}
      question={question}
      onAsk={onAsk}
      best={BEST}
      view={view}
      onView={onView}
      busy={isPending || isPlaceholderData}
      isSelected={(row) => keyOf(row) === selected}
      onKeyDown={onKeyDown}
      onClick={onClick}
      onDoubleClick={onDoubleClick}
    />
  );
}
