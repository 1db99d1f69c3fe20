import type { Concepts, MeasureKind, StatusKind } from '../api';

let known: Concepts | null = null;

/** What there is of each kind of thing, as the server has it: set before anything is drawn. */
export const setConcepts = (concepts: Concepts): void => {
  known = concepts;
};

/** What there is: statuses, purposes, measures, recipes, kinds of parts, sources. */
export function concepts(): Concepts {
  if (!known) throw new Error('What there is was not loaded yet.');
  return known;
}

/** The measures in their order. */
export const measures = (): readonly MeasureKind[] => concepts().measures;

/** A measure by its name. */
export const measureOf = (name: string): MeasureKind | undefined => measures().find((m) => m.name === name);

/** A kind of finding by its name. */
export const findingKind = (name: string) => concepts().findings.find((f) => f.name === name);

/** A weight of findings by its name. */
export const weightKind = (name: string) => concepts().weights.find((w) => w.name === name);

/** A status by its name. */
export const statusOf = (name: string): StatusKind | undefined => concepts().statuses.find((s) => s.name === name);

/** Whether a name of this status can be registered now. */
export const isBuyable = (status: string): boolean => statusOf(status)?.buyable ?? false;

/** How a name that is held can be had. */
export const offerKind = (name: string) => concepts().offers.find((o) => o.name === name);

/** A kind of watch by its name. */
export const watchKind = (name: string) => concepts().watches.find((w) => w.name === name);

/** In words what a name was used for before, "" where nothing is told. */
export const pastUse = (name: string): string => concepts().past_uses.find((u) => u.name === name)?.word ?? name;

/** In words a state on the way out. */
export const leavingWord = (name: string): string => concepts().leavings.find((l) => l.name === name)?.word ?? name;
