import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, type Brief, changed, type KeptWorld, keys, unwrap, type World, type WorldEntry } from '../../shared/api';
import { t } from '../../shared/texts';

/** Where a person's own words are from. */
export const OWN = t('your own words');

/** What the person chose of the brief's world. */
export type Chosen = Brief['world'];

/** The fields near the saved brief, its words by facet, and the small questions. */
export const useWorld = (projectId: number) =>
  useQuery({
    queryKey: keys.world(projectId),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/world', { params: { path: { project_id: projectId } } })),
    placeholderData: keepPreviousData,
  });

/** Titles of fields that hold what was typed. */
export const useFields = (text: string) =>
  useQuery({
    queryKey: keys.fields(text),
    queryFn: () => unwrap(api.GET('/api/fields', { params: { query: { text } } })),
    enabled: text.trim().length > 1,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });

/** Worlds the person keeps for their next projects. */
export function useKeptWorlds() {
  const client = useQueryClient();
  const onSuccess = () => changed.worlds(client);
  return {
    kept: useQuery({ queryKey: keys.worlds, queryFn: () => unwrap(api.GET('/api/worlds')) }),
    keep: useMutation({
      mutationFn: ({ title, entries }: Pick<KeptWorld, 'title' | 'entries'>) =>
        unwrap(api.POST('/api/worlds', { body: { title, entries } })),
      onSuccess,
    }),
    forget: useMutation({
      mutationFn: (id: number) => unwrap(api.DELETE('/api/worlds/{world_id}', { params: { path: { world_id: id } } })),
      onSuccess,
    }),
  };
}

const MOST = 600;
const split = (typed: string) =>
  typed
    .split(/[,;\n]/)
    .map((t) => t.trim().toLowerCase().replace(/\s+/g, ' '))
    .filter(Boolean);

/** Own words put into a facet; those typed before stay. */
export function withOwn(chosen: Chosen, facet: string, typed: string): Chosen {
  const before = chosen.own[facet] ?? [];
  const own = [...new Set([...before, ...split(typed)])].slice(0, MOST);
  return { ...chosen, own: { ...chosen.own, [facet]: own } };
}

/** Own words of a kept world, put in with those that are there. */
export const withKept = (chosen: Chosen, entries: Readonly<Record<string, string[]>>): Chosen =>
  Object.entries(entries).reduce((all, [facet, words]) => withOwn(all, facet, words.join(',')), chosen);

/** One's own word is taken out; one of a field is dropped, or comes back. */
export function withDropped(chosen: Chosen, facet: string, text: string, own: boolean): Chosen {
  if (own)
    return {
      ...chosen,
      own: { ...chosen.own, [facet]: (chosen.own[facet] ?? []).filter((t) => t !== text) },
    };
  const dropped = chosen.drop.includes(text);
  return { ...chosen, drop: dropped ? chosen.drop.filter((t) => t !== text) : [...chosen.drop, text] };
}

/** A word weighs as usual (3), more (5) or little (1), in turn. */
export function withWeight(chosen: Chosen, text: string, weight: number): Chosen {
  const others = Object.entries(chosen.weights).filter(([word]) => word !== text);
  return { ...chosen, weights: Object.fromEntries(weight === 3 ? others : [...others, [text, weight]]) };
}

/** A field is switched on or off; what is as the brief has it needs no mention. */
export function withField(chosen: Chosen, title: string, on: boolean): Chosen {
  const rest = (titles: readonly string[]) => titles.filter((t) => t !== title);
  return on
    ? { ...chosen, off: rest(chosen.off), on: [...rest(chosen.on), title] }
    : { ...chosen, on: rest(chosen.on), off: [...rest(chosen.off), title] };
}

/** A facet's entries as the person has them by now, which the server may not have heard of yet. */
export function entriesNow(facet: World['facets'][number], chosen: Chosen): WorldEntry[] {
  const own = new Set(chosen.own[facet.name] ?? []);
  const known = facet.entries.filter((e) => e.field !== OWN || own.has(e.text));
  const fresh = [...own]
    .filter((text) => !known.some((e) => e.text === text))
    .map((text) => ({ text, field: OWN, worth: 1, weight: 3, dropped: false }));
  return [...fresh, ...known].map((e) => ({
    ...e,
    weight: chosen.weights[e.text] ?? 3,
    dropped: chosen.drop.includes(e.text),
  }));
}

/** The same of the fields. */
export const fieldsNow = (world: World, chosen: Chosen): World['fields_near'] => {
  const listed = new Set(world.fields_near.map((f) => f.title));
  const fresh = chosen.on
    .filter((title) => !listed.has(title))
    .map((title) => ({ title, near: 1, on: true, chosen: true }));
  return [...fresh, ...world.fields_near].map((f) => ({
    ...f,
    on: chosen.on.includes(f.title) || (f.on && !chosen.off.includes(f.title)),
  }));
};

/** The questions one has not answered or passed over, in their order. */
export const leftOf = <Q extends { facet: string; asks: string }>(
  questions: readonly Q[],
  chosen: Chosen,
  passed: ReadonlySet<string>,
): Q[] => questions.filter((q) => !passed.has(q.asks) && !chosen.own[q.facet]?.length);
