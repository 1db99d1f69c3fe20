import type { QueryClient } from '@tanstack/react-query';

import { SHEET_FIELDS } from '../shared/lib/question';
import { conceptsQuery, pageQuery, projectQuery, sessionQuery } from '../shared/lib/queries';

export const loadBench = () => import('./BenchPage');

/** The list of projects has come by then; what is likely to be opened next loads behind it. */
const BEHIND = 1_000;
const nothing = () => undefined;

/** Asks for all that opening a bench needs at once, not one after the other; what fails is asked again, and told, where it is needed. */
export async function prefetchBench(client: QueryClient, id: number, search = ''): Promise<void> {
  const first = (of: string) =>
    client.query(pageQuery(id, SHEET_FIELDS.read(new URLSearchParams(of)), 0)).catch(nothing);
  void loadBench();
  if (search) void first(search);
  const project = await client.query(projectQuery(id)).catch(nothing);
  if (!search && project) await first(project.view);
}

/** Begins with what the address asks for, before anything is drawn. */
export function beginAt(client: QueryClient, { pathname, search }: Pick<Location, 'pathname' | 'search'>): void {
  client.query(conceptsQuery).catch(nothing);
  if (pathname.startsWith('/s/')) return;
  client.query(sessionQuery).catch(nothing);
  if (pathname === '/')
    setTimeout(() => {
      void loadBench();
    }, BEHIND);
  const bench = /^\/projects\/(\d+)$/.exec(pathname);
  if (!bench) return;
  void prefetchBench(client, Number(bench[1]), search);
}
