import { QueryClient } from '@tanstack/react-query';
import { expect, it, vi } from 'vitest';

import { serve } from '../shared/testing/render';
import { sampleProject } from '../shared/testing/samples';
import { beginAt } from './prefetch';

vi.mock('./BenchPage', () => ({ BenchPage: () => null }));

const begin = async (pathname: string, search: string, view = '') => {
  const requests = serve((_, path) => (path === '/api/projects/7' ? { body: sampleProject({ view }) } : { body: {} }));
  beginAt(new QueryClient(), { pathname, search });
  await new Promise((r) => setTimeout(r, 50));
  return requests.map((a) => a.path);
};

it('asks for all a bench needs at once', async () => {
  const asked = await begin('/projects/7', '?sort=name&cols=grade');
  expect(asked).toHaveLength(4);
  expect(asked).toEqual(
    expect.arrayContaining([
      '/api/session',
      '/api/concepts',
      '/api/projects/7',
      '/api/projects/7/names?sort=name&offset=0&limit=60',
    ]),
  );
});

it('takes the view looked at last where the address asks nothing', async () => {
  expect((await begin('/projects/7', '', 'mark=kept')).at(-1)).toBe(
    '/api/projects/7/names?mark=kept&offset=0&limit=60',
  );
});

it('asks for what there is, and who is there, elsewhere, and fails in silence', async () => {
  expect(await begin('/projects/7/shortlist', '')).toEqual(['/api/concepts', '/api/session']);
  expect(await begin('/s/token', '')).toEqual(['/api/concepts']);
  serve(() => ({ status: 500, body: { code: 'broken', message: 'Broken.', problems: [] } }));
  beginAt(new QueryClient({ defaultOptions: { queries: { retry: false } } }), {
    pathname: '/projects/7',
    search: '',
  });
  await new Promise((r) => setTimeout(r, 50));
});
