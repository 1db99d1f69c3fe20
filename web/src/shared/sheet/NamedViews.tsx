import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useState } from 'react';

import type { NamedView, Project } from '../api';
import { t } from '../texts';
import { type Difference, Elsewhere } from '../ui/Elsewhere';
import { CrossIcon } from '../ui/icons';
import { type Place, useViews } from './useViews';

const small = { p: 0.2 };

const viewParts = (mine: readonly NamedView[], theirs: readonly NamedView[]): Difference[] => {
  const inWords = (views: readonly NamedView[], name: string) => {
    const view = views.find((v) => v.name === name);
    return view ? view.search || t('everything') : t('not kept');
  };
  return [...new Set([...mine, ...theirs].map((v) => v.name))].map((name) => ({
    word: name,
    here: inWords(mine, name),
    there: inWords(theirs, name),
  }));
};

/** Views of a sheet under a name. */
export function NamedViews({ project, place = '' }: { project: Project; place?: Place }) {
  const { views, search, apply, keep, drop, elsewhere } = useViews(project, place);
  const [name, setName] = useState('');
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    const clean = name.trim();
    if (!clean) return;
    keep(clean);
    setName('');
  };
  return (
    <>
      {views.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          {t('None yet. A view holds filters, order and columns under a name.')}
        </Typography>
      )}
      <Stack component="ul" aria-label={t('Views kept')} sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {views.map((view) => (
          <Stack
            component="li"
            key={view.name}
            direction="row"
            sx={{ alignItems: 'center', justifyContent: 'space-between' }}>
            <Button
              aria-current={view.search === search || undefined}
              onClick={() => apply(view)}
              sx={{
                justifyContent: 'flex-start',
                ...(view.search === search && { color: 'secondary.main' }),
              }}>
              {view.name}
            </Button>
            <IconButton
              size="small"
              aria-label={t('Remove the view {name}', { name: view.name })}
              onClick={() => drop(view)}
              sx={small}>
              <CrossIcon sx={{ fontSize: 16 }} />
            </IconButton>
          </Stack>
        ))}
      </Stack>
      {elsewhere && (
        <Elsewhere
          what={t('This list of views')}
          parts={viewParts(elsewhere.mine, elsewhere.theirs)}
          onMine={elsewhere.keepMine}
          onTheirs={elsewhere.takeTheirs}
        />
      )}
      <Stack component="form" direction="row" onSubmit={submit} sx={{ gap: 1, mt: 1 }}>
        <TextField
          label={t('Keep this view as')}
          value={name}
          onChange={(e) => setName(e.target.value.slice(0, 40))}
          sx={{ flex: 1 }}
        />
        <Button type="submit" variant="outlined">
          {t('Keep')}
        </Button>
      </Stack>
    </>
  );
}
