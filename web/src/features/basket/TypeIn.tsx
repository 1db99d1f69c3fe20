import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { type SyntheticEvent, useState } from 'react';

import { asApiError } from '../../shared/api';
import { useBasketActs } from '../../shared/basket/useBasket';
import { useProjectNames } from '../../shared/lib/useProjectNames';
import { t } from '../../shared/texts';

/** Full names put in as they are typed, for one of the projects. */
export function TypeIn() {
  const projects = useProjectNames();
  const { add } = useBasketActs();
  const [chosen, setChosen] = useState<number | null>(null);
  const [text, setText] = useState('');
  const project = chosen ?? projects.data?.[0]?.id;
  const failed = asApiError(add.error);
  if (project === undefined) return null;
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    const names = text.split(/[\s,;]+/).filter(Boolean);
    if (names.length) add.mutate({ project, names }, { onSuccess: () => setText('') });
  };
  return (
    <Stack
      component="form"
      noValidate
      direction="row"
      onSubmit={submit}
      sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'flex-start', mt: 1.5, displayPrint: 'none' }}>
      <TextField
        label={t('Put in full names')}
        value={text}
        onChange={(e) => setText(e.target.value)}
        error={Boolean(failed)}
        helperText={failed?.at('names', true) ?? failed?.message}
        sx={{ width: 260 }}
      />
      <TextField
        select
        label={t('For the project')}
        value={project}
        onChange={(e) => setChosen(Number(e.target.value))}
        sx={{ minWidth: 150 }}>
        {projects.data?.map((one) => (
          <MenuItem key={one.id} value={one.id}>
            {one.name}
          </MenuItem>
        ))}
      </TextField>
      <Button type="submit" variant="outlined" disabled={add.isPending || !text.trim()}>
        {t('Put in')}
      </Button>
    </Stack>
  );
}
