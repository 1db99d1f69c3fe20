import { useState } from 'react';

import type { Happening } from '../../shared/api';

/** Those that were new when they were first in view here: reading them does not make them look old at once. */
export function useNews(rows: readonly Happening[] | undefined): ReadonlySet<number> {
  const [news, setNews] = useState<ReadonlySet<number>>(new Set());
  const fresh = rows?.filter((one) => !one.read && !news.has(one.id)) ?? [];
  if (fresh.length) setNews(new Set([...news, ...fresh.map((one) => one.id)]));
  return news;
}
