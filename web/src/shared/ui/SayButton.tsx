import Button from '@mui/material/Button';

import { canSpeak, say } from '../lib/speech';
import { SpeakIcon } from './icons';
import { t } from '../texts';

/** Says a name aloud; a browser without a voice says so instead. */
export const SayButton = ({ text }: { text: string }) =>
  canSpeak() ? (
    <Button
      variant="outlined"
      startIcon={<SpeakIcon />}
      aria-label={t('Say {text} aloud', { text })}
      onClick={() => say(text)}>
      {t('Say it')}
    </Button>
  ) : (
    <Button variant="outlined" disabled title={t('This browser has no voice')}>
      {t('Say it')}
    </Button>
  );
