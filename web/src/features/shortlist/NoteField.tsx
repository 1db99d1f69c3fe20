import TextField from '@mui/material/TextField';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';

import { api, asApiError, type Kept, keys, unwrap } from '../../shared/api';

const SAVE_AFTER = 600;

interface Props {
  projectId: number;
  kept: Kept;
}

/** A note, saved while one writes; what could not be saved stays in the field and says so. */
export function NoteField({ projectId, kept }: Props) {
  const client = useQueryClient();
  const [text, setText] = useState(kept.note);
  const { mutate, isPending, error, isSuccess } = useMutation({
    scope: { id: `note-${projectId}-${kept.label}` },
    mutationFn: (note: string) => unwrap(api.PATCH('/api/projects/{project_id}/shortlist/names/{label}', { params: { path: { project_id: projectId, label: kept.label } }, body: { note } })),
    onSuccess: ({ note }) => {
      client.setQueryData<Kept[]>(keys.shortlist(projectId), (list) => list?.map((k) => (k.label === kept.label ? { ...k, note } : k)));
    },
  });
  const unsaved = useRef<string | null>(null);
  const save = () => {
    if (unsaved.current === null) return;
    mutate(unsaved.current);
    unsaved.current = null;
  };
  useEffect(() => {
    if (unsaved.current === null) return;
    const timer = setTimeout(save, SAVE_AFTER);
    return () => { clearTimeout(timer); };
  });
  // Leaving the page within the pause must not lose the last words.
  const latest = useRef(save);
  useEffect(() => { latest.current = save; });
  useEffect(() => () => { latest.current(); }, []);
  const failed = asApiError(error);
  const state = failed ? (failed.at('note') ?? failed.message) : isPending ? 'saving…' : isSuccess ? 'saved' : ' ';
  return (
    <TextField
      fullWidth
      multiline
      maxRows={4}
      variant="standard"
      placeholder="Why it is here, or what speaks against it"
      value={text}
      onChange={(e) => {
        setText(e.target.value);
        unsaved.current = e.target.value;
      }}
      onBlur={save}
      error={Boolean(failed)}
      helperText={state}
      slotProps={{ htmlInput: { 'aria-label': `Note on ${kept.shown}` }, formHelperText: { role: failed ? 'alert' : undefined, sx: { minHeight: 16, mt: 0 } } }}
    />
  );
}
