/** Where dots go, and which is next to which. */

export interface Point {
  label: string;
  x: number;
  y: number;
  kept: boolean;
}

export interface Dot extends Point {
  px: number;
  py: number;
}

interface Frame {
  across: string;
  up: string;
  left: number;
  top: number;
  width: number;
  height: number;
}

export interface Tick {
  value: number;
  at: number;
}

/** Letters are whole numbers: their dots are spread out a little, always alike for one name. */
function spread(label: string): number {
  let sum = 7;
  for (const c of label) sum = (sum * 31 + c.charCodeAt(0)) % 1009;
  return (sum / 1009 - 0.5) * 0.7;
}

interface Scale {
  low: number;
  high: number;
  ticks: number[];
}

function scaleOf(values: readonly number[], axis: string): Scale {
  const least = Math.min(...values);
  const most = Math.max(...values);
  const step =
    axis === 'letters'
      ? most - least > 16
        ? 5
        : most - least > 8
          ? 2
          : 1
      : most - least > 50
        ? 20
        : most - least > 20
          ? 10
          : 5;
  const low = Math.max(0, Math.floor(least / step) * step);
  const high = Math.max(low + step, Math.ceil(most / step) * step);
  const ticks = Array.from({ length: Math.round((high - low) / step) + 1 }, (_, i) => low + i * step);
  return axis === 'letters' ? { low: low - 0.6, high: high + 0.6, ticks } : { low, high, ticks };
}

/** Points to dots within a frame, with the ticks of both axes. */
export function place(points: readonly Point[], frame: Frame): { dots: Dot[]; ticks: { across: Tick[]; up: Tick[] } } {
  if (points.length === 0) return { dots: [], ticks: { across: [], up: [] } };
  const x = scaleOf(
    points.map((p) => p.x),
    frame.across,
  );
  const y = scaleOf(
    points.map((p) => p.y),
    frame.up,
  );
  const toX = (value: number) => frame.left + ((value - x.low) / (x.high - x.low)) * frame.width;
  const toY = (value: number) => frame.top + (1 - (value - y.low) / (y.high - y.low)) * frame.height;
  return {
    dots: points.map((p) => ({
      ...p,
      px: toX(p.x + (frame.across === 'letters' ? spread(p.label) : 0)),
      py: toY(p.y + (frame.up === 'letters' ? spread(p.label) : 0)),
    })),
    ticks: {
      across: x.ticks.map((value) => ({ value, at: toX(value) })),
      up: y.ticks.map((value) => ({ value, at: toY(value) })),
    },
  };
}

interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** A place on the screen as a place in a figure that is drawn as large as its box allows, in the middle of it. */
export function inFigure(
  box: Box,
  at: { clientX: number; clientY: number },
  width: number,
  height: number,
): [number, number] {
  const scale = Math.min(box.width / width, box.height / height);
  return [
    (at.clientX - box.left - (box.width - width * scale) / 2) / scale,
    (at.clientY - box.top - (box.height - height * scale) / 2) / scale,
  ];
}

const far = (dot: Dot, px: number, py: number): number => Math.hypot(dot.px - px, dot.py - py);

/** The dot nearest to a place, none when all are farther than `within`. */
export function nearest(dots: readonly Dot[], px: number, py: number, within: number): Dot | undefined {
  const found = dots.reduce<Dot | undefined>(
    (best, dot) => (!best || far(dot, px, py) < far(best, px, py) ? dot : best),
    undefined,
  );
  return found && far(found, px, py) <= within ? found : undefined;
}

const WAYS: Record<string, readonly [number, number]> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** The next dot in the way an arrow key points: near, and not much aside. */
export function toward(dots: readonly Dot[], from: Dot, key: string): Dot | undefined {
  const way = WAYS[key];
  if (!way) return undefined;
  const cost = (dot: Dot): number => {
    const ahead = (dot.px - from.px) * way[0] + (dot.py - from.py) * way[1];
    const aside = Math.abs((dot.px - from.px) * way[1]) + Math.abs((dot.py - from.py) * way[0]);
    return ahead > 0.5 ? ahead + 2 * aside : Infinity;
  };
  const best = dots.reduce<Dot | undefined>(
    (found, dot) => (dot.label !== from.label && cost(dot) < (found ? cost(found) : Infinity) ? dot : found),
    undefined,
  );
  return best;
}
