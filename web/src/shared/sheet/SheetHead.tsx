import { type KeyboardEvent, type PointerEvent, useRef } from 'react';

import { VisuallyHidden } from '../ui/VisuallyHidden';
import type { Bounds, Column } from './layout';
import { t } from '../texts';

export interface Order {
  sort?: string | undefined;
  reverse?: boolean | undefined;
}

type Head = Pick<Column<never, never>, 'id' | 'word' | 'title' | 'sort' | 'falling'>;

interface Props {
  layout: Bounds & { columns: readonly Head[] };
  question: Order;
  onAsk: (part: (now: Order) => Order) => void;
  onWidth: (id: string, px: number) => void;
  /** What the order is that the list has by itself: in a word, and told. */
  best: { word: string; title: string };
}

const NAME: Head = {
  id: 'name',
  word: t('Name'),
  title: t('In the order of the alphabet'),
  sort: 'name',
};
const NARROWEST = 36;
const WIDEST = 900;
const STEP = 12;

/** Takes hold of a column's edge; of a column without an order, by keys too. */
function Grip({ id, word, alone, onWidth }: { id: string; word: string; alone: boolean; onWidth: Props['onWidth'] }) {
  const begun = useRef<{ x: number; width: number } | null>(null);
  const width = (event: PointerEvent) =>
    Math.max(NARROWEST, (begun.current?.width ?? 0) + event.clientX - (begun.current?.x ?? 0));
  return (
    <span
      className="sheet-grip"
      {...(alone && {
        'data-head': id,
        tabIndex: -1,
        role: 'separator',
        'aria-orientation': 'vertical',
        'aria-label': t('Width of {word}', { word }),
      })}
      title={t('Draw to make the column wider')}
      onPointerDown={(event) => {
        begun.current = { x: event.clientX, width: event.currentTarget.parentElement?.clientWidth ?? 0 };
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerUp={(event) => {
        if (begun.current) onWidth(id, width(event));
        begun.current = null;
      }}
    />
  );
}

/** The head of the sheet: pressing orders by a column, once more turns it, a third time gives back the best first. */
export function SheetHead({ layout, question, onAsk, onWidth, best }: Props) {
  const press = (sort: string) => {
    onAsk((now) =>
      now.sort !== sort
        ? { sort, reverse: false }
        : now.reverse
          ? { sort: undefined, reverse: undefined }
          : { reverse: true },
    );
  };
  // Left and right go from head to head, with shift they size the column, down and Escape go back to the rows.
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    if (!(event.target instanceof HTMLElement)) return;
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    const { head } = event.target.dataset;
    if (event.key === 'Escape' || event.key === 'ArrowDown')
      event.currentTarget.closest<HTMLElement>('[role=grid]')?.focus();
    else if (!by || !head) return;
    else if (event.shiftKey)
      onWidth(
        head,
        Math.min(
          WIDEST,
          Math.max(NARROWEST, (event.target.closest('[role=columnheader]')?.clientWidth ?? 0) + by * STEP),
        ),
      );
    else {
      const heads = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-head]')];
      heads[heads.indexOf(event.target) + by]?.focus();
    }
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    // The keys are those of the heads in it.
    // eslint-disable-next-line jsx-a11y/interactive-supports-focus
    <div role="row" className="sheet-head" aria-rowindex={1} onKeyDown={onKeyDown}>
      <span role="columnheader" aria-colindex={1} className="pin">
        <VisuallyHidden>{t('Kept')}</VisuallyHidden>
      </span>
      {[NAME, ...layout.columns].map(({ id, word, title, sort, falling }, place) => {
        const on = sort !== undefined && question.sort === sort;
        const down = Boolean(falling) !== Boolean(question.reverse);
        return (
          <span
            role="columnheader"
            key={id}
            aria-colindex={place + 2}
            className={layout.stays.has(id) ? 'pin' : undefined}
            title={title}
            aria-sort={on ? (down ? 'descending' : 'ascending') : 'none'}>
            {sort ? (
              <button
                type="button"
                tabIndex={-1}
                data-head={id}
                className={on ? 'on' : undefined}
                onClick={() => press(sort)}>
                {word}
                {on && <span aria-hidden>{t('{which}', { which: down ? '↓' : '↑' })}</span>}
              </button>
            ) : (
              word
            )}
            {id === 'name' && !question.sort && (
              <span className="order" title={best.title}>
                {best.word}
              </span>
            )}
            <Grip id={id} word={word} alone={!sort} onWidth={onWidth} />
          </span>
        );
      })}
    </div>
  );
}
