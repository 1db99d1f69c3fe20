import TextField from '@mui/material/TextField';
import { useCallback } from 'react';

import { useLetters } from '../lib/useLetters';

/** Letters typed: held back until the typing rests. */
export function LettersField<F extends string>({
  field,
  label,
  question,
  onAsk,
  words = false,
}: {
  field: F;
  label: string;
  question: { readonly [K in F]?: string };
  onAsk: (part: { [K in F]?: string | undefined }) => void;
  /** Whether there may be blanks. */
  words?: boolean;
}) {
  const look = useCallback(
    (letters: string) => {
      onAsk({ [field]: letters || undefined } as { [K in F]?: string | undefined });
    },
    [field, onAsk],
  );
  const [typed, setTyped] = useLetters(question[field] ?? '', 250, look, words);
  return (
    <TextField
      fullWidth
      size="small"
      label={label}
      value={typed}
      onChange={(e) => setTyped(e.target.value)}
      slotProps={{ htmlInput: { spellCheck: false, autoCapitalize: 'none' } }}
    />
  );
}
