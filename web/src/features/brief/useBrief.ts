import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';

import {
  api,
  ApiError,
  asApiError,
  type Brief,
  changed,
  elsewhereOf,
  keys,
  type Problem,
  type Project,
  unwrap,
} from '../../shared/api';
import { projectQuery } from '../../shared/lib/queries';
import { useBackAgain } from '../../shared/lib/useBackAgain';
import { t } from '../../shared/texts';

/** Changes come whole (a word added, a switch, a field left): the pause only gathers what belongs together. */
const SAVE_AFTER = 60;
const STEPS_KEPT = 50;

export interface BriefEditor {
  brief: Brief;
  /** Change the brief; it is saved, and names are made anew, at once; what changes while names are made is saved together after. */
  change: (next: Brief) => void;
  undo: () => void;
  canUndo: boolean;
  /** `partly`: all was saved but what `error` tells the places of. */
  state: 'saved' | 'waiting' | 'saving' | 'partly' | 'refused';
  error: ApiError | null;
  retry: () => void;
  /** The project as somebody changed it elsewhere meanwhile; nothing is saved until one of the two is chosen. */
  theirs: Project | null;
  takeTheirs: () => void;
  keepMine: () => void;
}

/** One project. */
export const useProject = (id: number) => useQuery(projectQuery(id));

/** What was typed and not taken, for when one comes back to the page. */
interface Draft {
  brief: Brief;
  notTaken: readonly Problem[];
}

interface Sent {
  brief: Brief;
  version: number;
}

/** Edits a project's brief. What is typed stays here whatever the server says of it; what makes sense is saved, whatever else does not. */
export function useBrief(project: Project): BriefEditor {
  const client = useQueryClient();
  const draft = client.getQueryData<Draft>(keys.draft(project.id));
  const [brief, setBrief] = useState(draft?.brief ?? project.brief);
  const [past, setPast] = useState<Brief[]>([]);
  const [waiting, setWaiting] = useState(false);
  const [notTaken, setNotTaken] = useState<readonly Problem[]>(draft?.notTaken ?? []);
  const latest = useRef(brief);
  // The version of the project that what stands here was made from.
  const version = useRef(project.version);
  const { mutate, isPending, error, reset } = useMutation({
    // One after another, so that an earlier answer never overtakes a later one.
    scope: { id: `brief-${project.id}` },
    mutationFn: ({ brief: next, version: seen }: Sent) =>
      unwrap(
        api.PATCH('/api/projects/{project_id}', {
          params: { path: { project_id: project.id } },
          body: { brief: next, seen: { version: seen }, partly: true },
        }),
      ),
    onSuccess: async ({ not_taken, ...saved }, sent) => {
      version.current = saved.version;
      client.setQueryData(keys.project(project.id), saved);
      setNotTaken(not_taken);
      client.setQueryData<Draft>(
        keys.draft(project.id),
        not_taken.length ? { brief: sent.brief, notTaken: not_taken } : undefined,
      );
      if (!not_taken.length) client.removeQueries({ queryKey: keys.draft(project.id) });
      // Words stand as they were read, unless something was changed meanwhile.
      if (latest.current === sent.brief && !not_taken.length) {
        latest.current = saved.brief;
        setBrief(saved.brief);
      }
      await changed.brief(client, project.id);
    },
  });
  const theirs = elsewhereOf<Project>(error);
  const send = useCallback(() => {
    mutate({ brief: latest.current, version: version.current });
  }, [mutate]);
  useEffect(() => {
    if (!waiting || isPending || theirs) return;
    const timer = setTimeout(() => {
      setWaiting(false);
      send();
    }, SAVE_AFTER);
    return () => {
      clearTimeout(timer);
    };
  }, [brief, waiting, isPending, theirs, send]);
  // Who leaves within the pause loses nothing; who closes the window is asked while something is not saved.
  const unsent = useRef(false);
  useEffect(() => {
    unsent.current = waiting;
  }, [waiting]);
  useEffect(
    () => () => {
      if (unsent.current) send();
    },
    [send],
  );
  const unsaved = waiting || isPending || error !== null || notTaken.length > 0;
  useEffect(() => {
    if (!unsaved) return;
    const ask = (event: BeforeUnloadEvent) => {
      event.preventDefault();
    };
    window.addEventListener('beforeunload', ask);
    return () => {
      window.removeEventListener('beforeunload', ask);
    };
  }, [unsaved]);
  useBackAgain(() => {
    if (asApiError(error)?.status === 403) send();
  });
  const put = (next: Brief) => {
    latest.current = next;
    setBrief(next);
    if (error && !theirs) reset();
    setWaiting(true);
  };
  const problem = notTaken.length ? new ApiError(400, 'not_taken', t('Some of this was not taken.'), notTaken) : null;
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
    state: error ? 'refused' : isPending ? 'saving' : waiting ? 'waiting' : notTaken.length ? 'partly' : 'saved',
    error: asApiError(error) ?? problem,
    retry: send,
    theirs,
    takeTheirs: () => {
      if (!theirs) return;
      reset();
      setWaiting(false);
      setNotTaken([]);
      client.removeQueries({ queryKey: keys.draft(project.id) });
      version.current = theirs.version;
      latest.current = theirs.brief;
      setPast((steps) => [...steps.slice(1 - STEPS_KEPT), brief]);
      setBrief(theirs.brief);
      client.setQueryData(keys.project(project.id), theirs);
      void changed.project(client, project.id);
    },
    keepMine: () => {
      if (!theirs) return;
      version.current = theirs.version;
      reset();
      setWaiting(false);
      send();
    },
  };
}
