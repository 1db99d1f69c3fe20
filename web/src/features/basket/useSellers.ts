import { useQuery } from '@tanstack/react-query';

import { sellersQuery } from '../../shared/lib/queries';

/** Those one can buy from: they have a list. */
export const useSellersWithLists = () => useQuery(sellersQuery).data?.sellers.filter((one) => one.dated) ?? [];
