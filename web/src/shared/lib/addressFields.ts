import { useCallback, useMemo } from 'react';

import { useAddress } from './useAddress';

export type ChangeOf<Q> = { [K in keyof Q]?: Q[K] | undefined };

/** Changes parts of a question; by a function, what is asked by then, as keys may come faster than the page is drawn. */
export type AskOf<Q> = (part: ChangeOf<Q> | ((now: Q) => ChangeOf<Q>)) => void;

interface Kinds<Q> {
  texts: readonly (keyof Q & string)[];
  numbers?: readonly (keyof Q & string)[];
  flags?: readonly (keyof Q & string)[];
}

const ORDER: readonly string[] = ['sort', 'reverse'];

/** The fields of an address that a question is made of; what is not asked is left out. */
export class AddressFields<Q extends object> {
  readonly all: readonly (keyof Q & string)[];
  /** A change that takes away all that narrows, and leaves the order. */
  readonly unfiltered: ChangeOf<Q>;

  constructor(private readonly kinds: Kinds<Q>) {
    this.all = [...kinds.texts, ...(kinds.numbers ?? []), ...(kinds.flags ?? [])];
    const filters = this.all.filter((field) => !ORDER.includes(field));
    this.unfiltered = Object.fromEntries(filters.map((field) => [field, undefined])) as ChangeOf<Q>;
  }

  /** The question in an address; what is no number where one belongs is passed over. */
  read(params: URLSearchParams): Q {
    const { texts, numbers = [], flags = [] } = this.kinds;
    const found: Record<string, string | number | boolean> = {};
    for (const field of texts) if (params.get(field)) found[field] = params.get(field) ?? '';
    for (const field of flags) if (params.get(field) === '1') found[field] = true;
    for (const field of numbers) {
      const value = params.get(field);
      if (value && Number.isFinite(Number(value))) found[field] = Number(value);
    }
    return found as Q;
  }

  /** The fields of an address for a question. */
  write(question: ChangeOf<Q>): [string, string][] {
    return this.all.flatMap((field): [string, string][] => {
      const value = question[field] as string | number | boolean | undefined;
      return value === undefined || value === '' || value === false
        ? []
        : [[field, value === true ? '1' : String(value)]];
    });
  }

  /** How many of the fields narrow what is listed. */
  filtersOf(question: Q): number {
    return this.write(question).filter(([field]) => !ORDER.includes(field)).length;
  }

  /** An address with the question changed; what else it holds stays. */
  changed(now: URLSearchParams, part: Parameters<AskOf<Q>>[0]): URLSearchParams {
    const before = this.read(now);
    const next = new URLSearchParams(this.write({ ...before, ...(typeof part === 'function' ? part(before) : part) }));
    for (const [name, value] of now) if (!(this.all as readonly string[]).includes(name)) next.append(name, value);
    return next;
  }
}

/**
 * The question in the address, and a way to change parts of it. A press is a step one can go back from, for the fields
 * among `steps`; letters typed, and sliders, are not each one.
 */
export function useAsked<Q extends object>(fields: AddressFields<Q>, steps: ReadonlySet<string>): [Q, AskOf<Q>] {
  const [params, turn] = useAddress();
  const question = useMemo(() => fields.read(params), [fields, params]);
  const ask = useCallback<AskOf<Q>>(
    (part) => {
      const step = Object.keys(typeof part === 'function' ? { sort: 1 } : part).some((field) => steps.has(field));
      turn((now) => fields.changed(now, part), { replace: !step });
    },
    [fields, steps, turn],
  );
  return [question, ask];
}
