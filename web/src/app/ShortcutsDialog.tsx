import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Box from '@mui/material/Box';

const SHORTCUTS: readonly (readonly [string, string])[] = [
  ['↑ ↓', 'the name above or below'],
  ['Page up, Page down', 'a screen up or down'],
  ['Home, End', 'the first or last name'],
  ['t or space', 'tie a tag: keep the name, or take it off'],
  ['x', 'dismiss the name'],
  ['v', 'vary the name: names near it'],
  ['c', 'check the name'],
  ['/', 'to the filter; Escape empties it'],
  ['?', 'this list'],
];

interface Props {
  open: boolean;
  onClose: () => void;
}

/** The keys of the bench. */
export function ShortcutsDialog({ open, onClose }: Props) {
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="shortcuts-title">
      <DialogTitle id="shortcuts-title" variant="h2">Keys of the bench</DialogTitle>
      <DialogContent>
        <Box component="dl" sx={{ m: 0, display: 'grid', gridTemplateColumns: 'auto 1fr', columnGap: 3, rowGap: 1 }}>
          {SHORTCUTS.map(([key, what]) => (
            <Box key={key} sx={{ display: 'contents' }}>
              <Box component="dt"><kbd>{key}</kbd></Box>
              <Box component="dd" sx={{ m: 0 }}>{what}</Box>
            </Box>
          ))}
        </Box>
      </DialogContent>
      <DialogActions><Button onClick={onClose}>Close</Button></DialogActions>
    </Dialog>
  );
}
