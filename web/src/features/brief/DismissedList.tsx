import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import { useActs } from '../../shared/lib/useActs';
import { useDismissed } from './useDismissed';
import { t } from '../../shared/texts';

const MOST = 40;

/** Names sent away, and bringing them back. */
export function DismissedList({ projectId }: { projectId: number }) {
  const { data } = useDismissed(projectId);
  const { act } = useActs(projectId);
  const labels = data?.labels ?? [];
  if (!labels.length) return null;
  return (
    <Box component="section" aria-label={t('Dismissed')}>
      <Stack direction="row" sx={{ alignItems: 'baseline', justifyContent: 'space-between' }}>
        <Typography variant="h3" component="h2">
          {t('Dismissed')}
        </Typography>
        <Button onClick={() => void act('restore', labels)}>{t('Bring all back')}</Button>
      </Stack>
      <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 0.5 }}>
        {labels.slice(0, MOST).map((label) => (
          <Chip
            key={label}
            size="small"
            variant="outlined"
            label={label}
            title={t('Bring it back')}
            onClick={() => void act('restore', [label])}
          />
        ))}
        {labels.length > MOST && (
          <Typography variant="caption" color="textSecondary">
            {t('and {labels, plural, one {# more} other {# more}}', { labels: labels.length - MOST })}
          </Typography>
        )}
      </Stack>
    </Box>
  );
}
