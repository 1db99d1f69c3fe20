import InputAdornment from '@mui/material/InputAdornment';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { type RefObject, useEffect, useState } from 'react';

import { useDebounced } from '../../shared/lib/useDebounced';
import type { Asked } from './useQuestion';

interface Props {
  asked: Asked;
  onAsk: (part: Partial<Asked>) => void;
  extensions: readonly string[];
  filterRef: RefObject<HTMLInputElement | null>;
}

/** Narrowing the sheet by letters and by where a name is open. */
export function SheetToolbar({ asked, onAsk, extensions, filterRef }: Props) {
  const [typed, setTyped] = useState(asked.text);
  const [known, setKnown] = useState(asked.text);
  if (known !== asked.text) {
    setKnown(asked.text);
    setTyped(asked.text);
  }
  const settled = useDebounced(typed, 200);
  useEffect(() => {
    if (settled === typed && settled !== asked.text) onAsk({ text: settled });
  }, [settled, typed, asked.text, onAsk]);
  return (
    <Stack direction="row" sx={{ gap: 1 }}>
      <TextField
        inputRef={filterRef}
        label="Letters in the name"
        value={typed}
        onChange={(e) => { setTyped(e.target.value.replace(/\s/g, '').slice(0, 63)); }}
        onKeyDown={(e) => { if (e.key === 'Escape') setTyped(''); }}
        sx={{ width: 178 }}
        slotProps={{ input: { endAdornment: typed ? undefined : <InputAdornment position="end"><kbd>/</kbd></InputAdornment> } }}
      />
      <TextField select label="Open in" value={asked.open_in} onChange={(e) => { onAsk({ open_in: e.target.value }); }} sx={{ width: 128 }} slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}>
        <MenuItem value="">no matter</MenuItem>
        <MenuItem value="any">any of mine</MenuItem>
        {extensions.map((e) => <MenuItem key={e} value={e}>.{e}</MenuItem>)}
      </TextField>
    </Stack>
  );
}
