import { type RefObject, type UIEvent, useLayoutEffect, useMemo, useRef, useState } from 'react';

import { type Bounds, type Span, spanOf } from './layout';

interface Sight {
  left: number;
  width: number;
}

/** What is seen next, or what was when that shows the same columns: then nothing is drawn anew. */
function followed(layout: Bounds, now: Sight, box: HTMLElement): Sight {
  const next = { left: box.scrollLeft, width: box.clientWidth };
  const [a, b] = [spanOf(layout, now.left, now.width), spanOf(layout, next.left, next.width)];
  return a.from === b.from && a.to === b.to ? now : next;
}

/** Of many columns those in sight, as the sheet goes sideways or gets wider. */
export function useSpan(
  scroller: RefObject<HTMLElement | null>,
  layout: Bounds,
  there: boolean,
): [Span, (event: UIEvent<HTMLElement>) => void] {
  const [sight, setSight] = useState<Sight>({ left: 0, width: 0 });
  const span = useMemo(() => spanOf(layout, sight.left, sight.width), [layout, sight]);
  useLayoutEffect(() => {
    const box = scroller.current;
    if (!there || !box) return;
    const seen = new ResizeObserver(() => {
      setSight((now) => followed(layout, now, box));
    });
    seen.observe(box);
    return () => {
      seen.disconnect();
    };
  }, [layout, there, scroller]);
  // Only when it went sideways: setting it anew makes every cell be reckoned anew.
  const aside = useRef(0);
  const onScroll = ({ currentTarget }: UIEvent<HTMLElement>) => {
    if (currentTarget.scrollLeft === aside.current) return;
    aside.current = currentTarget.scrollLeft;
    currentTarget.style.setProperty('--scrolled', `${aside.current}px`);
    setSight((now) => followed(layout, now, currentTarget));
  };
  return [span, onScroll];
}
