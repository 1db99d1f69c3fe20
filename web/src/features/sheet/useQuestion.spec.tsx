import { act, renderHook } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter, useLocation } from 'react-router';
import { expect, it } from 'vitest';

import { EVERYTHING, narrows, useQuestion, useShown } from './useQuestion';

const at = (address: string) =>
  renderHook(() => ({ question: useQuestion(), shown: useShown(), search: useLocation().search }), {
    wrapper: ({ children }: { children: ReactNode }) => <MemoryRouter initialEntries={[address]}>{children}</MemoryRouter>,
  });

it('keeps the question in the address, and only what differs from the usual', () => {
  const { result } = at('/');
  expect(result.current.question[0]).toEqual(EVERYTHING);
  act(() => { result.current.question[1]({ text: 'ink', good: true, sort: 'letters' }); });
  expect(result.current.search).toBe('?sort=letters&text=ink&good=1');
  act(() => { result.current.question[1]({ sort: 'best', text: '', good: false }); });
  expect(result.current.search).toBe('');
});

it('keeps what is shown beside the names in the address as well', () => {
  const { result } = at('/?good=1&show=fireworks');
  expect(result.current.shown[0]).toBe('statuses');
  act(() => { result.current.shown[1]('plot'); });
  expect(result.current.search).toBe('?good=1&show=plot');
  act(() => { result.current.question[1]({ good: false }); });
  expect(result.current.search).toBe('?show=plot');
  act(() => { result.current.shown[1]('statuses'); });
  expect(result.current.search).toBe('');
});

it('reads an address, and passes over what it does not know', () => {
  const { result } = at('/?sort=luck&open_in=com&kept=1&colour=red');
  expect(result.current.question[0]).toEqual({ ...EVERYTHING, open_in: 'com', kept: true });
  expect(narrows(result.current.question[0])).toBe(true);
  expect(narrows(EVERYTHING)).toBe(false);
});
