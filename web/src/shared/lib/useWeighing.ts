import { useQuery } from '@tanstack/react-query';

import { weighingQuery } from './queries';

/** How the measures make a grade. */
export const useWeighing = () => useQuery(weighingQuery);
