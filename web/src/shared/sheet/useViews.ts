import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';

import { api, elsewhereOf, keys, type NamedView, type Project, unwrap } from '../api';
import { leftWith, useAddress } from '../lib/useAddress';
import { useNotify } from '../ui/Notices';
import { t } from '../texts';

const KEPT_AFTER = 1_500;

interface Change {
  view?: string;
  views?: readonly NamedView[];
  /** The views as they were before. */
  seen?: readonly NamedView[];
}

/** Which sheet: that of the names, or another of the project. */
export type Place = '' | 'hunt';

interface Kept {
  view: string;
  views: readonly NamedView[];
}

/** How a sheet was looked at last, and its views. */
const keptOf = (project: Project, place: Place): Kept =>
  place === '' ? project : (project.sheets[place] ?? { view: '', views: [] });

function useKeepViews(project: Project, place: Place) {
  const client = useQueryClient();
  const notify = useNotify();
  const put = (part: Partial<Kept>) => {
    client.setQueryData<Project>(keys.project(project.id), (p) => {
      if (!p) return p;
      const kept = { ...keptOf(p, place), ...part };
      const { view, views } = { view: kept.view, views: [...kept.views] };
      return place === '' ? { ...p, view, views } : { ...p, sheets: { ...p.sheets, [place]: { view, views } } };
    });
  };
  return useMutation({
    scope: { id: `views-${project.id}${place}` },
    mutationFn: ({ view, views, seen }: Change) =>
      unwrap(
        api.PUT('/api/projects/{project_id}/views', {
          params: { path: { project_id: project.id } },
          body: {
            place,
            ...(view !== undefined && { view }),
            ...(views && { views: [...views], seen: { views: seen } }),
          },
        }),
      ),
    onMutate: ({ view, views }) => {
      put({ ...(view !== undefined && { view }), ...(views && { views: [...views] }) });
    },
    onSuccess: ({ view = '', views = [] }) => {
      put({ view, views });
    },
    onError: (error, { views, seen }) => {
      // The page shows what is kept; what was to be kept is in the alert.
      if (views) put({ views: [...(elsewhereOf<{ views: NamedView[] }>(error)?.views ?? seen ?? [])] });
      if (!elsewhereOf(error)) notify(error.message);
    },
  });
}

/** An address that asks nothing shows the sheet as it was looked at last; how it is looked at is remembered. Returns whether the address says by now what to show. */
export function useLastView(project: Project, place: Place = ''): boolean {
  const [params, turn] = useAddress();
  const search = params.toString();
  const keep = useKeepViews(project, place).mutate;
  const last = keptOf(project, place).view;
  const kept = useRef(last);
  const [waits, setWaits] = useState(search === '' && last !== '');
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
    return () => {
      clearTimeout(timer);
    };
  }, [waits, search, keep]);
  // Who leaves sooner finds it all the same.
  const shown = useRef(!waits);
  useEffect(() => {
    shown.current = !waits;
  }, [waits]);
  useEffect(
    () => () => {
      if (shown.current && leftWith() !== kept.current) keep({ view: leftWith() });
    },
    [keep],
  );
  return !waits;
}

/** The views kept with a project under a name. */
export function useViews(project: Project, place: Place = '') {
  const notify = useNotify();
  const [params, turn] = useAddress();
  const search = params.toString();
  const { mutate, error, variables, reset } = useKeepViews(project, place);
  const { views } = keptOf(project, place);
  const keep = (next: readonly NamedView[], seen: readonly NamedView[] = views) => {
    mutate({ views: next, seen });
  };
  const theirs = elsewhereOf<{ views: NamedView[] }>(error)?.views;
  const mine = variables?.views ?? [];
  return {
    views,
    search,
    apply: (view: NamedView) => {
      turn(() => new URLSearchParams(view.search), { replace: false });
    },
    keep: (name: string) => {
      keep([...views.filter((v) => v.name !== name), { name, search }]);
    },
    drop: (view: NamedView) => {
      const left = views.filter((v) => v.name !== view.name);
      keep(left);
      notify(t('The view {name} was removed.', { name: view.name }), () => {
        keep(views, left);
      });
    },
    /** Views somebody kept elsewhere meanwhile, beside those kept here. */
    elsewhere: theirs && {
      mine,
      theirs,
      keepMine: () => {
        keep(mine, theirs);
      },
      takeTheirs: reset,
    },
  };
}
