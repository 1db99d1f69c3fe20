import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';

import { api, keys, type NamedView, type Project, unwrap } from '../../shared/api';
import { useAddress } from '../../shared/lib/useAddress';
import { useNotify } from '../../shared/ui/Notices';

const KEPT_AFTER = 1_500;

function useKeepViews(project: Project) {
  const client = useQueryClient();
  const notify = useNotify();
  return useMutation({
    mutationFn: (body: { view?: string; views?: NamedView[] }) => unwrap(api.PUT('/api/projects/{project_id}/views', { params: { path: { project_id: project.id } }, body })),
    onMutate: (part) => { client.setQueryData<Project>(keys.project(project.id), (p) => p && { ...p, ...part }); },
    onSuccess: ({ view = '', views = [] }) => { client.setQueryData<Project>(keys.project(project.id), (p) => p && { ...p, view, views }); },
    onError: (error) => { notify(error.message); },
  }).mutate;
}

/** An address that asks nothing shows the sheet as it was looked at last; how it is looked at is remembered. Returns whether the address says by now what to show. */
export function useLastView(project: Project): boolean {
  const [params, turn] = useAddress();
  const search = params.toString();
  const keep = useKeepViews(project);
  const kept = useRef(project.view);
  const [waits, setWaits] = useState(search === '' && project.view !== '');
  if (waits && search !== '') setWaits(false);
  useEffect(() => {
    if (waits) turn(() => new URLSearchParams(kept.current));
  }, [waits, turn]);
  useEffect(() => {
    if (waits || search === kept.current) return;
    const timer = setTimeout(() => {
      kept.current = search;
      keep({ view: search });
    }, KEPT_AFTER);
    return () => { clearTimeout(timer); };
  }, [waits, search, keep]);
  // Who leaves sooner finds it all the same.
  const latest = useRef(project.view);
  useEffect(() => { if (!waits) latest.current = search; }, [waits, search]);
  useEffect(() => () => { if (latest.current !== kept.current) keep({ view: latest.current }); }, [keep]);
  return !waits;
}

/** The views kept with a project under a name. */
export function useViews(project: Project) {
  const notify = useNotify();
  const [params, turn] = useAddress();
  const search = params.toString();
  const keep = useKeepViews(project);
  const { views } = project;
  return {
    views,
    search,
    apply: (view: NamedView) => { turn(() => new URLSearchParams(view.search), { replace: false }); },
    keep: (name: string) => { keep({ views: [...views.filter((v) => v.name !== name), { name, search }] }); },
    drop: (view: NamedView) => {
      keep({ views: views.filter((v) => v.name !== view.name) });
      notify(`The view ${view.name} was removed.`, () => { keep({ views }); });
    },
  };
}
