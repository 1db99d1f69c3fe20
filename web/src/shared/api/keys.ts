import type { Question } from './types';

/** The cache keys of everything asked of the API, in one place. */
export const keys = {
  session: ['session'] as const,
  projects: ['projects'] as const,
  catalogue: ['catalogue'] as const,
  weighing: ['weighing'] as const,
  project: (id: number) => ['project', id] as const,
  names: (id: number) => ['names', id] as const,
  sheet: (id: number, question: Question) => ['names', id, question] as const,
  dots: (id: number, question: Question) => ['dots', id, question] as const,
  allDots: (id: number) => ['dots', id] as const,
  name: (id: number, label: string) => ['name', id, label] as const,
  allNames: (id: number) => ['name', id] as const,
  funnel: (id: number) => ['funnel', id] as const,
  watch: (id: number) => ['watch', id] as const,
  words: (id: number) => ['words', id] as const,
  near: (id: number, label: string) => ['names', id, 'near', label] as const,
  dismissed: (id: number) => ['dismissed', id] as const,
  shortlist: (id: number) => ['shortlist', id] as const,
};
