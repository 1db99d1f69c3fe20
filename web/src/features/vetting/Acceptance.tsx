import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import type { KindFindings } from '../../shared/api';
import { focusOnMount } from '../../shared/lib/focusOnMount';
import { t } from '../../shared/texts';

interface Props {
  kind: KindFindings;
  word: string;
  onAccept: (accepted: boolean, note: string) => void;
  pending: boolean;
  /** Why it could not be kept, if so. */
  fault: string | undefined;
}

const MOST = 500;

/** Saying that what was found is seen and accepted, and why. */
export function Acceptance({ kind, word, onAccept, pending, fault }: Props) {
  const [note, setNote] = useState(kind.note);
  const [writing, setWriting] = useState(false);
  if (kind.weight === 'clear' && !kind.accepted && !kind.changed) return null;
  const failed = fault && (
    <Typography variant="body2" color="error" role="alert">
      {fault}
    </Typography>
  );
  if (kind.accepted && !writing)
    return (
      <Stack direction="row" sx={{ gap: 1, alignItems: 'baseline', flexWrap: 'wrap', mt: 0.5 }}>
        <Typography variant="body2" color="textSecondary">
          {kind.note ? t('Seen and accepted: {note}', { note: kind.note }) : t('Seen and accepted.')}
        </Typography>
        <Button size="small" disabled={pending} onClick={() => onAccept(false, '')}>
          {t('Take back')}
        </Button>
        {failed}
      </Stack>
    );
  return (
    <Stack sx={{ gap: 0.5, mt: 0.5 }}>
      {kind.changed && (
        <Typography variant="body2" color="textSecondary">
          {t('Accepted when it said something else; look at it again.')}
        </Typography>
      )}
      {failed}
      {writing ? (
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}>
          <TextField
            size="small"
            inputRef={focusOnMount}
            label={t('Why it is accepted')}
            value={note}
            onChange={(e) => setNote(e.target.value.slice(0, MOST))}
            onKeyDown={(e) => {
              if (e.key === 'Enter') onAccept(true, note);
              if (e.key === 'Escape') setWriting(false);
            }}
            sx={{ flex: '1 1 240px' }}
          />
          <Button size="small" variant="outlined" disabled={pending} onClick={() => onAccept(true, note)}>
            {t('Accept')}
          </Button>
          <Button size="small" onClick={() => setWriting(false)}>
            {t('Cancel')}
          </Button>
        </Stack>
      ) : (
        <Button
          size="small"
          aria-label={t('Accept what was found: {word}', { word })}
          onClick={() => setWriting(true)}
          sx={{ alignSelf: 'flex-start' }}>
          {t('Seen, accepted …')}
        </Button>
      )}
    </Stack>
  );
}
