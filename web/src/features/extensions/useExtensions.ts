import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, type Brief, changed, type Extension, keys, type ProposalQuestion, unwrap } from '../../shared/api';
import { extensionsQuery } from '../../shared/lib/queries';

type Owner = Brief['owner'];

/** The catalogue of extensions, and what goes with it: countries, kinds of work, rules. */
export const useExtensions = () => useQuery(extensionsQuery);

const propose = (owner: Owner) =>
  unwrap(
    api.GET('/api/proposals', {
      params: {
        query: {
          country: owner.country,
          work: owner.work,
          kind: owner.kind,
          years: owner.years,
          ...(owner.budget !== null && { budget: owner.budget }),
          ...(owner.budget_whole !== null && { whole: owner.budget_whole }),
        } as ProposalQuestion,
      },
    }),
  );

/** Which extensions suit an owner, best first, with reasons. */
export const useProposals = (owner: Owner) =>
  useQuery({
    queryKey: keys.proposals(owner),
    queryFn: () => propose(owner),
    placeholderData: (before) => before,
  });

/** Changing the catalogue, for administrators. */
export function useCatalogueChanges() {
  const client = useQueryClient();
  const refresh = () => changed.catalogue(client);
  return {
    put: useMutation({
      mutationFn: ({ entry, seen }: { entry: Extension; seen: Extension }) =>
        unwrap(
          api.PUT('/api/extensions/{extension}', {
            params: { path: { extension: entry.extension } },
            body: { ...entry, seen },
          }),
        ),
      onSuccess: refresh,
    }),
    importFile: useMutation({
      mutationFn: ({ text, seen }: { text: string; seen: string }) =>
        unwrap(api.PUT('/api/extensions/file', { body: { text, seen: { version: seen } } })),
      onSuccess: refresh,
    }),
  };
}
