import Tooltip from '@mui/material/Tooltip';

import { formatAge, formatMoment } from '../lib/format';
import { useNow } from '../lib/useNow';

/** How old an answer is, with the exact time on hover. */
export function Age({ at }: { at: string }) {
  const now = useNow();
  return (
    <Tooltip title={formatMoment(at)}>
      <time dateTime={at}>{formatAge(at, now)}</time>
    </Tooltip>
  );
}
