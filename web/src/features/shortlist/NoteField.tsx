import TextField from '@mui/material/TextField';
import { useEffect, useRef, useState } from 'react';

import { asApiError, elsewhereOf } from '../../shared/api';
import { useBackAgain } from '../../shared/lib/useBackAgain';
import { Elsewhere } from '../../shared/ui/Elsewhere';
import { useNote } from './useRemarks';
import { t } from '../../shared/texts';

const SAVE_AFTER = 600;
const TRY_AGAIN_AFTER = 5_000;

interface Props {
  projectId: number;
  label: string;
  shown: string;
  note: string;
}

/** A note, saved while one writes; what could not be saved stays in the field and says so. Another note written elsewhere meanwhile is never written over unasked. */
export function NoteField({ projectId, label, shown, note }: Props) {
  const [text, setText] = useState(note);
  const unsaved = useRef<string | null>(null);
  // The note the text was written over.
  const base = useRef(note);
  const [known, setKnown] = useState(note);
  // What did not arrive is tried again; what was refused waits for the person.
  const { mutate, isPending, error, isSuccess, reset } = useNote({ projectId, label }, base, (why, written) => {
    if (asApiError(why)?.status !== 400 && asApiError(why)?.status !== 409) unsaved.current ??= written;
  });
  const failed = asApiError(error);
  const conflict = elsewhereOf<{ note: string }>(error)?.note ?? null;
  // A note that came from elsewhere takes the place of one that nobody is writing here.
  if (known !== note) {
    setKnown(note);
    if (text === known) setText(note);
  }
  useEffect(() => {
    if (unsaved.current === null && conflict === null) base.current = note;
  }, [note, conflict]);
  const save = () => {
    if (unsaved.current === null || conflict !== null) return;
    mutate({ written: unsaved.current });
    unsaved.current = null;
  };
  useEffect(() => {
    if (unsaved.current === null) return;
    const timer = setTimeout(save, failed ? TRY_AGAIN_AFTER : SAVE_AFTER);
    return () => {
      clearTimeout(timer);
    };
  });
  useBackAgain(save);
  // Leaving the page within the pause must not lose the last words.
  const latest = useRef(save);
  useEffect(() => {
    latest.current = save;
  });
  useEffect(
    () => () => {
      latest.current();
    },
    [],
  );
  const state =
    conflict !== null
      ? ' '
      : failed
        ? (failed.at('note') ?? failed.message)
        : isPending
          ? t('saving…')
          : isSuccess
            ? t('saved')
            : ' ';
  const settle = (written: string) => {
    base.current = conflict ?? '';
    unsaved.current = null;
    setText(written);
    mutate({ written, over: conflict ?? '' });
  };
  return (
    <>
      <TextField
        fullWidth
        multiline
        maxRows={4}
        variant="standard"
        placeholder={t('Why it is here, or what speaks against it')}
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          unsaved.current = e.target.value;
          if (failed && conflict === null) reset();
        }}
        onBlur={save}
        error={Boolean(failed)}
        helperText={state}
        slotProps={{
          htmlInput: { 'aria-label': t('Note on {shown}', { shown }) },
          formHelperText: { role: failed ? 'alert' : undefined, sx: { minHeight: 16, mt: 0 } },
        }}
      />
      {conflict !== null && (
        <Elsewhere
          what={t('This note')}
          parts={[{ word: t('Note'), here: text || 'none', there: conflict || 'none' }]}
          onMine={() => settle(text)}
          onTheirs={() => settle(conflict)}
        />
      )}
    </>
  );
}
