import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';

import { api, changed, keys, type PlacedOrder, unwrap } from '../api';
import { useNotify } from '../ui/Notices';

const WHILE_WORKING = 1_500;
const MOVING: readonly string[] = ['paid', 'sent', 'pending', 'failed'];

/** Whether something of an order is being done, or somebody is paying. */
export const isMoving = (order: PlacedOrder): boolean =>
  (order.stage === 'paid' && order.names.some((one) => MOVING.includes(one.state))) ||
  (order.stage === 'open' && ['begun', 'open'].includes(order.payment));

/** All orders, the newest first. */
export const useOrders = () =>
  useQuery({
    queryKey: keys.orders,
    queryFn: () => unwrap(api.GET('/api/orders')),
    refetchInterval: ({ state }) => (state.data?.orders.some(isMoving) ? WHILE_WORKING : false),
  });

/** One order, asked again while something of it is being done. */
export const useOrder = (id: number) =>
  useQuery({
    queryKey: keys.order(id),
    queryFn: () => unwrap(api.GET('/api/orders/{order_id}', { params: { path: { order_id: id } } })),
    refetchInterval: ({ state }) => (state.data && isMoving(state.data) ? WHILE_WORKING : false),
  });

/** A receipt, or what was given back. */
export const useReceipt = (id: number, kind: string) =>
  useQuery({
    queryKey: keys.receipt(id, kind),
    queryFn: () =>
      unwrap(api.GET('/api/orders/{order_id}/receipts/{kind}', { params: { path: { order_id: id, kind } } })),
  });

/** Goes to another site in this window. */
export const goTo = (address: string): void => {
  window.location.assign(address);
};

/** Placing orders, paying them, and calling them off. */
export function useOrderActs() {
  const client = useQueryClient();
  const notify = useNotify();
  const navigate = useNavigate();
  const onSuccess = () => changed.orders(client);
  const onError = (error: Error) => {
    notify(error.message);
    return changed.orders(client);
  };
  const path = (id: number) => ({ params: { path: { order_id: id } } });
  return {
    place: useMutation({
      mutationFn: () => unwrap(api.POST('/api/orders')),
      onSuccess: async ({ orders }) => {
        await onSuccess();
        const [first] = orders;
        void navigate(orders.length === 1 && first ? `/orders/${first.id}` : '/orders');
      },
      onError,
    }),
    pay: useMutation({
      mutationFn: (id: number) => unwrap(api.POST('/api/orders/{order_id}/pay', path(id))),
      onSuccess: ({ page }) => {
        goTo(page);
      },
      onError,
    }),
    credit: useMutation({
      mutationFn: (id: number) => unwrap(api.POST('/api/orders/{order_id}/pay-by-credit', path(id))),
      onSuccess,
      onError,
    }),
    callOff: useMutation({
      mutationFn: (id: number) => unwrap(api.POST('/api/orders/{order_id}/call-off', path(id))),
      onSuccess,
      onError,
    }),
    carryOn: useMutation({
      mutationFn: (id: number) => unwrap(api.POST('/api/orders/{order_id}/carry-on', path(id))),
      onSuccess,
      onError,
    }),
  };
}
