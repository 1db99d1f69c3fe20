import Badge from '@mui/material/Badge';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Popover from '@mui/material/Popover';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';

import type { Happenings } from '../../shared/api';
import { BellIcon } from '../../shared/ui/icons';
import { t } from '../../shared/texts';
import { HappeningList } from './HappeningList';
import { useLatest, useRead } from './useHappenings';
import { useNews } from './useNews';

function Latest({ rows, unread, onClose }: Happenings & { onClose: () => void }) {
  const news = useNews(rows);
  const { mutate: read } = useRead();
  const newest = rows[0]?.id;
  useEffect(() => {
    if (unread && newest) read(newest);
  }, [unread, newest, read]);
  return (
    <Box sx={{ width: { xs: 320, sm: 440 }, p: 2 }}>
      <Typography variant="h3" component="h2" sx={{ mb: 0.5 }}>
        {t('What happened')}
      </Typography>
      {rows.length ? (
        <HappeningList rows={rows} news={news} onFollow={onClose} />
      ) : (
        <Typography color="textSecondary">
          {t('Nothing yet. Watch a name, and what becomes of it is told here.')}
        </Typography>
      )}
      <Button component={Link} to="/watching" onClick={onClose} sx={{ mt: 1 }}>
        {t('All you watch')}
      </Button>
    </Box>
  );
}

/** What is new of what is watched, wherever one is. */
export function Bell() {
  const { data } = useLatest();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const unread = data?.unread ?? 0;
  const label = unread
    ? t('{unread, plural, one {# new thing} other {# new things}} happened to what you watch', { unread })
    : t('What happened to what you watch');
  return (
    <>
      <Tooltip title={label}>
        <IconButton
          size="small"
          aria-label={label}
          aria-haspopup="dialog"
          aria-expanded={anchor !== null}
          onClick={(e) => setAnchor(e.currentTarget)}>
          <Badge badgeContent={unread} max={99} color="secondary">
            <BellIcon fontSize="small" />
          </Badge>
        </IconButton>
      </Tooltip>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}>
        {anchor && data && <Latest {...data} onClose={() => setAnchor(null)} />}
      </Popover>
    </>
  );
}
