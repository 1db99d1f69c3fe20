import { act, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import { keys } from '../api';
import { renderIn, serve } from '../testing/render';
import { Key } from '../ui/Key';
import { commandOf, KEYMAP, keysOf, type Place, type Pressed, useCommands } from './keymap';

const places = Object.keys(KEYMAP) as Place[];
const pressed = (key: string, more: Partial<Pressed> = {}): Pressed => ({
  key,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  ...more,
});
const person = (letter_keys: boolean) => ({
  person: { username: 'edda', demo: false, preferences: { letter_keys } },
  demo: false,
});

it.each(places)('gives no key two meanings: %s', (place) => {
  // What stands in the sheet and what stands around it are heard together.
  const together = place === 'bench' ? (['bench', 'sheet'] as const) : [place];
  const heard = together.flatMap((p) => Object.values(KEYMAP[p]).flatMap((b: { keys: readonly string[] }) => b.keys));
  expect(new Set(heard).size).toBe(heard.length);
  expect(keysOf(place, true).every(({ shown, does, off }) => shown && does && !off)).toBe(true);
});

it('knows what a key does, held with others or alone', () => {
  expect(commandOf('sheet', pressed('t'), true)).toBe('keep');
  expect(commandOf('sheet', pressed('a', { ctrlKey: true }), true)).toBe('markAll');
  expect(commandOf('sheet', pressed('t', { metaKey: true }), true)).toBeNull();
  expect(commandOf('sheet', pressed('t', { altKey: true }), true)).toBeNull();
  expect(commandOf('bench', pressed('Z', { ctrlKey: true }), true)).toBe('redo');
  expect(commandOf('bench', pressed('q'), true)).toBeNull();
});

it('leaves arrows, the space bar and held keys where single letters are switched off', () => {
  expect(commandOf('sheet', pressed('t'), false)).toBeNull();
  expect(commandOf('bench', pressed('/'), false)).toBeNull();
  expect(commandOf('sheet', pressed(' '), false)).toBe('keep');
  expect(commandOf('sheet', pressed('ArrowDown'), false)).toBe('down');
  expect(commandOf('bench', pressed('z', { ctrlKey: true }), false)).toBe('undo');
  const off = keysOf('sheet', false)
    .filter((k) => k.off)
    .map((k) => k.command);
  expect(off).toContain('vary');
  expect(off).not.toContain('keep');
});

it('hears keys wherever the focus is, but where one types or a menu is open', async () => {
  const heard = vi.fn(() => true);
  function Room() {
    useCommands('bench', heard);
    return (
      <>
        <input aria-label="field" />
        <div role="menu" tabIndex={0} aria-label="menu" />
        <button>button</button>
        <Key place="reading" of="takeBack" />
      </>
    );
  }
  serve(() => ({ body: {} }));
  const { client } = renderIn(<Room />);
  await userEvent.click(screen.getByRole('button'));
  await userEvent.keyboard('u');
  expect(heard).toHaveBeenCalledTimes(1);
  await userEvent.type(screen.getByLabelText('field'), 'u');
  act(() => {
    screen.getByLabelText('menu').focus();
  });
  await userEvent.keyboard('u');
  expect(heard).toHaveBeenCalledTimes(1);
  act(() => {
    client.setQueryData(keys.session, person(false));
  });
  await waitFor(() => {
    expect(screen.queryByText('u')).not.toBeInTheDocument();
  });
  await userEvent.click(screen.getByRole('button', { name: 'button' }));
  await userEvent.keyboard('u');
  expect(heard).toHaveBeenCalledTimes(1);
  await userEvent.keyboard('{Control>}z{/Control}');
  expect(heard).toHaveBeenCalledTimes(2);
});

it('shows a key beside what it does only while it is heard', async () => {
  serve(() => ({ body: {} }));
  const { client } = renderIn(
    <>
      <Key place="reading" of="takeBack" />
      <Key place="reading" of="pass" />
    </>,
  );
  expect(screen.getByText('u')).toBeInTheDocument();
  act(() => {
    client.setQueryData(keys.session, person(false));
  });
  await waitFor(() => {
    expect(screen.queryByText('u')).not.toBeInTheDocument();
  });
  expect(screen.getByText('→')).toBeInTheDocument();
});
