import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

import { keys } from '../shared/api';
import type { SheetQuestion } from '../shared/lib/question';
import { labelsOf } from '../shared/lib/labels';
import { prefetchNames } from '../shared/lib/useName';

const MOST = 10_000;

/** The names as they were when reading began: what is kept or dropped moves no other. */
export const useLabels = (projectId: number, question: SheetQuestion, search: string) =>
  useQuery({
    queryKey: keys.reading(projectId, search),
    queryFn: () => labelsOf(projectId, question, 0, MOST),
    staleTime: Infinity,
    gcTime: 0,
  });

/** Asks for the names that will be read next. */
export function usePrefetch(
  projectId: number,
  labels: readonly string[] | undefined,
  from: number,
  count: number,
): void {
  const client = useQueryClient();
  useEffect(() => {
    if (labels) prefetchNames(client, projectId, labels.slice(from, from + count));
  }, [client, projectId, labels, from, count]);
}
