import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';

import { api, changed, keys, type OwnedChange, unwrap } from '../../shared/api';
import { formatCount } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { useNotify } from '../../shared/ui/Notices';

export const SORTS = ['expires', '-expires', 'name', '-name', 'cost', '-cost', 'registered', '-registered'] as const;
export const WHENS = ['', 'past', '30', '90', '365', 'unknown'] as const;

/** What is asked of the list, as it stands in the address. */
export interface Question {
  text: string;
  extension: string;
  seller: string;
  tag: string;
  project: number | null;
  when: (typeof WHENS)[number];
  renewed: '' | 'ask' | 'itself';
  differs: boolean;
  sort: (typeof SORTS)[number];
  page: number;
}

const one = <T extends string>(choices: readonly T[], text: string | null, usual: T): T =>
  choices.find((choice) => choice === text) ?? usual;

export const readQuestion = (params: URLSearchParams): Question => ({
  text: params.get('text') ?? '',
  extension: params.get('extension') ?? '',
  seller: params.get('seller') ?? '',
  tag: params.get('tag') ?? '',
  project: Math.trunc(Number(params.get('project'))) || null,
  when: one(WHENS, params.get('when'), ''),
  renewed: one(['', 'ask', 'itself'] as const, params.get('renewed'), ''),
  differs: params.get('differs') === 'true',
  sort: one(SORTS, params.get('sort'), 'expires'),
  page: Math.max(0, Math.trunc(Number(params.get('page'))) || 0),
});

/** A question as an address has it: without what is usual. */
export function writeQuestion(question: Question): URLSearchParams {
  const usual = readQuestion(new URLSearchParams());
  const different = Object.entries(question).filter(
    ([name, value]) => value !== null && value !== usual[name as keyof Question],
  );
  return new URLSearchParams(different.map(([name, value]) => [name, String(value)]));
}

/** A page of the names one owns. */
export const useOwned = (question: Question) =>
  useQuery({
    queryKey: keys.ownedPage(writeQuestion(question).toString()),
    queryFn: () => {
      const { project, ...rest } = question;
      return unwrap(api.GET('/api/owned', { params: { query: project === null ? rest : question } }));
    },
    placeholderData: keepPreviousData,
  });

/** What there is to choose from, with how many of each. */
export const useFacets = () =>
  useQuery({ queryKey: keys.ownedFacets, queryFn: () => unwrap(api.GET('/api/owned/facets')) });

/** What renewing costs by month. */
export const useMonths = () =>
  useQuery({ queryKey: keys.ownedMonths, queryFn: () => unwrap(api.GET('/api/owned/months')) });

/** What renewing these costs now, asked of their sellers. */
export const useRenewal = (ids: number[], years: number) =>
  useQuery({
    queryKey: keys.renewal(ids, years),
    queryFn: () => unwrap(api.POST('/api/owned/renewing', { body: { ids, years } })),
    gcTime: 0,
    retry: false,
  });

/** What moving a name to another seller costs now, and what stands against it. */
export const useMove = (id: number, to: string, code: string) =>
  useQuery({
    queryKey: keys.move(id, to, code),
    queryFn: () =>
      unwrap(api.POST('/api/owned/{owned_id}/moving', { params: { path: { owned_id: id } }, body: { to, code } })),
    placeholderData: keepPreviousData,
    gcTime: 0,
    retry: false,
  });

/** Everything that is done with names one owns. */
export function useOwnedActs() {
  const client = useQueryClient();
  const notify = useNotify();
  const navigate = useNavigate();
  const onSuccess = () => changed.owned(client);
  const onError = (error: Error) => {
    notify(error.message);
  };
  const told = ({ count, failed }: { count: number; failed: { full_name: string; why: string }[] }) => {
    const [first] = failed;
    notify(
      first
        ? t('{count, number} changed; {name}: {why}', { count, name: first.full_name, why: first.why })
        : t('{count, plural, one {One name is} other {# names are}} changed.', { count }),
    );
    return onSuccess();
  };
  const back = useMutation({
    mutationFn: (batch: string) => unwrap(api.POST('/api/owned/back', { body: { batch } })),
    onSuccess,
    onError,
  });
  return {
    add: useMutation({
      mutationFn: ({ text, table }: { text: string; table: boolean }) =>
        table
          ? unwrap(api.POST('/api/owned/table', { body: { text } }))
          : unwrap(api.POST('/api/owned', { body: { text } })),
      onSuccess,
    }),
    change: useMutation({
      mutationFn: (body: OwnedChange & { ids: number[] }) => unwrap(api.PATCH('/api/owned', { body })),
      onSuccess,
    }),
    off: useMutation({
      mutationFn: (ids: number[]) => unwrap(api.POST('/api/owned/off', { body: { ids } })),
      onSuccess: ({ batch }, ids) => {
        notify(
          t('{count, plural, one {One name is} other {# names are}} off the list; the registration stays.', {
            count: ids.length,
          }),
          () => back.mutate(batch),
        );
        return onSuccess();
      },
      onError,
    }),
    ask: useMutation({
      mutationFn: (ids: number[]) => unwrap(api.POST('/api/owned/ask', { body: { ids } })),
      onSuccess: ({ count }) => {
        notify(t('Asked about {count} of them.', { count: formatCount(count) }));
        return onSuccess();
      },
      onError,
    }),
    takeOver: useMutation({
      mutationFn: (ids: number[]) => unwrap(api.POST('/api/owned/take-over', { body: { ids } })),
      onSuccess,
      onError,
    }),
    find: useMutation({
      mutationFn: (ids: number[]) => unwrap(api.POST('/api/owned/find', { body: { ids } })),
      onSuccess: ({ count, unsure }) => {
        const found = t('{count, plural, =0 {None was} one {One was} other {# were}} found at our sellers.', { count });
        const left = t('Of {unsure, plural, one {one} other {#}} not every seller could be asked.', { unsure });
        notify(unsure ? `${found} ${left}` : found);
        return onSuccess();
      },
      onError,
    }),
    renew: useMutation({
      mutationFn: (body: { ids: number[]; years: number; sign: string }) =>
        unwrap(api.POST('/api/owned/renew', { body })),
      onSuccess: async ({ orders }) => {
        await changed.orders(client);
        await onSuccess();
        void navigate(orders.length === 1 ? `/orders/${orders[0] ?? ''}` : '/orders');
      },
    }),
    move: useMutation({
      mutationFn: ({ id, ...body }: { id: number; to: string; code: string; sign: string }) =>
        unwrap(api.POST('/api/owned/{owned_id}/move', { params: { path: { owned_id: id } }, body })),
      onSuccess: async ({ orders }) => {
        await changed.orders(client);
        await onSuccess();
        void navigate(`/orders/${String(orders[0] ?? '')}`);
      },
    }),
    code: useMutation({
      mutationFn: (id: number) =>
        unwrap(api.POST('/api/owned/{owned_id}/code', { params: { path: { owned_id: id } } })),
      onError,
    }),
    leaving: useMutation({
      mutationFn: ({ id, allow }: { id: number; allow: boolean }) =>
        unwrap(api.POST('/api/owned/{owned_id}/leaving', { params: { path: { owned_id: id } }, body: { allow } })),
      onSuccess: told,
      onError,
    }),
    servers: useMutation({
      mutationFn: (body: { ids: number[]; servers: string[] }) => unwrap(api.POST('/api/owned/servers', { body })),
      onSuccess: told,
    }),
    lock: useMutation({
      mutationFn: (body: { ids: number[]; locked: boolean }) => unwrap(api.POST('/api/owned/lock', { body })),
      onSuccess: told,
      onError,
    }),
    letGo: useMutation({
      mutationFn: ({ id, typed }: { id: number; typed: string }) =>
        unwrap(api.POST('/api/owned/{owned_id}/let-go', { params: { path: { owned_id: id } }, body: { typed } })),
      onSuccess: told,
    }),
  };
}
