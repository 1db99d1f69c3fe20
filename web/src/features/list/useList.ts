import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

import { api, changed, keys, type ListQuestion, unwrap } from '../../shared/api';

const PAGE = 200;
const COUNT_EVERY = 2_000;
/** Bytes; the server reads no more. */
export const LARGEST_FILE = 1_500_000;

/** The pasted names of a project: reading, replacing and emptying the list. */
export function useList(projectId: number, status: string, page: number) {
  const client = useQueryClient();
  const path = { project_id: projectId };
  const refresh = () => changed.pasted(client, projectId);
  return {
    page: useQuery({
      queryKey: keys.listPage(projectId, status, page),
      queryFn: () =>
        unwrap(
          api.GET('/api/projects/{project_id}/pasted', {
            params: {
              path,
              query: { status: status as ListQuestion['status'] & string, offset: page * PAGE, limit: PAGE },
            },
          }),
        ),
      placeholderData: (before) => before,
    }),
    paste: useMutation({
      mutationFn: (body: { text: string; extensions?: string[] }) =>
        unwrap(api.PUT('/api/projects/{project_id}/pasted', { params: { path }, body })),
      onSuccess: refresh,
    }),
    clear: useMutation({
      mutationFn: () => unwrap(api.DELETE('/api/projects/{project_id}/pasted', { params: { path } })),
      onSuccess: refresh,
    }),
    pageSize: PAGE,
  };
}

/** While a check runs, its answers are counted anew. */
export function useCounting(projectId: number, running: boolean): void {
  const client = useQueryClient();
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => {
      void changed.pasted(client, projectId);
    }, COUNT_EVERY);
    return () => {
      clearInterval(timer);
    };
  }, [client, projectId, running]);
}
