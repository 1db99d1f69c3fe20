import { type QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';

import { api, asApiError, type Cell, type Check, type Judged, keys, type Page, unwrap, type Watch } from '../../shared/api';

const WATCH_EVERY = 700;
const GLANCE_EVERY = 15_000;

export const isActive = (check: Check | null | undefined): boolean => check?.state === 'queued' || check?.state === 'running';

function put(cells: readonly Cell[], fresh: ReadonlyMap<string, Cell>, label: string, extensions: readonly string[]): Cell[] {
  const merged = cells.map((cell) => fresh.get(`${label}.${cell.extension}`) ?? cell);
  const have = new Set(merged.map((c) => c.extension));
  for (const extension of extensions) {
    const cell = fresh.get(`${label}.${extension}`);
    if (cell && !have.has(extension)) merged.push(cell);
  }
  return merged;
}

/** Writes answers into the pages and names already on screen; rows keep their places. */
export function mergeCells(client: QueryClient, projectId: number, extensions: readonly string[], cells: readonly Cell[]): void {
  const fresh = new Map(cells.map((cell) => [`${cell.label}.${cell.extension}`, cell]));
  const touched = new Set(cells.map((cell) => cell.label));
  client.setQueriesData<Page>({ queryKey: keys.names(projectId) }, (page) =>
    page && { ...page, rows: page.rows.map((row) => (touched.has(row.label) ? { ...row, cells: put(row.cells, fresh, row.label, extensions) } : row)) },
  );
  for (const label of touched) {
    client.setQueryData<Judged>(keys.name(projectId, label), (name) => name && { ...name, cells: put(name.cells, fresh, label, extensions) });
  }
}

interface Request {
  labels?: string[];
  again?: boolean;
}

/** The project's check: starting, watching and stopping it. Answers fill the sheet as they come. */
export function useCheck(projectId: number, extensions: readonly string[]) {
  const client = useQueryClient();
  const path = { project_id: projectId };
  const since = useRef<string | undefined>(undefined);
  const refresh = () => Promise.all([keys.names(projectId), keys.allDots(projectId), keys.allNames(projectId), keys.funnel(projectId), keys.shortlist(projectId)].map((queryKey) => client.invalidateQueries({ queryKey })));
  const watch = useQuery({
    queryKey: keys.watch(projectId),
    queryFn: async () => {
      const query = since.current ? { since: since.current } : {};
      const seen = await unwrap(api.GET('/api/projects/{project_id}/checks', { params: { path, query } }));
      since.current = seen.now;
      if (seen.cells.length) {
        mergeCells(client, projectId, extensions, seen.cells);
        void client.invalidateQueries({ queryKey: keys.funnel(projectId) });
      }
      return seen;
    },
    staleTime: 0,
    refetchInterval: (query) => (isActive(query.state.data?.check_run) ? WATCH_EVERY : GLANCE_EVERY),
  });
  const check = watch.data?.check_run ?? null;
  const active = isActive(check);
  const wasActive = useRef(active);
  useEffect(() => {
    if (wasActive.current && !active) void refresh();
    wasActive.current = active;
  });
  const see = async (check_run: Check) => {
    client.setQueryData<Watch>(keys.watch(projectId), (seen) => ({ cells: [], now: seen?.now ?? check_run.created_at, check_run }));
    await Promise.all([refresh(), client.invalidateQueries({ queryKey: keys.watch(projectId) })]);
  };
  const start = useMutation({
    mutationFn: (body: Request) => unwrap(api.POST('/api/projects/{project_id}/checks', { params: { path }, body: { again: false, ...body } })),
    onSuccess: see,
  });
  const stop = useMutation({
    mutationFn: (id: number) => unwrap(api.POST('/api/projects/{project_id}/checks/{check_id}/stop', { params: { path: { ...path, check_id: id } } })),
    onSuccess: see,
  });
  return { check, active, start, stop, watchError: asApiError(watch.error) };
}

export type CheckControls = ReturnType<typeof useCheck>;
