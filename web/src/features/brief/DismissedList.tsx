import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import { plural } from '../../shared/lib/format';
import { useActs } from '../../shared/lib/useActs';
import { useDismissed } from './useDismissed';

const MOST = 40;

/** Names sent away, and bringing them back. */
export function DismissedList({ projectId }: { projectId: number }) {
  const { data } = useDismissed(projectId);
  const { act } = useActs(projectId);
  const labels = data?.labels ?? [];
  if (!labels.length) return null;
  return (
    <Box component="section" aria-label="Dismissed">
      <Stack direction="row" sx={{ alignItems: 'baseline', justifyContent: 'space-between' }}>
        <Typography variant="h3" component="h2">
          Dismissed
        </Typography>
        <Button onClick={() => void act('restore', labels)}>Bring all back</Button>
      </Stack>
      <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 0.5 }}>
        {labels.slice(0, MOST).map((label) => (
          <Chip
            key={label}
            size="small"
            variant="outlined"
            label={label}
            title="Bring it back"
            onClick={() => void act('restore', [label])}
          />
        ))}
        {labels.length > MOST && (
          <Typography variant="caption" color="textSecondary">
            and {plural(labels.length - MOST, 'more', 'more')}
          </Typography>
        )}
      </Stack>
    </Box>
  );
}
