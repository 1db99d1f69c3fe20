import InputAdornment from '@mui/material/InputAdornment';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { type RefObject, useEffect, useState } from 'react';

import { useDebounced } from '../../shared/lib/useDebounced';
import type { Asked, Shown } from './useQuestion';

interface Props {
  asked: Asked;
  onAsk: (part: Partial<Asked>) => void;
  extensions: readonly string[];
  filterRef: RefObject<HTMLInputElement | null>;
  shown: Shown;
  onShow: (shown: Shown) => void;
}

const VIEWS: readonly { value: Shown; word: string; help: string }[] = [
  { value: 'statuses', word: 'Open?', help: 'Statuses by extension beside the names' },
  { value: 'measures', word: 'Figures', help: 'Every measure beside the names' },
  { value: 'plot', word: 'Dots', help: 'The names as dots in a plot' },
];

/** Narrowing the sheet by letters and by where a name is open. */
export function SheetToolbar({ asked, onAsk, extensions, filterRef, shown, onShow }: Props) {
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
        label="Has letters"
        value={typed}
        onChange={(e) => { setTyped(e.target.value.replace(/\s/g, '').slice(0, 63)); }}
        onKeyDown={(e) => { if (e.key === 'Escape') setTyped(''); }}
        sx={{ width: 136 }}
        slotProps={{ input: { endAdornment: typed ? undefined : <InputAdornment position="end"><kbd>/</kbd></InputAdornment> } }}
      />
      <TextField select label="Open in" value={asked.open_in} onChange={(e) => { onAsk({ open_in: e.target.value }); }} sx={{ width: 112 }} slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}>
        <MenuItem value="">no matter</MenuItem>
        <MenuItem value="any">any of mine</MenuItem>
        {extensions.map((e) => <MenuItem key={e} value={e}>.{e}</MenuItem>)}
      </TextField>
      <ToggleButtonGroup exclusive size="small" value={shown} aria-label="Beside the names" onChange={(_, next: Shown | null) => { if (next) onShow(next); }}>
        {VIEWS.map(({ value, word, help }) => <ToggleButton key={value} value={value} title={help} sx={{ px: 0.9, textTransform: 'none' }}>{word}</ToggleButton>)}
      </ToggleButtonGroup>
    </Stack>
  );
}
