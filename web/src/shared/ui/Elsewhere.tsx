import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import { t } from '../texts';

/** One part of what was changed, in words: as it stands here, and as it is by now. */
export interface Difference {
  word: string;
  here: string;
  there: string;
}

interface Props {
  /** What was changed: "This brief". */
  what: string;
  parts: readonly Difference[];
  onMine: () => void;
  onTheirs: () => void;
}

/** Something was changed elsewhere meanwhile: both are shown where they differ, and the person chooses. */
export function Elsewhere({ what, parts, onMine, onTheirs }: Props) {
  const differ = parts.filter(({ here, there }) => here !== there);
  return (
    <Alert severity="warning" sx={{ '& .MuiAlert-message': { minWidth: 0 } }}>
      {t('{what} was changed in another window meanwhile. Yours is not saved yet.', { what })}
      <Box
        component="dl"
        sx={{ m: 0, my: 0.8, '& dt': { fontWeight: 650 }, '& dd': { m: 0, overflowWrap: 'anywhere' } }}>
        {differ.map(({ word, here, there }) => (
          <div key={word}>
            <dt>{word}</dt>
            <dd>{t('here: {here}', { here })}</dd>
            <dd>{t('there: {there}', { there })}</dd>
          </div>
        ))}
        {differ.length === 0 && <div>{t('Both say the same.')}</div>}
      </Box>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <Button variant="outlined" color="inherit" onClick={onMine}>
          {t('Keep mine')}
        </Button>
        <Button variant="outlined" color="inherit" onClick={onTheirs}>
          {t('Take theirs')}
        </Button>
      </Stack>
    </Alert>
  );
}
