import { describe, expect, it } from 'vitest';

import { inFigure, nearest, place, toward } from './dots';

const frame = { across: 'letters', up: 'grade', left: 40, top: 10, width: 600, height: 380 };
const points = [
  { label: 'inkpost', x: 7, y: 90, kept: false },
  { label: 'paperpost', x: 9, y: 80, kept: true },
  { label: 'starsspace', x: 10, y: 40, kept: false },
];

describe('the dots', () => {
  const { dots, ticks } = place(points, frame);
  const by = (label: string) => {
    const dot = dots.find((d) => d.label === label);
    if (!dot) throw new Error(label);
    return dot;
  };

  it('stand within the frame, higher for a higher grade, farther for more letters', () => {
    for (const dot of dots) {
      expect(dot.px).toBeGreaterThanOrEqual(40);
      expect(dot.px).toBeLessThanOrEqual(640);
      expect(dot.py).toBeGreaterThanOrEqual(10);
      expect(dot.py).toBeLessThanOrEqual(390);
    }
    expect(by('inkpost').py).toBeLessThan(by('starsspace').py);
    expect(by('inkpost').px).toBeLessThan(by('paperpost').px);
    expect(ticks.up.map((t) => t.value)).toEqual([40, 50, 60, 70, 80, 90]);
    expect(ticks.across.map((t) => t.value)).toEqual([7, 8, 9, 10]);
  });

  it('keep their places', () => {
    expect(place(points, frame)).toEqual(place(points, frame));
    expect(place([], frame).dots).toEqual([]);
    expect(place(points.slice(0, 1), frame).dots).toHaveLength(1);
  });

  it('are found by the pointer when it is near', () => {
    const dot = by('paperpost');
    expect(nearest(dots, dot.px + 4, dot.py - 3, 14)?.label).toBe('paperpost');
    expect(nearest(dots, dot.px + 40, dot.py + 60, 14)).toBeUndefined();
  });

  it.each([
    ['taller', { left: 10, top: 20, width: 1320, height: 1240 }, 2, [0, 200]],
    ['wider', { left: 0, top: 0, width: 1000, height: 420 }, 1, [170, 0]],
    ['as tall and wide', { left: 5, top: 5, width: 330, height: 210 }, 0.5, [0, 0]],
  ] as const)('are found where they are seen in a box that is %s', (_, box, scale, [aside, above]) => {
    const dot = by('paperpost');
    const seen = { clientX: box.left + aside + dot.px * scale, clientY: box.top + above + dot.py * scale };
    const [x, y] = inFigure(box, seen, 660, 420);
    expect(x).toBeCloseTo(dot.px);
    expect(y).toBeCloseTo(dot.py);
  });

  it('are walked with arrow keys', () => {
    expect(toward(dots, by('inkpost'), 'ArrowRight')?.label).toBe('paperpost');
    expect(toward(dots, by('paperpost'), 'ArrowDown')?.label).toBe('starsspace');
    expect(toward(dots, by('inkpost'), 'ArrowUp')).toBeUndefined();
    expect(toward(dots, by('inkpost'), 'Enter')).toBeUndefined();
  });
});
