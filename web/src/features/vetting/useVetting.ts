import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';

import { api, type Brief, changed, type Glance, keys, type Project, unwrap, type VettingRun } from '../../shared/api';
import { vettingQuery } from '../../shared/lib/queries';

const WHILE_RUNNING = 700;

export const isRunning = (run: VettingRun | null | undefined): boolean =>
  run?.state === 'queued' || run?.state === 'running';

type VettingKind = Glance['kind'];
export interface VettingWish {
  names?: string[];
  kinds?: VettingKind[];
  again?: 'old' | 'all';
}

interface Accepting {
  label: string;
  kind: string;
  accepted: boolean;
  note: string;
  /** Of what was seen when it was accepted. */
  sign: string;
}

/** The names of the shortlist with what is known of them; asked again and again while they are vetted. */
export function useReport(projectId: number) {
  const client = useQueryClient();
  const query = useQuery({
    ...vettingQuery(projectId),
    refetchInterval: ({ state }) => (isRunning(state.data?.run) ? WHILE_RUNNING : false),
  });
  // What was found is shown elsewhere too: a name that is open, its page, the plan.
  const before = useRef<number | null>(null);
  const done = query.data?.run?.done ?? null;
  useEffect(() => {
    if (before.current !== null && done !== null && done !== before.current)
      void client.invalidateQueries({ queryKey: keys.vetting(projectId), exact: false, predicate: isOfAName });
    before.current = done;
  }, [client, projectId, done]);
  return query;
}

const isOfAName = ({ queryKey }: { queryKey: readonly unknown[] }) => queryKey.length > 3;

/** All that was found of one name. */
export const useVettedName = (projectId: number, name: string) =>
  useQuery({
    queryKey: keys.vettedName(projectId, name),
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/names/{label}/vetting', {
          params: { path: { project_id: projectId, label: name } },
        }),
      ),
    placeholderData: (before) => (before && name.startsWith(before.label) ? before : undefined),
  });

/** What a person does about vetting. */
export function useVettingActs(projectId: number) {
  const client = useQueryClient();
  const onSuccess = () => changed.vetting(client, projectId);
  const of = (vetting_id: number) => ({ params: { path: { project_id: projectId, vetting_id } } });
  return {
    start: useMutation({
      mutationFn: (wish: VettingWish) =>
        unwrap(
          api.POST('/api/projects/{project_id}/vetting', {
            params: { path: { project_id: projectId } },
            body: { again: 'old', ...wish },
          }),
        ),
      onSuccess,
    }),
    stop: useMutation({
      mutationFn: (id: number) => unwrap(api.POST('/api/projects/{project_id}/vetting/{vetting_id}/stop', of(id))),
      onSuccess,
    }),
    goOn: useMutation({
      mutationFn: (id: number) => unwrap(api.POST('/api/projects/{project_id}/vetting/{vetting_id}/resume', of(id))),
      onSuccess,
    }),
    accept: useMutation({
      mutationFn: ({ label, kind, ...body }: Accepting) =>
        unwrap(
          api.PUT('/api/projects/{project_id}/names/{label}/vetting/{kind}', {
            params: { path: { project_id: projectId, label, kind } },
            body,
          }),
        ),
      onSuccess,
      // It may have been found out again: what it says now is shown.
      onError: onSuccess,
    }),
  };
}

/** Changes what the brief says of classes and markets; nothing else of it. */
export function useVettedFor(project: Project) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (part: Partial<Pick<Brief, 'classes' | 'markets'>>) =>
      unwrap(
        api.PATCH('/api/projects/{project_id}', {
          params: { path: { project_id: project.id } },
          body: { brief: { ...project.brief, ...part }, seen: { version: project.version } },
        }),
      ),
    onSuccess: async (saved) => {
      client.setQueryData(keys.project(project.id), saved);
      await changed.vetting(client, project.id);
    },
  });
}
