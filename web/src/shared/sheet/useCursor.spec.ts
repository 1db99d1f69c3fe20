import { act, renderHook } from '@testing-library/react';
import { expect, it, vi } from 'vitest';

import { sampleRow } from '../testing/samples';
import { useCursor } from './useCursor';

const rows = [0, 1, 2, 3].map((i) => sampleRow({ label: `ink${i}` }));

function setUp(place: string, there = 4) {
  const scrollTo = vi.fn();
  const toTop = vi.fn();
  const chosen: (string | null)[] = [];
  const onSelect = (label: string | null) => {
    chosen.push(label);
  };
  const list = {
    keyOf: ({ label }: { label: string }) => label,
    total: 4,
    place,
    selected: null as string | null,
    onSelect,
    scrollTo,
    toTop,
  };
  const rowAt = (count: number) => (index: number) => (index < count ? rows[index] : undefined);
  const hook = renderHook((more: object) => useCursor({ ...list, rowAt: rowAt(there), ...more }), {
    initialProps: {},
  });
  const come = (count: number, selected: string | null = null) => {
    hook.rerender({ rowAt: rowAt(count), selected });
  };
  return { cursor: () => hook.result.current, chosen, scrollTo, toTop, come, unmount: hook.unmount };
}

it('begins at the top, and goes no further than the list', () => {
  const { cursor, chosen, scrollTo, toTop } = setUp('7 top');
  expect(chosen).toEqual(['ink0']);
  expect(toTop).toHaveBeenCalled();
  act(() => {
    expect(cursor().go(9)).toBe(3);
  });
  expect(chosen.at(-1)).toBe('ink3');
  expect(scrollTo).toHaveBeenLastCalledWith(3);
  act(() => {
    expect(cursor().go(-2)).toBe(0);
  });
  expect(cursor().row()?.label).toBe('ink0');
});

it('chooses a row far away once it has come, and only then', () => {
  const { cursor, chosen, come } = setUp('7 far', 1);
  act(() => {
    cursor().go(2);
  });
  expect(chosen).toEqual(['ink0']);
  expect(cursor().row()).toBeUndefined();
  come(4);
  expect(chosen.at(-1)).toBe('ink2');
  come(4, 'ink2');
  expect(cursor().row()?.label).toBe('ink2');
  // Another row that comes to stand there is not chosen by itself.
  come(3, 'ink2');
  expect(chosen).toEqual(['ink0', 'ink2']);
});

it('is where it was in a list one comes back to', () => {
  const before = setUp('7 back');
  act(() => {
    before.cursor().go(2);
  });
  before.unmount();
  const { chosen, scrollTo } = setUp('7 back');
  expect(chosen).toEqual(['ink2']);
  expect(scrollTo).toHaveBeenCalledWith(2, { align: 'center' });
});
