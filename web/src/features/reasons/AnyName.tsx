import TextField from '@mui/material/TextField';
import { useState } from 'react';

/** Any name can be typed in and looked at, made or not, owned by somebody or not. */
export function AnyName({ onSelect }: { onSelect: (label: string) => void }) {
  const [typed, setTyped] = useState('');
  return (
    <TextField
      fullWidth
      label="Look at any name"
      value={typed}
      onChange={(e) => { setTyped(e.target.value.slice(0, 80)); }}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' || !typed.trim()) return;
        onSelect(typed.trim().toLowerCase());
        setTyped('');
      }}
      slotProps={{ htmlInput: { spellCheck: false, autoCapitalize: 'none' } }}
    />
  );
}
