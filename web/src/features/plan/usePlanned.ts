import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';

import type { Costs, Project } from '../../shared/api';
import { usePreferences } from '../../shared/lib/preferences';
import { extensionsQuery, sellersQuery, shortlistQuery } from '../../shared/lib/queries';
import { useAddress } from '../../shared/lib/useAddress';
import { fullNamesOf, type PlanWish, questionOf, readWish, writeWish } from './planQuestion';
import { useCosts } from './usePlan';

/** The currency the person likes prices in, "" for none. */
export const useLikedCurrency = (): string => usePreferences().preferences?.currency ?? '';

/** What is planned, as the address has it, and what it comes to. */
export function usePlanned(project: Project, liked: string) {
  const [params, turn] = useAddress();
  const list = useQuery(shortlistQuery(project.id));
  const catalogue = useQuery(extensionsQuery);
  const sellers = useQuery(sellersQuery);
  const codes = (sellers.data?.sellers ?? []).map((s) => s.code);
  const asked = readWish(params, project.brief, liked);
  // One seller at least is considered, whatever an address says.
  const wish = codes.every((code) => asked.less.includes(code)) ? { ...asked, less: [] } : asked;
  const names = [...new Set([...fullNamesOf(list.data ?? [], project.brief.extensions), ...wish.also])];
  const edition = (sellers.data?.sellers ?? []).map((s) => `${s.code} ${s.dated ?? ''}`).join();
  const question = questionOf(wish, names, codes);
  const costs = useCosts(project.id, question, edition);
  // What was worked out last stays in sight while something is mended that cannot be worked out.
  const [last, setLast] = useState<Costs | undefined>();
  if (costs.data && costs.data !== last) setLast(costs.data);
  return {
    list,
    names,
    wish,
    change: (part: Partial<PlanWish>) => turn((now) => writeWish(now, part)),
    question,
    costs,
    worked: costs.data ?? last,
    sellers,
    countries: catalogue.data?.countries ?? [],
  };
}
