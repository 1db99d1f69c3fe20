import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, changed, keys, unwrap, type Zone, type ZoneRecord } from '../../shared/api';
import { useDebounced } from '../../shared/lib/useDebounced';
import { t } from '../../shared/texts';
import { useNotify } from '../../shared/ui/Notices';

const PAUSE = 350;
const at = (id: number) => ({ params: { path: { owned_id: id } } });

/** The zone of a name one owns. */
export const useZone = (id: number) =>
  useQuery({
    queryKey: keys.zone(id),
    queryFn: () => unwrap(api.GET('/api/owned/{owned_id}/zone', at(id))),
    // What is typed stands beside it: it is asked for anew only when something has been done.
    staleTime: Infinity,
  });

/** What is to be said of records as they are typed. */
export function useJudged(id: number, records: readonly ZoneRecord[]) {
  const still = useDebounced(records, PAUSE);
  const { data } = useQuery({
    queryKey: keys.judged(id, still),
    queryFn: () => unwrap(api.POST('/api/owned/{owned_id}/zone/judge', { ...at(id), body: { records: [...still] } })),
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  return { remarks: data?.remarks ?? [], settled: still === records };
}

/** The keys the registry names. */
export const useKeys = (id: number, wanted: boolean) =>
  useQuery({
    queryKey: keys.zoneKeys(id),
    queryFn: () => unwrap(api.GET('/api/owned/{owned_id}/keys', at(id))),
    enabled: wanted,
    retry: false,
  });

/** Everything that is done with a zone. */
export function useZoneActs(id: number) {
  const client = useQueryClient();
  const notify = useNotify();
  const onSuccess = (zone: Zone) => {
    client.setQueryData(keys.zone(id), zone);
  };
  const onError = (error: Error) => {
    notify(error.message);
  };
  return {
    put: useMutation({
      mutationFn: (body: { records: ZoneRecord[]; edition: number }) =>
        unwrap(api.PUT('/api/owned/{owned_id}/zone', { ...at(id), body })),
      onSuccess,
    }),
    look: useMutation({
      mutationFn: () => unwrap(api.POST('/api/owned/{owned_id}/zone/look', at(id))),
      onSuccess,
      onError,
    }),
    withdraw: useMutation({
      mutationFn: () => unwrap(api.POST('/api/owned/{owned_id}/zone/withdraw', at(id))),
      onSuccess,
      onError,
    }),
    ready: useMutation({
      mutationFn: (body: { set: string; given: Record<string, string>; records: ZoneRecord[] }) =>
        unwrap(api.POST('/api/owned/{owned_id}/zone/ready', { ...at(id), body })),
    }),
    master: useMutation({
      mutationFn: (text: string) =>
        unwrap(api.POST('/api/owned/{owned_id}/zone/master', { ...at(id), body: { text } })),
    }),
    setKeys: useMutation({
      mutationFn: (lines: string[]) =>
        unwrap(api.PUT('/api/owned/{owned_id}/keys', { ...at(id), body: { keys: lines } })),
      onSuccess: async ({ failed }) => {
        notify(failed[0]?.why ?? t('The registry names these keys now.'));
        await client.invalidateQueries({ queryKey: keys.zoneKeys(id) });
        await changed.owned(client);
      },
    }),
    point: useMutation({
      mutationFn: (servers: string[]) => unwrap(api.POST('/api/owned/servers', { body: { ids: [id], servers } })),
      onSuccess: async ({ failed }) => {
        notify(failed[0]?.why ?? t('The registry sends the world to our name servers now.'));
        await client.invalidateQueries({ queryKey: keys.zone(id) });
        await changed.owned(client);
      },
      onError,
    }),
  };
}
