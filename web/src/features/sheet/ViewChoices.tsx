import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import IconButton from '@mui/material/IconButton';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useState } from 'react';

import type { NamedView, Project } from '../../shared/api';
import { type Difference, Elsewhere } from '../../shared/ui/Elsewhere';
import { CrossIcon, DownIcon, UpIcon } from '../../shared/ui/icons';
import { columnOf } from './columns';
import { useViews } from './useViews';
import { allColumns, DENSITIES, DENSITY_WORDS, type Density, type View } from './useView';
import { t } from '../../shared/texts';

interface Props {
  project: Project;
  extensions: readonly string[];
  view: View;
  onView: (part: Partial<View>) => void;
}

const small = { p: 0.2 };

/** Which columns, in which order, and which of them stay in sight. */
function Columns({ extensions, view, onView }: Omit<Props, 'project'>) {
  const { columns, pinned } = view;
  const rest = allColumns(extensions).filter((id) => !columns.includes(id));
  const move = (from: number, by: number) => {
    const next = [...columns];
    const [id] = next.splice(from, 1);
    if (id) next.splice(from + by, 0, id);
    onView({ columns: next });
  };
  const row = {
    display: 'grid',
    gridTemplateColumns: '1fr auto auto 28px',
    alignItems: 'center',
    minHeight: 28,
  };
  return (
    <Box
      component="ul"
      aria-label={t('Columns')}
      sx={{ m: 0, p: 0, listStyle: 'none', maxHeight: 300, overflowY: 'auto', pr: 1 }}>
      {columns.map((id, i) => {
        const { word } = columnOf(id);
        return (
          <Box component="li" key={id} sx={row}>
            <FormControlLabel
              control={
                <Checkbox
                  size="small"
                  checked
                  sx={small}
                  disabled={columns.length === 1}
                  onChange={() => {
                    onView({
                      columns: columns.filter((c) => c !== id),
                      pinned: pinned.filter((c) => c !== id),
                    });
                  }}
                />
              }
              label={word}
              sx={{ ml: 0, gap: 0.5 }}
            />
            <FormControlLabel
              control={
                <Checkbox
                  size="small"
                  sx={small}
                  checked={pinned.includes(id)}
                  onChange={() => {
                    onView({
                      pinned: pinned.includes(id) ? pinned.filter((c) => c !== id) : [...pinned, id],
                    });
                  }}
                  slotProps={{ input: { 'aria-label': t('Keep {word} in sight', { word }) } }}
                />
              }
              label={
                <Typography variant="caption" color="textSecondary">
                  {t('stays')}
                </Typography>
              }
              sx={{ mr: 1 }}
            />
            <IconButton
              size="small"
              sx={small}
              aria-label={t('{word} further left', { word })}
              disabled={i === 0}
              onClick={() => move(i, -1)}>
              <UpIcon sx={{ fontSize: 17 }} />
            </IconButton>
            <IconButton
              size="small"
              sx={small}
              aria-label={t('{word} further right', { word })}
              disabled={i === columns.length - 1}
              onClick={() => move(i, 1)}>
              <DownIcon sx={{ fontSize: 17 }} />
            </IconButton>
          </Box>
        );
      })}
      {rest.map((id) => (
        <Box component="li" key={id} sx={row}>
          <FormControlLabel
            control={
              <Checkbox
                size="small"
                checked={false}
                sx={small}
                onChange={() => onView({ columns: [...columns, id] })}
              />
            }
            label={columnOf(id).word}
            sx={{ ml: 0, gap: 0.5 }}
          />
        </Box>
      ))}
    </Box>
  );
}

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

function Named({ project }: { project: Project }) {
  const { views, search, apply, keep, drop, elsewhere } = useViews(project);
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

/** Columns, rows, and views under a name. */
export function ViewChoices({ project, extensions, view, onView }: Props) {
  return (
    <Stack sx={{ p: 2, gap: 1.5, width: 320 }}>
      <Typography variant="h3" component="h2">
        {t('Columns')}
      </Typography>
      <Columns extensions={extensions} view={view} onView={onView} />
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between' }}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={view.density}
          aria-label={t('Height of rows')}
          onChange={(_, density: Density | null) => {
            if (density) onView({ density });
          }}>
          {DENSITIES.map((d) => (
            <ToggleButton key={d} value={d} sx={{ py: 0.2, px: 1.2, textTransform: 'none' }}>
              {DENSITY_WORDS[d]}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Button disabled={Object.keys(view.widths).length === 0} onClick={() => onView({ widths: {} })}>
          {t('Usual widths')}
        </Button>
      </Stack>
      <Typography variant="h3" component="h2">
        {t('Views')}
      </Typography>
      <Named project={project} />
    </Stack>
  );
}
