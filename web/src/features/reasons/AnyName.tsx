import InputAdornment from '@mui/material/InputAdornment';
import TextField from '@mui/material/TextField';
import Box from '@mui/material/Box';
import { useState } from 'react';

import { asApiError } from '../../shared/api';
import { useDebounced } from '../../shared/lib/useDebounced';
import { StatusMark } from '../../shared/ui/StatusMark';
import { useAskTypedName, useTypedName } from '../../shared/lib/useName';
import { useQuick } from './useAround';
import { t } from '../../shared/texts';

interface Props {
  projectId: number;
  extensions: readonly string[];
  onSelect: (label: string) => void;
}

const SHOWN_AT_MOST = 6;
const SETTLES = 120;

/** The statuses of a typed name. */
function Quick({ projectId, label, extensions }: { projectId: number; label: string; extensions: readonly string[] }) {
  const { data, isError } = useQuick(projectId, label);
  if (isError) return null;
  return (
    <Box
      component="span"
      role="status"
      aria-label={t('Statuses of {label}', { label })}
      sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1.2 }}>
      {extensions.slice(0, SHOWN_AT_MOST).map((extension) => {
        const cell = data?.find((c) => c.extension === extension);
        return (
          <Box component="span" key={extension} sx={{ display: 'inline-flex', gap: 0.5 }}>
            .{extension}{' '}
            <StatusMark status={cell ? cell.status : data ? 'unsure' : 'waiting'} likely={cell?.likely ?? false} />
          </Box>
        );
      })}
    </Box>
  );
}

/** Any name or full name can be typed in and is graded and looked up at once, made or not. What will not do says why, and stays as it was typed. */
export function AnyName({ projectId, extensions, onSelect }: Props) {
  const [typed, setTyped] = useState('');
  const ask = useAskTypedName(projectId);
  const wanted = typed.trim().toLowerCase();
  const settled = useDebounced(wanted, SETTLES);
  const { data, error } = useTypedName(projectId, settled === '' ? null : settled);
  const current = settled === wanted && wanted !== '';
  const problem = current ? asApiError(error) : null;
  const graded = current && !problem ? data : undefined;
  // Enter may come before the answer: the name is chosen once it is known to be one.
  const choose = async () => {
    const name = await ask(wanted);
    if (!name) return;
    onSelect(name.label);
    setTyped((now) => (now.trim().toLowerCase() === wanted ? '' : now));
  };
  const shown = graded
    ? [...new Set([...(graded.typed_extension ? [graded.typed_extension] : []), ...extensions])]
    : extensions;
  return (
    <TextField
      fullWidth
      label={t('Try any name')}
      value={typed}
      error={Boolean(problem)}
      helperText={
        problem ? (
          (problem.problems[0]?.message ?? problem.message)
        ) : graded ? (
          <>
            <Quick
              projectId={projectId}
              label={graded.typed_extension ? `${graded.label}.${graded.typed_extension}` : graded.label}
              extensions={shown}
            />
            {t('Enter shows why.')}
          </>
        ) : undefined
      }
      onChange={(e) => setTyped(e.target.value)}
      onKeyDown={(e) => {
        if (e.key === 'Escape') setTyped('');
        if (e.key === 'Enter' && wanted) void choose();
      }}
      slotProps={{
        formHelperText: { component: 'div', role: problem ? 'alert' : undefined },
        htmlInput: { spellCheck: false, autoCapitalize: 'none', maxLength: 250 },
        input: {
          endAdornment: graded ? (
            <InputAdornment position="end">
              <strong role="status">{graded.grade === null ? t('no grade') : Math.round(graded.grade)}</strong>
            </InputAdornment>
          ) : undefined,
        },
      }}
    />
  );
}
