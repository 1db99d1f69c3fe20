import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query';

import { api, keys, type Page, type Question, type Row, unwrap } from '../../shared/api';
import type { Asked } from './useQuestion';

const PAGE = 100;

const pageQuery = (projectId: number, asked: Asked, page: number) => {
  const query: Question = { ...asked, offset: page * PAGE, limit: PAGE };
  return {
    queryKey: keys.sheet(projectId, query),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/names', { params: { path: { project_id: projectId }, query } })),
  };
};

/** The first page of the sheet, which also says how many rows there are. */
export const useFirstPage = (projectId: number, asked: Asked) =>
  useQuery({ ...pageQuery(projectId, asked, 0), placeholderData: keepPreviousData });

/** A way to get at the rows from place `first` to `last`; those not loaded yet are undefined. */
export function useRows(projectId: number, asked: Asked, top: Page | undefined, first: number, last: number): (index: number) => Row | undefined {
  const wanted: number[] = [];
  for (let page = Math.max(1, Math.floor(first / PAGE)); page * PAGE <= last && page * PAGE < (top?.total ?? 0); page += 1) wanted.push(page);
  const more = useQueries({ queries: wanted.map((page) => pageQuery(projectId, asked, page)) });
  const pages = new Map<number, Page | undefined>([[0, top], ...wanted.map((page, i) => [page, more[i]?.data] as const)]);
  return (index) => pages.get(Math.floor(index / PAGE))?.rows[index % PAGE];
}
