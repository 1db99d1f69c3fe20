import { afterEach, expect, it, vi } from 'vitest';

import { api } from './client';

const later = (code: string) =>
  new Response(JSON.stringify({ code, message: '', problems: [] }), {
    status: 503,
    headers: { 'Retry-After': '1', 'Content-Type': 'application/json' },
  });

/** How often the server is asked when it answers so each time. */
async function asked(method: 'GET' | 'POST', code: string): Promise<number> {
  const fetch = vi.spyOn(globalThis, 'fetch').mockImplementation(() => Promise.resolve(later(code)));
  vi.useFakeTimers();
  const path = { params: { path: { project_id: 7 } } };
  const answer =
    method === 'GET' ? api.GET('/api/projects/{project_id}', path) : api.POST('/api/projects/{project_id}/more', path);
  await vi.runAllTimersAsync();
  expect((await answer).response.status).toBe(503);
  return fetch.mock.calls.length;
}

afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
});

it.each([
  ['GET', 'busy', 4],
  ['POST', 'busy', 4],
  ['GET', 'unavailable', 4],
  ['POST', 'unavailable', 1],
] as const)('comes back with a %s that met "%s", and does nothing twice', async (method, code, times) => {
  expect(await asked(method, code)).toBe(times);
});
