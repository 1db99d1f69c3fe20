import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import type { Cell } from '../../shared/api';
import { formatDay } from '../../shared/lib/format';
import { Age } from '../../shared/ui/Age';
import { shownStatus } from '../../shared/ui/status';
import { StatusMark } from '../../shared/ui/StatusMark';

const host = (address: string): string => {
  try {
    return new URL(address).host;
  } catch {
    return address;
  }
};

/** Who said so, and what. */
function Evidence({ cell }: { cell: Cell }) {
  if (cell.pending) return <>Asked; the answer has not come yet.</>;
  const since = cell.registered && `Registered ${formatDay(cell.registered)}. `;
  const until = cell.expires && `Expires ${formatDay(cell.expires)}. `;
  return (
    <>
      {cell.status === 'open' && 'The registry has no such registration. '}
      {cell.status === 'taken' && (since ?? until ? <>{since}{until}</> : 'The registry gave no dates. ')}
      {cell.status === 'unsure' && `${cell.reason} `}
      {cell.source && <Box component="span" title={cell.detail ? `${cell.source} · ${cell.detail}` : cell.source}>Asked at {host(cell.source)}.</Box>}
    </>
  );
}

interface Props {
  extensions: readonly string[];
  cells: readonly Cell[];
}

/** The status of the name under each of the brief's extensions, with evidence and age. */
export function Statuses({ extensions, cells }: Props) {
  return (
    <Stack component="ul" aria-label="Statuses" sx={{ m: 0, p: 0, listStyle: 'none' }}>
      {extensions.map((extension) => {
        const cell = cells.find((c) => c.extension === extension);
        return (
          <Box component="li" key={extension} sx={{ py: 0.6, borderTop: 1, borderColor: 'divider' }}>
            <Stack direction="row" sx={{ alignItems: 'baseline', gap: 1 }}>
              <Box component="span" sx={{ fontWeight: 600, minWidth: 62 }}>.{extension}</Box>
              <StatusMark status={shownStatus(cell)} />
              <Typography variant="caption" color="textSecondary" sx={{ ml: 'auto' }}>{cell?.asked_at && <Age at={cell.asked_at} />}</Typography>
            </Stack>
            {cell && <Typography variant="caption" color="textSecondary" component="p" sx={{ lineHeight: 1.35 }}><Evidence cell={cell} /></Typography>}
          </Box>
        );
      })}
    </Stack>
  );
}
