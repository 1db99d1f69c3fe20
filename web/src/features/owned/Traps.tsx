import Alert from '@mui/material/Alert';

import type { MoveTrap } from '../../shared/api';

/** What stands against moving a name, and what to know of it. */
export const Traps = ({ traps }: { traps: readonly MoveTrap[] }) =>
  traps.map((one) => (
    <Alert key={one.code} severity={one.bars ? 'error' : 'info'}>
      {one.message}
    </Alert>
  ));
