import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';

import { keysOf, useLetterKeys } from '../shared/lib/keymap';
import { rich, t } from '../shared/texts';

interface Props {
  open: boolean;
  onClose: () => void;
}

/** The keys of the bench. */
export function ShortcutsDialog({ open, onClose }: Props) {
  const letters = useLetterKeys();
  const keys = [...keysOf('sheet', letters), ...keysOf('bench', letters)].filter(({ off }) => !off);
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="shortcuts-title">
      <DialogTitle id="shortcuts-title" variant="h2">
        {t('Keys of the bench')}
      </DialogTitle>
      <DialogContent>
        <Box component="dl" sx={{ m: 0, display: 'grid', gridTemplateColumns: 'auto 1fr', columnGap: 3, rowGap: 1 }}>
          {keys.map(({ command, shown, does }) => (
            <Box key={command} sx={{ display: 'contents' }}>
              <Box component="dt">
                <kbd>{shown}</kbd>
              </Box>
              <Box component="dd" sx={{ m: 0 }}>
                {does}
              </Box>
            </Box>
          ))}
        </Box>
        <Typography variant="body2" color="textSecondary" sx={{ mt: 2 }}>
          {rich(
            letters
              ? 'Keys of one letter can be switched off in the <link>settings</link>.'
              : 'Keys of one letter are switched off; switch them on in the <link>settings</link>.',
            { link: (it) => <Link to="/settings">{it}</Link> },
          )}
        </Typography>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t('Close')}</Button>
      </DialogActions>
    </Dialog>
  );
}
