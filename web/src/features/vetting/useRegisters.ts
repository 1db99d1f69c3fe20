import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, changed, keys, unwrap } from '../../shared/api';

const WHILE_READING = 1_500;

/** Registers of marks that were brought, for who may bring them. */
export const useRegisters = () =>
  useQuery({
    queryKey: keys.registers,
    queryFn: () => unwrap(api.GET('/api/marks')),
    refetchInterval: ({ state }) =>
      state.data?.files.some((f) => f.state === 'waiting' || f.state === 'reading') ? WHILE_READING : false,
  });

/** Bringing registers and catalogues of platforms. */
export function useRegisterActs() {
  const client = useQueryClient();
  const onSuccess = () => changed.registers(client);
  return {
    marks: useMutation({
      mutationFn: ({ file, office }: { file: File; office: string }) =>
        unwrap(
          api.POST('/api/marks', {
            params: { query: { name: file.name, office } },
            // The file as it is, whatever it is written in.
            body: file as unknown as string,
            bodySerializer: (body: unknown) => body as Blob,
            headers: { 'Content-Type': 'application/octet-stream' },
          }),
        ),
      onSuccess,
    }),
    platforms: useMutation({
      mutationFn: async (file: File) => unwrap(api.PUT('/api/platforms', { body: { text: await file.text() } })),
      onSuccess,
    }),
  };
}
