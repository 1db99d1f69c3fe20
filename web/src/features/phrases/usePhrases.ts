import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import {
  api,
  changed,
  type Figures,
  keys,
  type PhraseGroups,
  type PhraseLine,
  type PhrasePage,
  type PhraseQuestion,
  unwrap,
} from '../../shared/api';
import { AddressFields } from '../../shared/lib/addressFields';

const WHILE_READING = 1_200;

/** What is asked of the phrases; what is not asked is left out. */
export type Question = { readonly [K in keyof PhraseQuestion]?: NonNullable<PhraseQuestion[K]> };

/** The fields of an address for what is asked of the phrases. */
export const PHRASE_FIELDS = new AddressFields<Question>({
  texts: ['view', 'text', 'known', 'mark', 'group', 'sort'],
  numbers: ['words_min', 'words_max', 'demand_min', 'demand_max', 'competition_max', 'cut', 'offset'],
  flags: ['season', 'reverse'],
});

export const isReading = (figures: Figures | undefined): boolean =>
  figures?.files.some((file) => file.state === 'waiting' || file.state === 'reading') ?? false;

/** The figures that were brought to a project; asked again while some are being read. */
export function useFigures(id: number) {
  return useQuery({
    queryKey: keys.figures(id),
    queryFn: () =>
      unwrap(api.GET('/api/projects/{project_id}/phrases/figures', { params: { path: { project_id: id } } })),
    refetchInterval: ({ state }) => (isReading(state.data) ? WHILE_READING : false),
  });
}

export function usePhrasePage(id: number, question: Question) {
  return useQuery({
    queryKey: keys.phrasePage(id, JSON.stringify(question)),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/projects/{project_id}/phrases', {
          params: { path: { project_id: id }, query: question },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

export function useOnePhrase(id: number, phrase: string, view: string) {
  return useQuery({
    queryKey: keys.phrase(id, phrase, view),
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/phrases/one/{phrase}', {
          params: { path: { project_id: id, phrase }, query: { view } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

export function useGroups(id: number, view: string, cut: number | undefined) {
  return useQuery({
    queryKey: keys.phraseGroups(id, view, String(cut ?? '')),
    queryFn: ({ signal }) =>
      unwrap(
        api.GET('/api/projects/{project_id}/phrases/groups', {
          params: { path: { project_id: id }, query: { view, cut } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });
}

export function useLadders(id: number, view: string) {
  return useQuery({
    queryKey: keys.ladders(id, view),
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/phrases/names', { params: { path: { project_id: id }, query: { view } } }),
      ),
    placeholderData: keepPreviousData,
  });
}

/** What is said of a file that is brought. */
export interface About {
  source: string;
  country: string;
  language: string;
  currency: string;
  dated: string;
  columns: string;
}

const asItIs = (body: Blob) => ({
  // The file as it is, whatever it is written in.
  body: body as unknown as string,
  bodySerializer: (sent: unknown) => sent as Blob,
  headers: { 'Content-Type': 'application/octet-stream' },
});

/** Everything that is done with phrases. */
export function usePhraseActs(id: number) {
  const client = useQueryClient();
  const path = { project_id: id };
  const anew = () => changed.phrases(client, id);
  const keep = (figures: Figures) => {
    client.setQueryData(keys.figures(id), figures);
    return anew();
  };
  return {
    anew,
    look: useMutation({
      mutationFn: (file: Blob) =>
        unwrap(
          // Its beginning tells how it is written.
          api.POST('/api/projects/{project_id}/phrases/figures/look', {
            params: { path },
            ...asItIs(file.slice(0, 400_000)),
          }),
        ),
    }),
    bring: useMutation({
      mutationFn: ({ file, name, about }: { file: Blob; name: string; about: About }) =>
        unwrap(
          api.POST('/api/projects/{project_id}/phrases/figures', {
            params: { path, query: { ...about, name, dated: about.dated || null } },
            ...asItIs(file),
          }),
        ),
      onSuccess: keep,
    }),
    remove: useMutation({
      mutationFn: (file: number) =>
        unwrap(
          api.DELETE('/api/projects/{project_id}/phrases/figures/{file_id}', {
            params: { path: { ...path, file_id: file } },
          }),
        ),
      onSuccess: keep,
    }),
    restore: useMutation({
      mutationFn: (file: number) =>
        unwrap(
          api.POST('/api/projects/{project_id}/phrases/figures/{file_id}', {
            params: { path: { ...path, file_id: file } },
          }),
        ),
      onSuccess: keep,
    }),
    type: useMutation({
      mutationFn: (text: string) =>
        unwrap(api.POST('/api/projects/{project_id}/phrases/typed', { params: { path }, body: { text } })),
      onSuccess: anew,
    }),
    ask: useMutation({
      mutationFn: (body: { phrases: string[]; country: string; language: string; companions: boolean }) =>
        unwrap(api.POST('/api/projects/{project_id}/phrases/asked', { params: { path }, body })),
      onSuccess: anew,
    }),
    choose: useMutation({
      mutationFn: ({ phrases, on }: { phrases: string[]; on: boolean }) =>
        unwrap(
          api.POST('/api/projects/{project_id}/phrases/chosen', { params: { path }, body: { phrases, chosen: on } }),
        ),
      mutationKey: ['choose', id],
      scope: { id: `choose-${id}` },
      // Shown at once; what was asked for before it may not know it, and what came of it is asked for after the last.
      onMutate: ({ phrases, on }) => {
        void client.cancelQueries({ queryKey: keys.phrases(id) }, { revert: false, silent: true });
        const meant = new Set(phrases);
        const marked = (line: PhraseLine): PhraseLine => (meant.has(line.phrase) ? { ...line, chosen: on } : line);
        client.setQueriesData<PhrasePage>(
          { queryKey: keys.phrasePage(id, '').slice(0, 4) },
          (page) => page && { ...page, lines: page.lines.map(marked) },
        );
        client.setQueriesData<PhraseGroups>(
          { queryKey: keys.phraseGroups(id, '', '').slice(0, 4) },
          (all) =>
            all && {
              ...all,
              groups: all.groups.map((group) => ({
                ...group,
                lines: group.lines.map((one) => ({ ...one, line: marked(one.line) })),
              })),
            },
        );
      },
      onSettled: () => (client.isMutating({ mutationKey: ['choose', id] }) > 1 ? undefined : anew()),
    }),
    apart: useMutation({
      mutationFn: (body: { phrases: string[]; on: boolean }) =>
        unwrap(api.POST('/api/projects/{project_id}/phrases/apart', { params: { path }, body })),
      onSuccess: anew,
    }),
    aside: useMutation({
      mutationFn: (body: { phrases: string[]; on: boolean }) =>
        unwrap(api.POST('/api/projects/{project_id}/phrases/aside', { params: { path }, body })),
      onSuccess: anew,
    }),
    keywords: useMutation({
      mutationFn: (body: { phrases: string[]; view: string; weigh: boolean }) =>
        unwrap(api.POST('/api/projects/{project_id}/phrases/keywords', { params: { path }, body })),
      onSuccess: () => client.invalidateQueries({ queryKey: keys.allOf(id) }),
    }),
    head: useMutation({
      mutationFn: (phrase: string) =>
        unwrap(api.POST('/api/projects/{project_id}/phrases/head', { params: { path }, body: { phrase } })),
      onSuccess: () => client.invalidateQueries({ queryKey: keys.allOf(id) }),
    }),
    check: useMutation({
      mutationFn: () =>
        unwrap(
          api.POST('/api/projects/{project_id}/phrases/names/check', {
            params: { path },
            body: { everywhere: false, again: 'stale', aim: 'scan' },
          }),
        ),
      onSuccess: () => changed.check(client, id),
    }),
  };
}

export type PhraseActs = ReturnType<typeof usePhraseActs>;
