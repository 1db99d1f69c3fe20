import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { type SyntheticEvent, useState } from 'react';

import { type ApiError, asApiError } from '../../shared/api';
import type { useShortlist } from './useShortlist';
import { t } from '../../shared/texts';

const wordsFor = (error: ApiError | null): string | undefined =>
  error?.at('label') ?? error?.at('extension') ?? error?.message;

/** A name or full name of the person's own, typed in. */
export function AddName({ add }: { add: ReturnType<typeof useShortlist>['add'] }) {
  const [typed, setTyped] = useState('');
  const [there, setThere] = useState('');
  const problem = wordsFor(asApiError(add.error));
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    setThere('');
    add.mutate(typed, {
      onSuccess: ({ labels }) => {
        if (!labels.length) setThere(t('{typed} is on the shortlist already.', { typed: typed.trim() }));
        setTyped('');
      },
    });
  };
  return (
    <Stack component="form" direction="row" noValidate onSubmit={submit} sx={{ gap: 1, alignItems: 'flex-start' }}>
      <TextField
        label={t('A name or full name of your own')}
        value={typed}
        error={Boolean(problem)}
        helperText={problem ?? (there || undefined)}
        onChange={(e) => {
          setTyped(e.target.value);
          setThere('');
          if (add.error) add.reset();
        }}
        sx={{ width: 280 }}
      />
      <Button type="submit" variant="outlined" disabled={add.isPending} sx={{ minHeight: 38 }}>
        {t('Add')}
      </Button>
    </Stack>
  );
}
