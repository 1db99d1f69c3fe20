import { act, renderHook } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter, useLocation } from 'react-router';
import { expect, it } from 'vitest';

import { EVERYTHING, leastOf, narrows, toggled, withLeast } from '../../shared/lib/question';
import { activeFilters } from './activeFilters';
import { useQuestion } from './useQuestion';
import { figureColumns, useView } from './useView';

const at = (address: string) =>
  renderHook(() => ({ question: useQuestion(), view: useView(['com', 'ie']), search: useLocation().search }), {
    wrapper: ({ children }: { children: ReactNode }) => (
      <MemoryRouter initialEntries={[address]}>{children}</MemoryRouter>
    ),
  });

it('keeps the question in the address, and only what is asked', () => {
  const { result } = at('/');
  expect(result.current.question[0]).toEqual(EVERYTHING);
  act(() => {
    result.current.question[1]({ text: 'ink', grade_min: 80, sort: 'letters' });
  });
  expect(result.current.search).toBe('?sort=letters&text=ink&grade_min=80');
  act(() => {
    result.current.question[1]({ sort: undefined, text: '', grade_min: undefined });
  });
  expect(result.current.search).toBe('');
});

it('builds changes made within one moment on each other', () => {
  const { result } = at('/');
  const [, ask] = result.current.question;
  act(() => {
    for (let press = 0; press < 3; press += 1)
      ask((now) =>
        now.sort !== 'grade'
          ? { sort: 'grade' }
          : now.reverse
            ? { sort: undefined, reverse: undefined, text: 'ink' }
            : { reverse: true },
      );
  });
  expect(result.current.search).toBe('?text=ink');
});

it('keeps how the sheet looks beside it, and only what differs from the usual', () => {
  const { result } = at('/?mark=kept&show=fireworks&cols=grade,nonsense,.ie&widths=name:220,grade:9999&rows=dense');
  expect(result.current.view[0]).toEqual({
    columns: ['grade', '.ie'],
    widths: { name: 220 },
    pinned: [],
    density: 'dense',
    plot: false,
  });
  act(() => {
    result.current.view[1]({
      columns: ['grade', 'letters', '.com', '.ie'],
      widths: {},
      density: 'usual',
      plot: true,
    });
  });
  expect(result.current.search).toBe('?mark=kept&show=plot');
  act(() => {
    result.current.view[1]({ columns: figureColumns(), pinned: ['grade'], plot: false });
  });
  expect(new URLSearchParams(result.current.search).get('cols')).toBe(
    'grade,letters,length,spelling,fit,sense,sound,memory,clarity',
  );
  act(() => {
    result.current.question[1]({ mark: undefined });
  });
  expect(new URLSearchParams(result.current.search).get('pin')).toBe('grade');
});

it('reads an address, and passes over what it does not know', () => {
  const { result } = at('/?sort=fit&open_in=com&letters_max=many&open_all=1&colour=red');
  expect(result.current.question[0]).toEqual({ sort: 'fit', open_in: 'com', open_all: true });
  expect(narrows(result.current.question[0])).toBe(true);
  expect(narrows({ sort: 'fit', reverse: true })).toBe(false);
});

it('loses neither of two changes made within one moment', () => {
  const { result } = at('/?mark=kept');
  act(() => {
    result.current.view[1]({ density: 'dense' });
    result.current.question[1]({ text: 'ink' });
    result.current.view[1]({ pinned: ['grade'] });
  });
  expect(Object.fromEntries(new URLSearchParams(result.current.search))).toEqual({
    mark: 'kept',
    text: 'ink',
    rows: 'dense',
    pin: 'grade',
  });
  act(() => {
    result.current.question[1]({ text: undefined });
  });
  expect(new URLSearchParams(result.current.search).has('text')).toBe(false);
});

it('adds to lists and takes from them', () => {
  expect(toggled('pair,lead', 'lead')).toBe('pair');
  expect(toggled('pair', 'pair')).toBeUndefined();
  expect(toggled(undefined, 'pair')).toBe('pair');
  const question = withLeast(withLeast({}, 'fit', 60), 'sound', 40);
  expect(leastOf(question)).toEqual({ fit: 60, sound: 40 });
  expect(withLeast(question, 'fit', 0).least).toBe('sound:40');
});

it('tells the filters in words, each with what takes it away', () => {
  const told = activeFilters({
    sort: 'name',
    text: 'ink',
    letters_min: 5,
    least: 'fit:60',
    open_in: 'com,ie',
    open_all: true,
    mark: 'fresh',
    digit: 'no',
  });
  expect(told.map((t) => t.word)).toEqual([
    'from 5 letters',
    'keyword fit from 60',
    'open in .com and .ie',
    'no digit',
    'not looked at',
  ]);
  expect(told[0]?.without).toEqual({ letters_min: undefined, letters_max: undefined });
  expect(told[1]?.without).toEqual({ least: undefined });
});
