import { useMutation, useQueryClient } from '@tanstack/react-query';

import { api, asApiError, type Brief, keys, type Project, unwrap } from '../../shared/api';
import { t } from '../../shared/texts';
import { useNotify } from '../../shared/ui/Notices';
import type { PhraseActs } from './usePhrases';

/** What phrases do to the brief: each can be undone, as the bench's own undo knows nothing of it. */
export function useBriefActs(id: number, acts: PhraseActs) {
  const client = useQueryClient();
  const notify = useNotify();
  const now = () => client.getQueryData<Project>(keys.project(id));
  const back = useMutation({
    mutationFn: (brief: Brief) =>
      unwrap(
        api.PATCH('/api/projects/{project_id}', {
          params: { path: { project_id: id } },
          body: { brief, seen: { version: now()?.version } },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.allOf(id) }),
    onError: (e) => notify(e.message),
  });
  const undo = () => {
    const before = now()?.brief;
    return before && (() => back.mutate(before));
  };
  const refused = (e: Error) => notify(asApiError(e)?.problems[0]?.message ?? e.message);
  return {
    /** Make a phrase the head phrase of the project. */
    head: (phrase: string) => {
      const taken = undo();
      acts.head.mutate(phrase, {
        onSuccess: () =>
          notify(t('“{phrase}” is the head phrase: the brief is descriptive and begins with it.', { phrase }), taken),
        onError: refused,
      });
    },
    /** Make keywords of phrases, `weigh` them by demand. */
    keywords: (phrases: string[], view: string, weigh: boolean) => {
      const before = undo();
      acts.keywords.mutate(
        { phrases, view, weigh },
        {
          onSuccess: ({ taken, problems }) =>
            notify(
              [
                weigh
                  ? t('{count, plural, one {# keyword} other {# keywords}} in the brief, weighed by demand.', {
                      count: taken.length,
                    })
                  : t('{count, plural, one {# keyword} other {# keywords}} in the brief.', { count: taken.length }),
              ]
                .concat(problems.map((p) => p.message))
                .join(' '),
              before,
            ),
          onError: refused,
        },
      );
    },
  };
}
