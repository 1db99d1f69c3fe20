import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

import { useLetters } from './useLetters';

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

it('loses nothing typed while what was told comes back, and takes over what is given from outside', () => {
  const told = vi.fn();
  const { result, rerender } = renderHook(({ given }) => useLetters(given, 40, told), {
    initialProps: { given: '' },
  });
  const type = (letters: string) => {
    act(() => {
      result.current[1](letters);
    });
  };
  type('ink post');
  act(() => {
    vi.advanceTimersByTime(50);
  });
  expect(told.mock.calls).toEqual([['inkpost']]);
  type('');
  rerender({ given: 'inkpost' });
  expect(result.current[0]).toBe('');
  act(() => {
    vi.advanceTimersByTime(50);
  });
  expect(told).toHaveBeenLastCalledWith('');
  rerender({ given: '' });
  rerender({ given: 'quiet' });
  expect(result.current[0]).toBe('quiet');
  act(() => {
    vi.advanceTimersByTime(500);
  });
  expect(told).toHaveBeenCalledTimes(2);
});
