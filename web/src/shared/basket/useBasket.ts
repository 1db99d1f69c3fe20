import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, type BasketChange, changed, keys, unwrap } from '../api';
import { t } from '../texts';
import { useNotify } from '../ui/Notices';

const USUAL_YEARS = 5;
const WHILE_ASKING = 2_000;

/** What is to be bought, what it costs now and over some years. */
export const useBasket = (years = USUAL_YEARS) =>
  useQuery({
    queryKey: keys.basket(years),
    queryFn: () => unwrap(api.GET('/api/basket', { params: { query: { years } } })),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data?.waiting ? WHILE_ASKING : false),
  });

/** Putting in, buying otherwise, taking out with a way back, the last look, and agreeing to what it found. */
export function useBasketActs() {
  const client = useQueryClient();
  const notify = useNotify();
  const onSuccess = () => changed.basket(client);
  const onError = (error: Error) => {
    notify(error.message);
  };
  const back = useMutation({
    mutationFn: (batch: string) => unwrap(api.POST('/api/basket/back', { body: { batch } })),
    onSuccess,
    onError,
  });
  return {
    add: useMutation({
      mutationFn: ({ project, names }: { project: number; names: string[] }) =>
        unwrap(
          api.POST('/api/projects/{project_id}/basket', {
            params: { path: { project_id: project } },
            body: { names, seller: '', years: 1 },
          }),
        ),
      onSuccess: ({ count, there }) => {
        notify(
          count
            ? t('{count, plural, one {# name is} other {# names are}} in the basket now.', { count })
            : t('{names}: in the basket already.', { names: there.slice(0, 5).join(', ') }),
        );
        return onSuccess();
      },
    }),
    change: useMutation({
      mutationFn: ({ id, ...body }: BasketChange & { id: number }) =>
        unwrap(api.PATCH('/api/basket/items/{item_id}', { params: { path: { item_id: id } }, body })),
      onSuccess,
      onError,
    }),
    changeAll: useMutation({
      mutationFn: (body: BasketChange) => unwrap(api.PATCH('/api/basket', { body })),
      onSuccess,
    }),
    takeOut: useMutation({
      mutationFn: (id: number | null) =>
        id === null
          ? unwrap(api.DELETE('/api/basket'))
          : unwrap(api.DELETE('/api/basket/items/{item_id}', { params: { path: { item_id: id } } })),
      onSuccess: ({ batch }, id) => {
        notify(id === null ? t('The basket is empty.') : t('It is out of the basket.'), () => back.mutate(batch));
        return onSuccess();
      },
      onError,
    }),
    review: useMutation({
      mutationFn: () => unwrap(api.POST('/api/basket/review')),
      onSuccess,
      onError,
    }),
    agree: useMutation({
      mutationFn: ({ id, sign }: { id: number; sign: string }) =>
        unwrap(api.POST('/api/basket/items/{item_id}/agree', { params: { path: { item_id: id } }, body: { sign } })),
      onSuccess,
      onError,
    }),
  };
}
