import { keepPreviousData, useQuery } from '@tanstack/react-query';

import { api, keys, unwrap } from '../../shared/api';

/** Extensions, recipes and groups of related words: what can be chosen from. */
export const useVocabulary = () =>
  useQuery({
    queryKey: keys.vocabulary,
    queryFn: () => unwrap(api.GET('/api/vocabulary')),
    staleTime: Infinity,
  });

/** What each keyword of the saved brief leads to. */
export const useOpened = (projectId: number) =>
  useQuery({
    queryKey: keys.words(projectId),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/words', { params: { path: { project_id: projectId } } })),
    placeholderData: keepPreviousData,
  });
