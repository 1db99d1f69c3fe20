import { act as settle, renderHook, screen, waitFor } from '@testing-library/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { beforeEach, expect, it } from 'vitest';

import { keys, type Page } from '../api';
import { sampleRow } from '../testing/samples';
import { type Answer, serve } from '../testing/render';
import { Notices } from '../ui/Notices';
import { historyOf, setHistory } from './acts';
import { useActs } from './useActs';

const key = keys.sheet(7, {});
beforeEach(() => {
  setHistory(7, { past: [], future: [] });
});

function setUp(answer: (path: string, labels: string[]) => Answer = (_path, labels) => ({ body: { labels } })) {
  const client = new QueryClient();
  client.setQueryData<Page>(key, {
    total: 3,
    rows: ['inkpost', 'inkwell', 'inkclub'].map((label) =>
      sampleRow({ label, verdict: label === 'inkwell' ? 'seen' : '' }),
    ),
  });
  const requests = serve((_method, path, body) => answer(path, (body as { labels: string[] }).labels));
  const { result } = renderHook(() => useActs(7), {
    wrapper: ({ children }: { children: ReactNode }) => (
      <QueryClientProvider client={client}>
        <Notices>{children}</Notices>
      </QueryClientProvider>
    ),
  });
  const page = () => client.getQueryData<Page>(key);
  const sent = () => requests.map((a) => [a.path.split('/7/')[1], a.body]);
  return { result, page, sent };
}

it('keeps many at once, and undoes only what was not kept before', async () => {
  const { result, page, sent } = setUp((path, labels) => ({
    body: { labels: path.endsWith('/shortlist') ? labels.slice(1) : labels },
  }));
  await settle(() => result.current.act('keep', ['inkpost', 'inkwell']));
  expect(page()?.rows.map((r) => r.kept)).toEqual([true, true, false]);
  await settle(() => result.current.undo());
  expect(sent()).toEqual([
    ['shortlist', { labels: ['inkpost', 'inkwell'] }],
    ['shortlist/off', { labels: ['inkwell'] }],
  ]);
  await settle(() => result.current.redo());
  expect(sent().at(-1)).toEqual(['shortlist', { labels: ['inkpost', 'inkwell'] }]);
  expect(result.current.canRedo).toBe(false);
});

it('undoes acts one after the other, back through the session', async () => {
  const { result, page, sent } = setUp();
  await settle(() => result.current.act('dismiss', ['inkpost']));
  expect(page()?.rows.map((r) => r.label)).toEqual(['inkwell', 'inkclub']);
  expect(screen.getByText('inkpost was dismissed.')).toBeInTheDocument();
  await settle(() => result.current.act('later', ['inkwell', 'inkclub'], page()?.rows));
  await settle(() => result.current.act('seen', ['inkclub']));
  expect(historyOf(7).past).toHaveLength(2);
  expect(JSON.parse(sessionStorage.getItem('vinetag.history.7') ?? '')).toEqual(historyOf(7));
  await settle(() => result.current.undo());
  expect(sent().slice(-2)).toEqual([
    ['looks', { labels: ['inkwell'], verdict: 'seen' }],
    ['looks', { labels: ['inkclub'], verdict: '' }],
  ]);
  await settle(() => result.current.undo());
  expect(sent().at(-1)).toEqual(['dismissed/back', { labels: ['inkpost'] }]);
  expect(result.current.canUndo).toBe(false);
});

it('puts back what the server refused, and says why', async () => {
  const { result, page } = setUp(() => ({
    status: 409,
    body: { code: 'shortlist_full', message: 'A shortlist holds at most 300 names.', problems: [] },
  }));
  await settle(() => result.current.act('keep', ['inkpost']));
  await waitFor(() => {
    expect(page()?.rows[0]?.kept).toBe(false);
  });
  expect(screen.getByText('A shortlist holds at most 300 names.')).toBeInTheDocument();
  expect(result.current.canUndo).toBe(false);
});
