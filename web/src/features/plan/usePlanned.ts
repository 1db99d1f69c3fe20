import { useQuery } from '@tanstack/react-query';

import { api, keys, type Project, unwrap } from '../../shared/api';
import { usePreferences } from '../../shared/lib/preferences';
import { useAddress } from '../../shared/lib/useAddress';
import { fullNamesOf, type PlanWish, questionOf, readWish, writeWish } from './planQuestion';
import { useCosts, useSellers } from './usePlan';

/** The currency the person likes prices in, "" for none. */
export const useLikedCurrency = (): string => usePreferences().preferences?.currency ?? '';

/** What is planned, as the address has it, and what it comes to. */
export function usePlanned(project: Project, liked: string) {
  const [params, turn] = useAddress();
  const list = useQuery({
    queryKey: keys.shortlist(project.id),
    queryFn: () =>
      unwrap(api.GET('/api/projects/{project_id}/shortlist', { params: { path: { project_id: project.id } } })),
  });
  const catalogue = useQuery({
    queryKey: keys.extensions,
    queryFn: () => unwrap(api.GET('/api/extensions')),
    staleTime: 300_000,
  });
  const wish = readWish(params, project.brief, liked);
  const names = fullNamesOf(list.data ?? [], project.brief.extensions);
  const sellers = useSellers();
  const codes = (sellers.data?.sellers ?? []).map((s) => s.code);
  const edition = (sellers.data?.sellers ?? []).map((s) => `${s.code} ${s.dated ?? ''}`).join();
  return {
    list,
    names,
    wish,
    change: (part: Partial<PlanWish>) => turn((now) => writeWish(now, part)),
    costs: useCosts(project.id, questionOf(wish, names, codes), edition),
    sellers,
    countries: catalogue.data?.countries ?? [],
  };
}
