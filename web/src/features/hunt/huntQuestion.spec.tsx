import { act, renderHook } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter, useLocation } from 'react-router';
import { expect, it } from 'vitest';

import { formatLeft } from '../../shared/lib/format';
import { HUNT_FIELDS, useHuntQuestion } from './huntQuestion';
import { useShortQuestion } from './useShortNames';

const ALL =
  'sort=price&text=ink&starts=i&ends=k&kinds=fixed%2Cauction&markets=oldgate&extensions=com%2Cnet&also=org&hyphen=no&digit=no&letters_min=3&letters_max=9&words_min=1&words_max=2&price_min=5&price_max=90.5&bids_min=1&bids_max=9&within=24&age_min=10&links_min=7&sites_min=2&reverse=1&clean=1';

it('is written as it was read, whatever of it there is', () => {
  const read = HUNT_FIELDS.read(new URLSearchParams(ALL));
  expect(new URLSearchParams(HUNT_FIELDS.write(read)).toString()).toBe(ALL);
  expect(read).toMatchObject({ price_max: 90.5, within: 24, clean: true, kinds: 'fixed,auction' });
  // What orders the hunt narrows nothing.
  expect(HUNT_FIELDS.filtersOf(read)).toBe(HUNT_FIELDS.write(read).length - 2);
  expect(HUNT_FIELDS.filtersOf({})).toBe(0);
  expect(Object.keys(HUNT_FIELDS.unfiltered)).not.toContain('sort');
});

it('passes over what is no number, and what is none of its business', () => {
  expect(HUNT_FIELDS.read(new URLSearchParams('price_max=cheap&within=&cols=grade&clean=yes&text='))).toEqual({});
});

const wrapper = (address: string) =>
  function Wrapper({ children }: { children: ReactNode }) {
    return <MemoryRouter initialEntries={[address]}>{children}</MemoryRouter>;
  };

it('changes parts of the address, one after the other, and leaves how the sheet looks', () => {
  const { result } = renderHook(() => ({ hunt: useHuntQuestion(), search: useLocation().search }), {
    wrapper: wrapper('/hunt?cols=grade&kinds=fixed'),
  });
  act(() => {
    const [, ask] = result.current.hunt;
    ask({ price_max: 100 });
    ask((now) => ({ kinds: now.kinds === 'fixed' ? undefined : 'fixed' }));
  });
  expect(result.current.hunt[0]).toEqual({ price_max: 100 });
  expect(new URLSearchParams(result.current.search).get('cols')).toBe('grade');
});

it('asks for short names by the address, and forgets what is taken away', () => {
  const { result } = renderHook(() => ({ short: useShortQuestion(), search: useLocation().search }), {
    wrapper: wrapper('/short?shape=CVCV&sayable=1&offset=60&every=0'),
  });
  expect(result.current.short[0]).toEqual({ shape: 'CVCV', sayable: true, offset: 60 });
  act(() => {
    result.current.short[1]({ sayable: undefined, offset: undefined, letters: 'abel' });
  });
  expect(result.current.search).toBe('?shape=CVCV&letters=abel');
});

const NOW = Date.parse('2026-11-29T12:00:00Z');

it.each([
  ['2026-11-29T12:00:20Z', 'in 1 min.'],
  ['2026-11-29T12:44:00Z', 'in 44 min.'],
  ['2026-11-29T17:00:00Z', 'in 5 hr.'],
  ['2026-12-01T10:00:00Z', 'in 46 hr.'],
  ['2026-12-04T12:00:00Z', 'in 5 days'],
  ['2026-11-29T12:00:00Z', 'over'],
  ['2026-11-20T12:00:00Z', 'over'],
])('says how long it is until %s', (at, said) => {
  expect(formatLeft(at, NOW)).toBe(said);
});
