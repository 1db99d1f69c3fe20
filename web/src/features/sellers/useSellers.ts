import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, changed, unwrap } from '../../shared/api';
import { extensionsQuery, sellersQuery } from '../../shared/lib/queries';

/** Who sells names. */
export const useSellers = () => useQuery(sellersQuery);

/** The countries there are, by name. */
export const useCountries = () => useQuery(extensionsQuery).data?.countries ?? [];

const ANSWERED_WITHIN = [0, 3_000, 10_000];

export type ListKind = 'prices' | 'coupons';
/** A seller's terms, as the open format of sellers has them. */
export type Terms = Record<string, unknown>;

interface Saved {
  /** None for a new one. */
  code: string | null;
  terms: Terms;
  everybody: boolean;
  /** As they were when the change began. */
  seen: Terms;
}

interface NewList {
  code: string;
  kind: ListKind;
  text: string;
  /** Only those lines that are right, or all or nothing. */
  take: 'good' | 'whole';
}

/** Changing sellers, their lists, and the exchange rates. */
export function useSellerActs() {
  const client = useQueryClient();
  const onSuccess = () => changed.sellers(client);
  const at = (code: string) => ({ params: { path: { code } } });
  return {
    save: useMutation({
      mutationFn: ({ code, terms, everybody, seen }: Saved) =>
        code === null
          ? unwrap(api.POST('/api/sellers', { body: { terms, everybody } }))
          : unwrap(api.PUT('/api/sellers/{code}', { ...at(code), body: { terms, seen } })),
      onSuccess,
    }),
    remove: useMutation({
      mutationFn: (code: string) => unwrap(api.DELETE('/api/sellers/{code}', at(code))),
      onSuccess,
    }),
    follow: useMutation({
      mutationFn: (code: string) => unwrap(api.POST('/api/sellers/{code}/follow', at(code))),
      onSuccess,
    }),
    refresh: useMutation({
      mutationFn: () => unwrap(api.POST('/api/sellers/refresh')),
      // They answer in their own time.
      onSuccess: () => {
        for (const ms of ANSWERED_WITHIN) setTimeout(() => void onSuccess(), ms);
      },
    }),
    putList: useMutation({
      mutationFn: ({ code, kind, text, take }: NewList) =>
        unwrap(
          kind === 'prices'
            ? api.PUT('/api/sellers/{code}/prices', { ...at(code), body: { text, take } })
            : api.PUT('/api/sellers/{code}/coupons', { ...at(code), body: { text, take } }),
        ),
      onSuccess,
    }),
    getList: useMutation({
      mutationFn: ({ code, kind }: Pick<NewList, 'code' | 'kind'>) =>
        unwrap(
          kind === 'prices'
            ? api.GET('/api/sellers/{code}/prices', { ...at(code), parseAs: 'text' })
            : api.GET('/api/sellers/{code}/coupons', { ...at(code), parseAs: 'text' }),
        ),
    }),
    bringRates: useMutation({
      mutationFn: (text: string) => unwrap(api.PUT('/api/rates', { body: { text } })),
      onSuccess,
    }),
  };
}
