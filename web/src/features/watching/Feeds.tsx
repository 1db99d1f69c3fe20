import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import type { PrivateFeed } from '../../shared/api';
import { Age } from '../../shared/ui/Age';
import { useNotify } from '../../shared/ui/Notices';
import { rich, t } from '../../shared/texts';
import { useFeeds } from './useTelling';

const WORD: Readonly<Record<PrivateFeed['kind'], string>> = {
  atom: t('Feed of what happened'),
  calendar: t('Calendar of dates'),
};

function OneFeed({ feed, onRevoke }: { feed: PrivateFeed; onRevoke: () => void }) {
  const notify = useNotify();
  const [sure, setSure] = useState(false);
  const address = `${window.location.origin}${feed.path}`;
  const copy = () => {
    navigator.clipboard.writeText(address).then(
      () => notify(t('The address was copied.')),
      () => notify(t('Copying was not allowed. Mark the address and copy it.')),
    );
  };
  return (
    <Box component="li" sx={{ py: 0.8, borderBottom: 1, borderColor: 'divider' }}>
      <TextField
        fullWidth
        label={WORD[feed.kind]}
        value={address}
        onFocus={(e) => e.target.select()}
        slotProps={{ htmlInput: { readOnly: true } }}
      />
      <Stack direction="row" sx={{ gap: 0.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Button size="small" onClick={copy}>
          {t('Copy')}
        </Button>
        {sure ? (
          <>
            <Button size="small" color="error" onClick={onRevoke}>
              {t('Nobody may read it any more')}
            </Button>
            <Button size="small" onClick={() => setSure(false)}>
              {t('Leave it')}
            </Button>
          </>
        ) : (
          <Button size="small" onClick={() => setSure(true)}>
            {t('Revoke')}
          </Button>
        )}
        <Typography variant="caption" color="textSecondary" sx={{ ml: 'auto' }}>
          {feed.read_at ? rich('read {age}', { age: <Age at={feed.read_at} /> }) : t('not read yet')}
        </Typography>
      </Stack>
    </Box>
  );
}

/** Addresses for readers of feeds and calendars. */
export function Feeds() {
  const { feeds, make, revoke } = useFeeds();
  return (
    <Stack sx={{ gap: 1 }}>
      <Typography color="textSecondary">
        {t('Whoever has such an address can read it without signing in, until you revoke it.')}
      </Typography>
      <Box component="ul" aria-label={t('Addresses')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {feeds.data?.feeds.map((feed) => (
          <OneFeed key={feed.id} feed={feed} onRevoke={() => revoke.mutate(feed.id)} />
        ))}
      </Box>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        {(['atom', 'calendar'] as const).map((kind) => (
          <Button key={kind} variant="outlined" disabled={make.isPending} onClick={() => make.mutate(kind)}>
            {kind === 'atom' ? t('New feed') : t('New calendar')}
          </Button>
        ))}
      </Stack>
    </Stack>
  );
}
