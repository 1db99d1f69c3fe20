import type { QueryClient, QueryKey } from '@tanstack/react-query';

import { keys } from './keys';

const anew = async (client: QueryClient, ...stale: QueryKey[]): Promise<void> => {
  await Promise.all(stale.map((queryKey) => client.invalidateQueries({ queryKey })));
};
/** What shows the list of names, as a whole or in figures. */
const listed = (id: number): QueryKey[] => [keys.names(id), keys.counts(id), keys.allDots(id), keys.funnel(id)];
const notOfTheSession = ({ queryKey }: { queryKey: QueryKey }) => queryKey[0] !== keys.session[0];

/** What of the cache is to be asked anew once something has changed on the server: the one place that says so. */
export const changed = {
  session: (client: QueryClient) => anew(client, keys.session),
  projects: (client: QueryClient) => anew(client, keys.projects),
  catalogue: (client: QueryClient) => anew(client, keys.extensions, keys.allProposals),
  /** Sellers, their lists or coupons, or exchange rates: every plan and every price in a sheet follows. */
  sellers: (client: QueryClient) => {
    const predicate = ({ queryKey }: { queryKey: QueryKey }) =>
      queryKey[0] === keys.sellers[0] || ['costs', 'names', 'name', 'counts'].some((part) => queryKey.includes(part));
    return client.invalidateQueries({ predicate });
  },
  /** What a plan comes to. */
  costs: (client: QueryClient, id: number) => anew(client, keys.allCosts(id)),
  worlds: (client: QueryClient) => anew(client, keys.worlds),
  /** What is in the basket: names say whether they are. */
  basket: (client: QueryClient) => {
    const predicate = ({ queryKey }: { queryKey: QueryKey }) =>
      queryKey[0] === keys.allBasket[0] || (queryKey[0] === 'project' && queryKey[2] === 'name');
    return client.invalidateQueries({ predicate });
  },
  /** Whom names are for: what is in the basket may be for others now. */
  contacts: (client: QueryClient) => anew(client, keys.contacts, keys.allBasket),
  /** Orders were placed, paid or called off. */
  orders: (client: QueryClient) => anew(client, keys.orders, keys.allBasket),
  /** Names one owns, or what is known of them. */
  owned: (client: QueryClient) => anew(client, keys.owned),
  /** What is watched: names say whether they are. */
  watches: (client: QueryClient) => {
    const predicate = ({ queryKey }: { queryKey: QueryKey }) =>
      queryKey[0] === keys.watches[0] || (queryKey[0] === 'project' && queryKey[2] === 'name');
    return client.invalidateQueries({ predicate });
  },
  /** Something happened, or was read. */
  happenings: (client: QueryClient) => anew(client, keys.happenings),
  telling: (client: QueryClient) => anew(client, keys.telling),
  feeds: (client: QueryClient) => anew(client, keys.feeds),
  /** The list of names is longer. */
  list: (client: QueryClient, id: number) => anew(client, ...listed(id)),
  /** The brief, and with it the list. The names first: they are what one waits for. */
  brief: async (client: QueryClient, id: number) => {
    await anew(client, keys.names(id));
    const others = [keys.allNames(id), keys.shortlist(id), keys.words(id), keys.world(id), keys.projects];
    await anew(client, ...listed(id).slice(1), ...others);
  },
  /** Names were kept, dismissed or put by. */
  marks: (client: QueryClient, id: number) =>
    anew(client, ...listed(id), keys.dismissed(id), keys.shortlist(id), keys.hunts(id)),
  /** Names were looked at, which moves no row. */
  looks: (client: QueryClient, id: number) => anew(client, keys.counts(id)),
  /** What is known of some names. */
  names: (client: QueryClient, id: number, labels: Iterable<string>) =>
    anew(client, ...[...labels].map((label) => keys.name(id, label))),
  /** Answers came to a project's names. */
  answers: (client: QueryClient, id: number) =>
    anew(
      client,
      ...listed(id),
      keys.list(id),
      keys.allNames(id),
      keys.shortlist(id),
      keys.shorts(id),
      keys.ladders(id, '').slice(0, 4),
    ),
  funnel: (client: QueryClient, id: number) => anew(client, keys.funnel(id)),
  pasted: (client: QueryClient, id: number) => anew(client, keys.list(id)),
  shortlist: (client: QueryClient, id: number) => anew(client, keys.shortlist(id)),
  /** Which names are kept. */
  kept: (client: QueryClient, id: number) => anew(client, keys.shortlist(id), ...listed(id)),
  /** Phrases, their figures, or what was decided of them: names carry them. */
  phrases: (client: QueryClient, id: number) => anew(client, keys.phrases(id), ...listed(id), keys.allNames(id)),
  /** A check was begun. */
  check: (client: QueryClient, id: number) => anew(client, keys.watch(id), keys.ladders(id, '').slice(0, 4)),
  /** What was found of names by vetting. */
  vetting: (client: QueryClient, id: number) => anew(client, keys.vetting(id), keys.allNames(id)),
  /** Registers of marks, or the catalogue of platforms. */
  registers: (client: QueryClient) => anew(client, keys.registers),
  /** Markets, or what their lists tell. */
  markets: (client: QueryClient) => anew(client, keys.markets),
  /** A newer list tells what is offered. */
  offers: (client: QueryClient, id: number) => anew(client, keys.hunts(id)),
  duels: (client: QueryClient, id: number) => anew(client, keys.duels(id)),
  shares: (client: QueryClient, id: number) => anew(client, keys.shares(id)),
  shared: (client: QueryClient, token: string) => anew(client, keys.shared(token)),
  /** All of a project but itself, which is there already. */
  project: (client: QueryClient, id: number) => {
    const itself = keys.project(id).join();
    const predicate = ({ queryKey }: { queryKey: QueryKey }) => queryKey.join() !== itself;
    return client.invalidateQueries({ queryKey: keys.allOf(id), predicate });
  },
  /** The session goes on, after who knows what. */
  everything: (client: QueryClient) => client.invalidateQueries({ predicate: notOfTheSession }),
  /** Somebody else is there, or nobody: nothing of what was there stays. */
  person: (client: QueryClient) => {
    client.removeQueries({ predicate: notOfTheSession });
  },
};
