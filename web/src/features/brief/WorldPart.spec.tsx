import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, it, vi } from 'vitest';

import type { World } from '../../shared/api';
import { renderIn, serve } from '../../shared/testing/render';
import { sampleBrief } from '../../shared/testing/samples';
import {
  type Chosen,
  entriesNow,
  fieldsNow,
  leftOf,
  withDropped,
  withField,
  withKept,
  withOwn,
  withWeight,
} from './useWorld';
import { WorldDialog } from './WorldDialog';
import { AboutField, WorldPart } from './WorldPart';

const NONE: Chosen = sampleBrief().world;
const entry = (text: string, fields = {}) => ({
  text,
  field: 'pottery',
  worth: 0.8,
  weight: 3,
  dropped: false,
  ...fields,
});
const world = (fields: Partial<World> = {}): World => ({
  fields_near: [
    { title: 'pottery', near: 1, on: true, chosen: false },
    { title: 'glass', near: 0.6, on: false, chosen: false },
  ],
  facets: [
    { name: 'things', word: 'Things', entries: [entry('kiln'), entry('slip')] },
    { name: 'tools', word: 'Tools', entries: [] },
  ],
  questions: [
    { facet: 'tools', asks: 'What is in your hands?', example: 'rib' },
    { facet: 'moments', asks: 'When is it best?', example: 'dusk' },
  ],
  fits: true,
  informed: true,
  ...fields,
});

it('keeps what is chosen apart from what is only usual', () => {
  expect(withField(withField(NONE, 'glass', true), 'glass', false)).toMatchObject({ on: [], off: ['glass'] });
  expect(withWeight(withWeight(NONE, 'kiln', 5), 'kiln', 3).weights).toEqual({});
  expect(withOwn(withOwn(NONE, 'tools', 'Rib, wire'), 'tools', 'wire;  bone  folder').own).toEqual({
    tools: ['rib', 'wire', 'bone folder'],
  });
  expect(withDropped(withDropped(NONE, 'things', 'kiln', false), 'things', 'kiln', false).drop).toEqual([]);
  expect(withDropped({ ...NONE, own: { things: ['mug', 'jug'] } }, 'things', 'mug', true).own).toEqual({
    things: ['jug'],
  });
  expect(withKept({ ...NONE, own: { things: ['mug'] } }, { things: ['jug', 'mug'], sounds: ['clink'] }).own).toEqual({
    things: ['mug', 'jug'],
    sounds: ['clink'],
  });
});

it('shows at once what the server has not heard of', () => {
  const chosen: Chosen = {
    ...NONE,
    on: ['clay'],
    off: ['pottery'],
    drop: ['slip'],
    weights: { kiln: 5 },
    own: { things: ['mug'] },
  };
  const [things] = world().facets;
  if (!things) throw new Error('no facet');
  expect(entriesNow(things, chosen).map((e) => [e.text, e.weight, e.dropped])).toEqual([
    ['mug', 3, false],
    ['kiln', 5, false],
    ['slip', 3, true],
  ]);
  expect(entriesNow({ ...things, entries: [entry('mug', { field: 'your own words' })] }, NONE)).toEqual([]);
  expect(
    fieldsNow(world(), chosen)
      .filter((f) => f.on)
      .map((f) => f.title),
  ).toEqual(['clay']);
  expect(leftOf(world().questions, { ...NONE, own: { tools: ['rib'] } }, new Set(['When is it best?']))).toEqual([]);
});

function Panel({ told, tell }: { told: World; tell: (chosen: Chosen) => void }) {
  serve((_method, path) => {
    if (path.endsWith('/world')) return { body: told };
    if (path.startsWith('/api/fields')) return { body: { titles: ['glass and stained glass'] } };
    return { body: [{ id: 4, title: 'Clay talk', entries: { sounds: ['clink'] } }] };
  });
  const [chosen, setChosen] = useState(NONE);
  return (
    <WorldPart
      projectId={7}
      chosen={chosen}
      onChange={(next) => {
        setChosen(next);
        tell(next);
      }}
    />
  );
}

it('switches fields, finds others, and takes answers to their facet', async () => {
  const user = userEvent.setup();
  const tell = vi.fn();
  renderIn(<Panel told={world()} tell={tell} />);
  await user.click(await screen.findByRole('button', { name: 'pottery' }));
  expect(tell).toHaveBeenLastCalledWith({ ...NONE, off: ['pottery'] });
  await user.type(screen.getByLabelText('Find another field'), 'gla');
  await user.click(await screen.findByRole('option', { name: 'glass and stained glass' }));
  expect(tell).toHaveBeenLastCalledWith(expect.objectContaining({ on: ['glass and stained glass'] }));
  expect(screen.getByText('2 left')).toBeVisible();
  await user.type(screen.getByLabelText('What is in your hands?'), 'rib, wire{Enter}');
  expect(tell).toHaveBeenLastCalledWith(expect.objectContaining({ own: { tools: ['rib', 'wire'] } }));
  await user.click(screen.getByRole('button', { name: 'Not now' }));
  expect(screen.queryByRole('form', { name: 'A small question' })).toBeNull();
});

it('weighs, drops and adds words, and puts in a world of one’s own', async () => {
  const user = userEvent.setup();
  const tell = vi.fn();
  renderIn(<Panel told={world()} tell={tell} />);
  await user.click(await screen.findByRole('button', { name: 'The words of your world' }));
  const dialog = await screen.findByRole('dialog', { name: 'The words of your world' });
  await user.click(within(dialog).getByRole('button', { name: /^kiln, weighs as usual/ }));
  await user.click(within(dialog).getByRole('button', { name: /^kiln, weighs much/ }));
  expect(tell).toHaveBeenLastCalledWith(expect.objectContaining({ weights: { kiln: 1 } }));
  within(dialog).getByRole('button', { name: /^slip/ }).focus();
  await user.keyboard('{Delete}');
  expect(tell).toHaveBeenLastCalledWith(expect.objectContaining({ drop: ['slip'] }));
  await user.click(within(dialog).getByRole('button', { name: 'Take slip back' }));
  expect(tell).toHaveBeenLastCalledWith(expect.objectContaining({ drop: [] }));
  await user.type(within(dialog).getByLabelText('Add to Tools'), 'rib{Enter}');
  await user.click(await within(dialog).findByRole('button', { name: 'Clay talk' }));
  expect(tell).toHaveBeenLastCalledWith(expect.objectContaining({ own: { tools: ['rib'], sounds: ['clink'] } }));
  await user.type(within(dialog).getByLabelText('Keep your own words as'), 'Clay');
  expect(within(dialog).getByRole('button', { name: 'Keep 2 words' })).toBeEnabled();
});

it('says so where there is nothing to go by, and where no field fits', async () => {
  const { unmount } = renderIn(<Panel told={world({ informed: false, fields_near: [] })} tell={vi.fn()} />);
  expect(await screen.findByText(/Write a sentence or a few words/)).toBeVisible();
  unmount();
  renderIn(<Panel told={world({ fits: false })} tell={vi.fn()} />);
  expect(await screen.findByText(/No field says quite this/)).toBeVisible();
});

it('saves the sentence when it is left or at Enter, and only when it changed', async () => {
  const user = userEvent.setup();
  const change = vi.fn();
  renderIn(<AboutField about="A studio." error={undefined} onChange={change} />);
  const field = screen.getByLabelText('In one sentence');
  await user.click(field);
  await user.tab();
  expect(change).not.toHaveBeenCalled();
  await user.type(field, ' For beginners.{Enter}');
  await waitFor(() => {
    expect(change).toHaveBeenCalledWith('A studio. For beginners.');
  });
});

it('takes back the forgetting of a world', async () => {
  const user = userEvent.setup();
  const requests = serve((_method, path) =>
    path.endsWith('/worlds')
      ? { body: [{ id: 4, title: 'Clay talk', entries: { sounds: ['clink'] } }] }
      : { status: 204 },
  );
  renderIn(<WorldDialog world={world()} chosen={NONE} onChange={vi.fn()} onClose={vi.fn()} />);
  (await screen.findByRole('button', { name: 'Clay talk' })).focus();
  await user.keyboard('{Delete}');
  await user.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() => {
    expect(requests.some((a) => a.method === 'POST' && JSON.stringify(a.body).includes('"clink"'))).toBe(true);
  });
  expect(requests.some((a) => a.method === 'DELETE' && a.path === '/api/worlds/4')).toBe(true);
});
