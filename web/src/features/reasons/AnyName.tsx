import InputAdornment from '@mui/material/InputAdornment';
import TextField from '@mui/material/TextField';
import { useState } from 'react';

import { asApiError } from '../../shared/api';
import { useDebounced } from '../../shared/lib/useDebounced';
import { useName } from './useName';

interface Props {
  projectId: number;
  onSelect: (label: string) => void;
}

/** Any name can be typed in and is graded at once, made or not, owned by somebody or not. */
export function AnyName({ projectId, onSelect }: Props) {
  const [typed, setTyped] = useState('');
  const wanted = typed.trim().toLowerCase();
  const settled = useDebounced(wanted, 200);
  const { data, error, isPlaceholderData } = useName(projectId, settled === '' ? null : settled);
  const current = settled === wanted && wanted !== '';
  const problem = current ? asApiError(error) : null;
  const graded = current && !problem && !isPlaceholderData && data;
  return (
    <TextField
      fullWidth
      label="Grade any name"
      value={typed}
      error={Boolean(problem)}
      helperText={problem ? (problem.problems[0]?.message ?? problem.message) : graded ? 'Enter shows why.' : undefined}
      onChange={(e) => { setTyped(e.target.value.slice(0, 80)); }}
      onKeyDown={(e) => {
        if (e.key === 'Escape') setTyped('');
        if (e.key !== 'Enter' || !wanted) return;
        onSelect(wanted);
        setTyped('');
      }}
      slotProps={{
        htmlInput: { spellCheck: false, autoCapitalize: 'none' },
        input: { endAdornment: graded ? <InputAdornment position="end"><strong role="status">{data.grade === null ? 'no grade' : Math.round(data.grade)}</strong></InputAdornment> : undefined },
      }}
    />
  );
}
