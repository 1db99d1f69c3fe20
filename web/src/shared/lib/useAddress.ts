import { useCallback, useEffect } from 'react';
import { useSearchParams } from 'react-router';

type Turn = (now: URLSearchParams) => URLSearchParams;

/** Addresses that were asked for and that the router has not followed yet: the next change builds on the latest of them. */
export class PendingAddress {
  #going: string[] = [];
  #arrived: string | undefined;
  #last = '';
  #watchers = 0;

  /** Somebody looks at the address until the function given back is called; with the last one goes what was under way. */
  watch(): () => void {
    this.#watchers += 1;
    return () => {
      this.#watchers -= 1;
      if (this.#watchers) return;
      this.#going = [];
      this.#arrived = undefined;
    };
  }

  /** The latest asked for, if it is not there yet. */
  latest(): string | undefined {
    return this.#going.at(-1);
  }

  /** The last one asked for or come to, also when everybody who looked has left. */
  last(): string {
    return this.#last;
  }

  begin(address: string): void {
    this.#going.push(address);
    this.#last = address;
  }

  /** The router is at this address; everyone who sees it may say so. One that was not asked for (a link, the way back) ends what was under way. */
  arrive(address: string): void {
    if (address === this.#arrived) return;
    this.#arrived = address;
    const at = this.#going.lastIndexOf(address);
    if (at < 0) this.#last = address;
    this.#going = at < 0 ? [] : this.#going.slice(at + 1);
  }
}

const pending = new PendingAddress();

/** The query a page was left with: the router shows a change of the address before the page has followed it, and a page can be left in between. */
export const leftWith = (): string => pending.last();

/** The query of the address, and a way to change it that builds on changes still under way: two within a moment must not overwrite each other. */
export function useAddress(): [URLSearchParams, (turn: Turn, options?: { replace: boolean }) => void] {
  const [params, setParams] = useSearchParams();
  useEffect(() => pending.watch(), []);
  useEffect(() => {
    pending.arrive(params.toString());
  }, [params]);
  const change = useCallback(
    (turn: Turn, options = { replace: true }) => {
      const next = turn(new URLSearchParams(pending.latest() ?? params));
      pending.begin(next.toString());
      setParams(next, options);
    },
    [params, setParams],
  );
  return [params, change];
}
