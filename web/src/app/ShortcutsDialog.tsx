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
  ['m, shift with ↑ ↓', 'mark the name, or several in a row; Escape forgets the marks'],
  ['ctrl and a', 'mark every name shown'],
  ['t or space', 'tie a tag: keep the name or those marked, or take it off'],
  ['x', 'dismiss the name, or those marked; among the dismissed, bring back'],
  ['l', 'put by for later'],
  ['c', 'check the name, or those marked'],
  ['v', 'vary the name: names near it'],
  ['g', 'compare: the names marked side by side'],
  ['o', 'to the heads of the columns: ← → from one to the next, Enter orders by it, shift with ← → sizes it, ↓ back to the names'],
  ['Enter', 'everything about the name, on its own page'],
  ['r', 'read one by one'],
  ['u, shift and u', 'undo, redo, back through the session'],
  ['f', 'all filters, or the words again'],
  ['/', 'to the letters to look for; Escape empties them'],
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
