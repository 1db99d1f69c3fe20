import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, keys, type ListQuestion, unwrap } from '../../shared/api';

const PAGE = 200;
/** Bytes; the server reads no more. */
export const LARGEST_FILE = 1_500_000;

/** The pasted names of a project: reading, replacing and emptying the list. */
export function useList(projectId: number, status: string, page: number) {
  const client = useQueryClient();
  const path = { project_id: projectId };
  const refresh = () => client.invalidateQueries({ queryKey: keys.list(projectId) });
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
