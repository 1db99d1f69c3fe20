import Button from '@mui/material/Button';

import { canSpeak, say } from '../lib/speech';
import { SpeakIcon } from './icons';

/** Says a name aloud; a browser without a voice says so instead. */
export const SayButton = ({ text }: { text: string }) =>
  canSpeak() ? (
    <Button variant="outlined" startIcon={<SpeakIcon />} aria-label={`Say ${text} aloud`} onClick={() => say(text)}>
      Say it
    </Button>
  ) : (
    <Button variant="outlined" disabled title="This browser has no voice">
      Say it
    </Button>
  );
