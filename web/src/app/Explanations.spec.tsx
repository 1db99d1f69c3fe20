import { act, fireEvent, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

import { renderIn } from '../shared/testing/render';
import { Explanations } from './Explanations';

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

const show = () =>
  renderIn(
    <>
      <div title="Which recipes come first">
        <button>dial</button>
      </div>
      <span title="Asked on Tuesday">2 h ago</span>
      <p>plain</p>
      <Explanations />
    </>,
  );
const after = (ms: number) => {
  act(() => {
    vi.advanceTimersByTime(ms);
  });
};
// The environment has no pointer events of its own.
const touch = (name: 'pointerdown' | 'pointerup', at: Element) => {
  fireEvent(at, Object.assign(new Event(name, { bubbles: true }), { pointerType: 'touch' }));
};
const told = () => screen.queryByRole('tooltip')?.textContent ?? null;

it('explains what the focus comes to by key, also by what it stands in, until Escape or the focus leaves', () => {
  show();
  const dial = screen.getByRole('button');
  vi.spyOn(dial, 'matches').mockImplementation((of) => of === ':focus-visible');
  fireEvent.focusIn(dial);
  expect(told()).toBeNull();
  after(600);
  expect(told()).toBe('Which recipes come first');
  fireEvent.keyDown(dial, { key: 'Escape' });
  expect(told()).toBeNull();
  fireEvent.focusIn(dial);
  after(600);
  fireEvent.focusOut(dial);
  expect(told()).toBeNull();
});

it('says nothing where a mouse brought the focus, or nothing is explained', () => {
  show();
  fireEvent.focusIn(screen.getByRole('button'));
  touch('pointerdown', screen.getByText('plain'));
  touch('pointerup', screen.getByText('plain'));
  after(600);
  expect(told()).toBeNull();
});

it('explains where a finger rests, and at once where it taps on what is no button', () => {
  show();
  touch('pointerdown', screen.getByRole('button'));
  touch('pointerup', screen.getByRole('button'));
  after(600);
  expect(told()).toBeNull();
  touch('pointerdown', screen.getByRole('button'));
  after(600);
  touch('pointerup', screen.getByRole('button'));
  expect(told()).toBe('Which recipes come first');
  touch('pointerdown', screen.getByText('2 h ago'));
  expect(told()).toBeNull();
  touch('pointerup', screen.getByText('2 h ago'));
  expect(told()).toBe('Asked on Tuesday');
});
