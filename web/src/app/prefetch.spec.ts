import { QueryClient } from '@tanstack/react-query';
import { expect, it, vi } from 'vitest';

import { serve } from '../shared/testing/render';
import { sampleProject } from '../shared/testing/samples';
import { beginAt } from './prefetch';

vi.mock('./BenchPage', () => ({ BenchPage: () => null }));

const begin = (pathname: string, search: string, view = '') => {
  const requests = serve((_, path) => (path === '/api/projects/7' ? { body: sampleProject({ view }) } : { body: {} }));
  beginAt(new QueryClient(), { pathname, search });
  return () => requests.map((a) => a.path);
};
const some = () => new Promise((r) => setTimeout(r, 50));

it('asks for all a bench needs at once', async () => {
  const asked = begin('/projects/7', '?sort=name&cols=grade');
  await vi.waitFor(() => {
    expect(asked()).toHaveLength(4);
  });
  expect(asked()).toEqual(
    expect.arrayContaining([
      '/api/session',
      '/api/concepts',
      '/api/projects/7',
      '/api/projects/7/names?sort=name&offset=0&limit=60',
    ]),
  );
});

it('takes the view looked at last where the address asks nothing', async () => {
  const asked = begin('/projects/7', '', 'mark=kept');
  await vi.waitFor(() => {
    expect(asked()).toContain('/api/projects/7/names?mark=kept&offset=0&limit=60');
  });
});

it('asks for what there is, and who is there, elsewhere, and fails in silence', async () => {
  const within = begin('/projects/7/shortlist', '');
  await some();
  expect(within()).toEqual(['/api/concepts', '/api/session']);
  const guest = begin('/s/token', '');
  await some();
  expect(guest()).toEqual(['/api/concepts']);
  serve(() => ({ status: 500, body: { code: 'broken', message: 'Broken.', problems: [] } }));
  beginAt(new QueryClient({ defaultOptions: { queries: { retry: false } } }), {
    pathname: '/projects/7',
    search: '',
  });
  await some();
});
