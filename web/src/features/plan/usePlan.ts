import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';

import { api, changed, type CostQuestion, type CouponKind, keys, unwrap } from '../../shared/api';
import { download } from '../../shared/lib/download';
import type { FileForm } from '../../shared/ui/FileMenu';

const AGAIN = 1_500;
/** A plan of many names takes its time: it is asked for less often. */
const OF_A_NAME = 50;
// After so many answers nobody waits for sellers any more: what they say comes with the next question.
const MOST_ASKED = 60;

/** What the names of a question cost; nothing while there are none. `edition` is that of the price lists. */
export const useCosts = (projectId: number, question: CostQuestion, edition: string) =>
  useQuery({
    queryKey: keys.costs(projectId, question, edition),
    queryFn: () =>
      unwrap(
        api.POST('/api/projects/{project_id}/costs', { params: { path: { project_id: projectId } }, body: question }),
      ),
    enabled: question.full_names.length > 0,
    placeholderData: (before) => before,
    staleTime: 60_000,
    // Sellers are asked about single names meanwhile.
    refetchInterval: ({ state }) =>
      state.data?.quotes.waiting && state.dataUpdateCount < MOST_ASKED
        ? AGAIN + OF_A_NAME * state.data.names.length
        : false,
  });

/** The plan as a file, handed to the person. */
export const usePlanFile = (projectId: number, question: CostQuestion, title: string) =>
  useMutation({
    mutationFn: async (form: FileForm) => {
      const file = await unwrap(
        api.POST('/api/projects/{project_id}/costs/file', {
          params: { path: { project_id: projectId } },
          body: { ...question, form },
          parseAs: 'blob',
        }),
      );
      download(file, `${title}-plan.${form}`);
    },
  });

/** What a person does with coupons. */
export function useCouponActs(projectId: number) {
  const client = useQueryClient();
  const onSuccess = () => changed.costs(client, projectId);
  return {
    report: useMutation({
      mutationFn: ({ coupon, worked }: { coupon: CouponKind; worked: boolean | null }) =>
        unwrap(api.POST('/api/coupons/reports', { body: { seller: coupon.seller, code: coupon.code, worked } })),
      onSuccess,
    }),
    hold: useMutation({
      mutationFn: ({ seller, text, everybody }: { seller: string; text: string; everybody: boolean }) =>
        unwrap(
          api.POST('/api/sellers/{code}/held-coupons', {
            params: { path: { code: seller } },
            body: { text, everybody },
          }),
        ),
      onSuccess,
    }),
    drop: useMutation({
      mutationFn: (coupon: CouponKind) =>
        unwrap(
          api.PUT('/api/sellers/{code}/held-coupons', {
            params: { path: { code: coupon.seller } },
            body: { code: coupon.code, everybody: coupon.held === 'all' },
          }),
        ),
      onSuccess,
    }),
  };
}
