import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';

import type { Brief, Project } from '../../shared/api';

const list = (items: readonly string[]) => items.join(', ') || 'none';

/** The parts of a brief as they are told side by side. */
const PARTS: readonly { word: string; of: (brief: Brief) => string }[] = [
  { word: 'Words', of: (b) => list(b.keywords.map((k) => `${k.text} (${k.weight})`)) },
  { word: 'Purpose', of: (b) => b.purpose },
  { word: 'What counts', of: (b) => list(Object.entries(b.weights).map(([name, weight]) => `${name} ${weight}`)) },
  { word: 'Extensions', of: (b) => list(b.extensions.map((e) => `.${e}`)) },
  { word: 'Limits', of: (b) => `${b.limits.letters_min} to ${b.limits.letters_max} letters, ${b.limits.words} words, ${b.limits.hyphens} hyphens, ${b.limits.digits} digits` },
  { word: 'Recipes off', of: (b) => list(b.making.off) },
  { word: 'Dial and letters', of: (b) => `${b.making.daring}, ${b.making.added_max}, ${list(b.making.shapes)}` },
  { word: 'Places', of: (b) => list(b.places) },
  { word: 'To avoid', of: (b) => list(b.avoid) },
  { word: 'Owner', of: (b) => list([b.owner.country, b.owner.kind, b.owner.work, String(b.owner.budget ?? '')].filter(Boolean)) },
  { word: 'If taken', of: (b) => list(b.fallback) },
  { word: 'Meanings', of: (b) => list(b.keywords.map((k) => `${k.text}: ${k.senses.length} chosen, ${k.drop.length} dropped`)) },
];

interface Props {
  mine: Brief;
  theirs: Project;
  onMine: () => void;
  onTheirs: () => void;
}

/** The brief was changed elsewhere: both are shown where they differ, and the person chooses. */
export function Elsewhere({ mine, theirs, onMine, onTheirs }: Props) {
  const differ = PARTS.map(({ word, of }) => ({ word, here: of(mine), there: of(theirs.brief) })).filter(({ here, there }) => here !== there);
  return (
    <Alert severity="warning" sx={{ '& .MuiAlert-message': { minWidth: 0 } }}>
      This brief was changed in another window meanwhile. Yours is not saved yet.
      <Box component="dl" sx={{ m: 0, my: 0.8, '& dt': { fontWeight: 650 }, '& dd': { m: 0, overflowWrap: 'anywhere' } }}>
        {differ.map(({ word, here, there }) => (
          <div key={word}><dt>{word}</dt><dd>here: {here}</dd><dd>there: {there}</dd></div>
        ))}
        {differ.length === 0 && <div>Both say the same.</div>}
      </Box>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <Button variant="outlined" color="inherit" onClick={onMine}>Keep mine</Button>
        <Button variant="outlined" color="inherit" onClick={onTheirs}>Take theirs</Button>
      </Stack>
    </Alert>
  );
}
