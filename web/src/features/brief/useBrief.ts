import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';

import { api, type ApiError, asApiError, type Brief, keys, type Project, unwrap } from '../../shared/api';
import { projectQuery } from '../../shared/lib/queries';

/** Changes come whole (a word added, a switch, a field left): the pause only gathers what belongs together. */
const SAVE_AFTER = 60;
const STEPS_KEPT = 50;

export interface BriefEditor {
  brief: Brief;
  /** Change the brief; it is saved, and names are made anew, at once; what changes while names are made is saved together after. */
  change: (next: Brief) => void;
  undo: () => void;
  canUndo: boolean;
  state: 'saved' | 'waiting' | 'saving' | 'refused';
  error: ApiError | null;
  retry: () => void;
}

/** One project. */
export const useProject = (id: number) => useQuery(projectQuery(id));

/** Edits a project's brief. What is typed stays here whatever the server says of it. */
export function useBrief(project: Project): BriefEditor {
  const client = useQueryClient();
  const [brief, setBrief] = useState(project.brief);
  const [past, setPast] = useState<Brief[]>([]);
  const [waiting, setWaiting] = useState(false);
  const latest = useRef(brief);
  const { mutate, isPending, error, reset } = useMutation({
    // One after another, so that an earlier answer never overtakes a later one.
    scope: { id: `brief-${project.id}` },
    mutationFn: (next: Brief) =>
      unwrap(api.PATCH('/api/projects/{project_id}', { params: { path: { project_id: project.id } }, body: { brief: next } })),
    onSuccess: async (saved) => {
      client.setQueryData(keys.project(project.id), saved);
      const anew = (queryKey: readonly unknown[]) => client.invalidateQueries({ queryKey });
      // The names first: they are what one waits for.
      await anew(keys.names(project.id));
      await Promise.all([keys.counts(project.id), keys.allDots(project.id), keys.funnel(project.id), keys.allNames(project.id), keys.shortlist(project.id), keys.words(project.id), keys.projects].map(anew));
    },
  });
  useEffect(() => {
    if (!waiting || isPending) return;
    const timer = setTimeout(() => {
      setWaiting(false);
      mutate(latest.current);
    }, SAVE_AFTER);
    return () => { clearTimeout(timer); };
  }, [brief, waiting, isPending, mutate]);
  const put = (next: Brief) => {
    latest.current = next;
    setBrief(next);
    if (error) reset();
    setWaiting(true);
  };
  return {
    brief,
    change: (next) => {
      setPast((steps) => [...steps.slice(1 - STEPS_KEPT), brief]);
      put(next);
    },
    undo: () => {
      const last = past.at(-1);
      if (!last) return;
      setPast(past.slice(0, -1));
      put(last);
    },
    canUndo: past.length > 0,
    state: error ? 'refused' : isPending ? 'saving' : waiting ? 'waiting' : 'saved',
    error: asApiError(error),
    retry: () => { mutate(latest.current); },
  };
}
