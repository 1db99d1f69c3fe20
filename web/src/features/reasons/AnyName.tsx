import InputAdornment from '@mui/material/InputAdornment';
import TextField from '@mui/material/TextField';
import Box from '@mui/material/Box';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';

import { api, asApiError, keys, unwrap } from '../../shared/api';
import { useDebounced } from '../../shared/lib/useDebounced';
import { StatusMark } from '../../shared/ui/StatusMark';
import { useName } from '../../shared/lib/useName';

interface Props {
  projectId: number;
  extensions: readonly string[];
  onSelect: (label: string) => void;
}

const SHOWN_AT_MOST = 6;
const SETTLES = 120;

/** The statuses of a typed name; each name's own answer, so that an older one never takes its place. */
function Quick({ projectId, label, extensions }: { projectId: number; label: string; extensions: readonly string[] }) {
  const { data, isError } = useQuery({
    queryKey: keys.quick(projectId, label),
    queryFn: ({ signal }) => unwrap(api.POST('/api/projects/{project_id}/quick', { params: { path: { project_id: projectId } }, body: { label, purpose: 'scan' }, signal })),
    staleTime: 60_000,
    retry: false,
  });
  if (isError) return null;
  return (
    <Box component="span" role="status" aria-label={`Statuses of ${label}`} sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1.2 }}>
      {extensions.slice(0, SHOWN_AT_MOST).map((extension) => {
        const cell = data?.find((c) => c.extension === extension);
        return <Box component="span" key={extension} sx={{ display: 'inline-flex', gap: 0.5 }}>.{extension} <StatusMark status={cell ? cell.status : data ? 'unsure' : 'waiting'} likely={cell?.likely ?? false} /></Box>;
      })}
    </Box>
  );
}

/** Any name can be typed in and is graded and looked up at once, made or not. */
export function AnyName({ projectId, extensions, onSelect }: Props) {
  const [typed, setTyped] = useState('');
  const wanted = typed.trim().toLowerCase();
  const settled = useDebounced(wanted, SETTLES);
  const { data, error, isPlaceholderData } = useName(projectId, settled === '' ? null : settled);
  const current = settled === wanted && wanted !== '';
  const problem = current ? asApiError(error) : null;
  const graded = current && !problem && !isPlaceholderData && data;
  return (
    <TextField
      fullWidth
      label="Try any name"
      value={typed}
      error={Boolean(problem)}
      helperText={problem ? (problem.problems[0]?.message ?? problem.message) : graded ? <><Quick projectId={projectId} label={settled} extensions={extensions} />Enter shows why.</> : undefined}
      onChange={(e) => { setTyped(e.target.value.slice(0, 80)); }}
      onKeyDown={(e) => {
        if (e.key === 'Escape') setTyped('');
        if (e.key !== 'Enter' || !wanted) return;
        onSelect(wanted);
        setTyped('');
      }}
      slotProps={{
        formHelperText: { component: 'div' },
        htmlInput: { spellCheck: false, autoCapitalize: 'none' },
        input: { endAdornment: graded ? <InputAdornment position="end"><strong role="status">{data.grade === null ? 'no grade' : Math.round(data.grade)}</strong></InputAdornment> : undefined },
      }}
    />
  );
}
