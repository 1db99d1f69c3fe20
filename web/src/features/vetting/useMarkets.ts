import { useQuery } from '@tanstack/react-query';

import { extensionsQuery } from '../../shared/lib/queries';

/** The countries names can be sold in. */
export const useMarkets = () => useQuery(extensionsQuery).data?.countries ?? [];
