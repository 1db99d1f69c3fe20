import { type QueryClient, useMutation, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo, useSyncExternalStore } from 'react';

import { api, changed, type HuntPage, type Judged, keys, type Page, type Row, unwrap } from '../api';
import { useNotify } from '../ui/Notices';
import { type Act, type Doing, historyOf, listenToHistory, setHistory, type Step, tell } from './acts';
import { t } from '../texts';

const REST = 500;
/** By project, what is still on its way: undoing waits for it. */
const underWay = new Map<number, Promise<unknown>>();
/** A name and what was thought of it before. */
export type Before = Pick<Row, 'label' | 'verdict'>;
const timers = new Map<number, ReturnType<typeof setTimeout>>();

/** Loads anew, once nothing more is done for a moment, what acts change. */
function refreshSoon(client: QueryClient, projectId: number): void {
  clearTimeout(timers.get(projectId));
  timers.set(
    projectId,
    setTimeout(() => {
      void changed.marks(client, projectId);
    }, REST),
  );
}

async function send(projectId: number, { doing, labels }: Act): Promise<readonly string[]> {
  const params = { path: { project_id: projectId } };
  const body = { labels: [...labels] };
  if (doing === 'keep')
    return (await unwrap(api.POST('/api/projects/{project_id}/shortlist', { params, body }))).labels;
  if (doing === 'unkeep') await unwrap(api.POST('/api/projects/{project_id}/shortlist/off', { params, body }));
  else if (doing === 'dismiss') await unwrap(api.POST('/api/projects/{project_id}/dismissed', { params, body }));
  else if (doing === 'restore') await unwrap(api.POST('/api/projects/{project_id}/dismissed/back', { params, body }));
  else
    await unwrap(
      api.POST('/api/projects/{project_id}/looks', {
        params,
        body: { ...body, verdict: doing === 'unseen' ? '' : doing },
      }),
    );
  return labels;
}

/** Shows an act in the pages on screen before the server has it. */
function show(client: QueryClient, projectId: number, { doing, labels }: Act): void {
  const meant = new Set(labels);
  const touch: ((row: Row) => Row) | undefined =
    doing === 'keep' || doing === 'unkeep'
      ? (row) => ({ ...row, kept: doing === 'keep' })
      : doing === 'later' || doing === 'seen' || doing === 'unseen'
        ? (row) => ({ ...row, verdict: doing === 'unseen' ? '' : doing })
        : undefined;
  client.setQueriesData<Page>({ queryKey: keys.names(projectId) }, (page) => {
    if (!page?.rows.some((row) => meant.has(row.label))) return page;
    if (touch) return { ...page, rows: page.rows.map((row) => (meant.has(row.label) ? touch(row) : row)) };
    const rows = page.rows.filter((row) => !meant.has(row.label));
    return { rows, total: page.total - (page.rows.length - rows.length) };
  });
  if (doing === 'keep' || doing === 'unkeep') {
    client.setQueriesData<HuntPage>({ queryKey: keys.hunts(projectId), predicate: isAPage }, (page) =>
      page?.rows.some((row) => meant.has(row.label))
        ? { ...page, rows: page.rows.map((row) => (meant.has(row.label) ? { ...row, kept: doing === 'keep' } : row)) }
        : page,
    );
    for (const label of labels)
      client.setQueryData<Judged>(keys.name(projectId, label), (name) => name && { ...name, kept: doing === 'keep' });
  }
}

const isAPage = ({ queryKey }: { queryKey: readonly unknown[] }) => queryKey.length === 4;

const OPPOSITE: Record<Doing, Doing> = {
  keep: 'unkeep',
  unkeep: 'keep',
  dismiss: 'restore',
  restore: 'dismiss',
  later: 'unseen',
  seen: 'unseen',
  unseen: 'seen',
};
/** What is said in passing; of keeping the tag tells. */
const SAID: readonly Doing[] = ['unkeep', 'dismiss', 'restore'];

/** Keeping, dismissing and putting by, of one name or many; shown at once, undone back through the session. */
export function useActs(projectId: number) {
  const client = useQueryClient();
  const notify = useNotify();
  const history = useSyncExternalStore(listenToHistory, () => historyOf(projectId));
  const { mutateAsync } = useMutation({
    mutationFn: (act: Act) => send(projectId, act),
    scope: { id: `acts-${projectId}` },
    onMutate: (act) => {
      show(client, projectId, act);
    },
    onError: (error, act) => {
      show(client, projectId, { ...act, doing: OPPOSITE[act.doing] });
      notify(error.message);
    },
    // Having looked moves no row: one reads on in the list as it is.
    onSettled: (_, __, { doing, labels }) => {
      if (doing === 'keep' || doing === 'unkeep') void changed.names(client, projectId, labels);
      if (doing === 'seen') void changed.looks(client, projectId);
      else refreshSoon(client, projectId);
    },
  });
  const undo = useCallback(async () => {
    await underWay.get(projectId);
    const { past, future } = historyOf(projectId);
    const step = past.at(-1);
    if (!step) return;
    setHistory(projectId, { past: past.slice(0, -1), future: [step, ...future] });
    for (const act of step.undo) await mutateAsync(act).catch(() => undefined);
    notify(t('Undone: {tell}.', { tell: tell(step.done) }));
  }, [projectId, mutateAsync, notify]);
  const redo = useCallback(async () => {
    const { past, future } = historyOf(projectId);
    const [step, ...rest] = future;
    if (!step) return;
    setHistory(projectId, { past: [...past, step], future: rest });
    await mutateAsync(step.done).catch(() => undefined);
    notify(t('Done again: {tell}.', { tell: tell(step.done) }));
  }, [projectId, mutateAsync, notify]);
  /** `before`: rows as they were, so that undoing gives each back what was thought of it. */
  const act = useCallback(
    async (doing: Doing, labels: readonly string[], before: readonly Before[] = []) => {
      if (!labels.length) return;
      const done: Act = { doing, labels };
      const answer = mutateAsync(done).catch(() => null);
      underWay.set(projectId, Promise.all([underWay.get(projectId), answer]));
      const changed = await answer;
      if (!changed?.length || doing === 'seen') return;
      const later = before.filter((row) => row.verdict === 'later').map((row) => row.label);
      const seen = before.filter((row) => row.verdict === 'seen').map((row) => row.label);
      const known = new Set([...later, ...seen]);
      const back: Act[] =
        doing !== 'later'
          ? [{ doing: OPPOSITE[doing], labels: changed }]
          : (
              [
                { doing: 'later', labels: later },
                { doing: 'seen', labels: seen },
                { doing: 'unseen', labels: labels.filter((l) => !known.has(l)) },
              ] satisfies Act[]
            ).filter((a) => a.labels.length);
      const step: Step = { done, undo: back };
      setHistory(projectId, { past: [...historyOf(projectId).past, step], future: [] });
      if (SAID.includes(doing))
        notify(`${tell(done)}.`, () => {
          void undo();
        });
    },
    [projectId, mutateAsync, notify, undo],
  );
  return useMemo(
    () => ({ act, undo, redo, canUndo: history.past.length > 0, canRedo: history.future.length > 0 }),
    [act, undo, redo, history],
  );
}
