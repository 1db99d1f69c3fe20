import { useQuery } from '@tanstack/react-query';

import type { Glance } from '../../shared/api';
import { vettingQuery } from '../../shared/lib/queries';

/** What vetting found of the names of the shortlist, by label. */
export function useVettedNames(projectId: number): ReadonlyMap<string, readonly Glance[]> {
  const { data } = useQuery(vettingQuery(projectId));
  return new Map((data?.names ?? []).map((name) => [name.label, name.kinds]));
}
