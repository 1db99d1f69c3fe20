import { type QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef } from 'react';

import {
  api,
  asApiError,
  type Cell,
  changed,
  type Check,
  keys,
  type ListPage,
  type Page,
  unwrap,
  type Watch,
} from '../../shared/api';
import type { CheckWish } from '../../shared/lib/question';
import { followAnswers } from './answers';

const GLANCE_EVERY = 15_000;

export const isActive = (check: Check | null | undefined): boolean =>
  check?.state === 'queued' || check?.state === 'running';

function put(
  cells: readonly Cell[],
  fresh: ReadonlyMap<string, Cell>,
  label: string,
  extensions: readonly string[],
): Cell[] {
  const merged = cells.map((cell) => fresh.get(`${label}.${cell.extension}`) ?? cell);
  const have = new Set(merged.map((c) => c.extension));
  for (const extension of extensions) {
    const cell = fresh.get(`${label}.${extension}`);
    if (cell && !have.has(extension)) merged.push(cell);
  }
  return merged;
}

/** Writes answers into the pages already on screen; rows keep their places, others stay the same objects. */
export function mergeCells(
  client: QueryClient,
  projectId: number,
  extensions: readonly string[],
  cells: readonly Cell[],
): void {
  const fresh = new Map(cells.map((cell) => [`${cell.label}.${cell.extension}`, cell]));
  const touched = new Set(cells.map((cell) => cell.label));
  client.setQueriesData<Page>(
    { queryKey: keys.names(projectId) },
    (page) =>
      page && {
        ...page,
        rows: page.rows.map((row) =>
          touched.has(row.label) ? { ...row, cells: put(row.cells, fresh, row.label, extensions) } : row,
        ),
      },
  );
  client.setQueriesData<ListPage>(
    { queryKey: keys.list(projectId) },
    (page) =>
      page && {
        ...page,
        rows: page.rows.map((row) =>
          touched.has(row.label) ? { ...row, cells: put(row.cells, fresh, row.label, row.extensions) } : row,
        ),
      },
  );
  void changed.names(client, projectId, touched);
}

/** The project's check: starting, watching, stopping and going on. Answers fill the sheet as they come. */
export function useCheck(projectId: number, extensions: readonly string[]) {
  const client = useQueryClient();
  const path = { project_id: projectId };
  const refresh = useCallback(() => changed.answers(client, projectId), [client, projectId]);
  const watch = useQuery({
    queryKey: keys.watch(projectId),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/checks', { params: { path } })),
    staleTime: 0,
    refetchInterval: GLANCE_EVERY,
  });
  const mine = JSON.stringify(extensions);
  useEffect(() => {
    const chosen = JSON.parse(mine) as string[];
    return followAnswers(projectId, {
      begun: () => {
        if (isActive(client.getQueryData<Watch>(keys.watch(projectId))?.check_run)) void refresh();
      },
      answers: (cells) => {
        mergeCells(client, projectId, chosen, cells);
        void changed.funnel(client, projectId);
      },
      progress: (check_run) => {
        client.setQueryData<Watch>(keys.watch(projectId), (seen) => ({
          cells: [],
          more: false,
          number: seen?.number ?? 0,
          check_run,
        }));
      },
    });
  }, [client, projectId, mine, refresh]);
  const check = watch.data?.check_run ?? null;
  const active = isActive(check);
  const wasActive = useRef(active);
  useEffect(() => {
    if (wasActive.current && !active) void refresh();
    wasActive.current = active;
  });
  const see = async (check_run: Check) => {
    client.setQueryData<Watch>(keys.watch(projectId), (seen) => ({
      cells: [],
      more: false,
      number: seen?.number ?? 0,
      check_run,
    }));
    await refresh();
  };
  const start = useMutation({
    mutationFn: ({ shown, ...body }: CheckWish) => {
      const how = { everywhere: false, again: 'stale' as const, aim: 'scan' as const, ...body };
      return shown
        ? unwrap(api.POST('/api/projects/{project_id}/names/check', { params: { path }, body: { ...how, shown } }))
        : unwrap(
            api.POST('/api/projects/{project_id}/checks', {
              params: { path },
              body: { what: 'best' as const, ...how },
            }),
          );
    },
    onSuccess: see,
  });
  const stop = useMutation({
    mutationFn: (id: number) =>
      unwrap(
        api.POST('/api/projects/{project_id}/checks/{check_id}/stop', {
          params: { path: { ...path, check_id: id } },
        }),
      ),
    onSuccess: see,
  });
  const goOn = useMutation({
    mutationFn: (id: number) =>
      unwrap(
        api.POST('/api/projects/{project_id}/checks/{check_id}/resume', {
          params: { path: { ...path, check_id: id } },
        }),
      ),
    onMutate: () => {
      start.reset();
    },
    onSuccess: see,
  });
  return { check, active, start, stop, goOn, watchError: asApiError(watch.error), known: !watch.isPending };
}

export type CheckControls = ReturnType<typeof useCheck>;
