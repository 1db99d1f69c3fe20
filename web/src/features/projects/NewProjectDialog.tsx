import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { type SyntheticEvent, useState } from 'react';

import { asApiError, type Project } from '../../shared/api';
import { focusOnMount } from '../../shared/lib/focusOnMount';
import { useProjects } from './useProjects';
import { t } from '../../shared/texts';

interface Props {
  open: boolean;
  onClose: () => void;
  onCreated: (project: Project) => void;
}

const TITLE = 40;

/** The sentence's first words, for who gives no title. */
function titleOf(about: string): string {
  const words = about.trim().replace(/[.!?]+$/, '');
  return words.length <= TITLE ? words : `${words.slice(0, TITLE).replace(/\s+\S*$/, '')} …`;
}

/** Asks for a sentence, a name and a few words; everything else is set at the bench. */
export function NewProjectDialog({ open, onClose, onCreated }: Props) {
  const { create } = useProjects();
  const [name, setName] = useState('');
  const [about, setAbout] = useState('');
  const [words, setWords] = useState('');
  const error = asApiError(create.error);
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    const keywords = words
      .split(/[,\n]/)
      .map((w) => w.trim())
      .filter(Boolean);
    create.mutate({ name: name.trim() || titleOf(about), about, keywords }, { onSuccess: onCreated });
  };
  const wordsError = error?.at('brief.keywords', true);
  const other =
    error?.problems.filter(
      (p) => p.path !== 'name' && p.path !== 'brief.about' && !p.path.startsWith('brief.keywords'),
    ) ?? [];
  return (
    <Dialog
      open={open}
      onClose={onClose}
      fullWidth
      maxWidth="sm"
      slotProps={{ paper: { component: 'form', onSubmit: submit, noValidate: true } as object }}>
      <DialogTitle>{t('New project')}</DialogTitle>
      <DialogContent>
        <Stack sx={{ gap: 2, pt: 1 }}>
          {error && (error.problems.length === 0 || other.length > 0) && (
            <Alert severity="error">{other.length ? other.map((p) => p.message).join(' ') : error.message}</Alert>
          )}
          <TextField
            label={t('What is it, and for whom? (one sentence)')}
            value={about}
            inputRef={focusOnMount}
            multiline
            minRows={2}
            onChange={(e) => setAbout(e.target.value)}
            error={Boolean(error?.at('brief.about'))}
            helperText={
              error?.at('brief.about') ??
              t(
                'Names are taken from the world this sentence speaks of: “A monthly letterpress club for people who still write letters.” You may leave it out.',
              )
            }
          />
          <TextField
            label={t('Working title')}
            value={name}
            onChange={(e) => setName(e.target.value)}
            error={Boolean(error?.at('name'))}
            helperText={
              error?.at('name') ?? t('Only to find the project again; the sentence’s first words do as well.')
            }
          />
          <TextField
            label={t('Words')}
            value={words}
            multiline
            minRows={2}
            onChange={(e) => setWords(e.target.value)}
            error={Boolean(wordsError)}
            helperText={
              wordsError ?? t('A few words or short phrases, with commas between. You can change them later.')
            }
          />
        </Stack>
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        <Button onClick={onClose}>{t('Cancel')}</Button>
        <Button type="submit" variant="contained" disabled={create.isPending}>
          {create.isPending ? t('Making names…') : t('Make names')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
