import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useState } from 'react';

import { asApiError, type KeptWorld, type World, type WorldEntry } from '../../shared/api';
import { type Chosen, entriesNow, OWN, useKeptWorlds, withDropped, withKept, withOwn, withWeight } from './useWorld';
import { t } from '../../shared/texts';

const FIRST = 24;
const NEXT: Record<number, number> = { 1: 3, 3: 5, 5: 1 };
const WEIGHS: Record<number, string> = { 1: t('weighs little'), 3: t('weighs as usual'), 5: t('weighs much') };

interface EntryProps {
  entry: WorldEntry;
  onWeigh: () => void;
  onDrop: () => void;
}

function EntryChip({ entry, onWeigh, onDrop }: EntryProps) {
  const inWords = [
    entry.text,
    entry.dropped ? t('dropped') : (WEIGHS[entry.weight] ?? ''),
    ...(entry.field ? [t('from {field}', { field: entry.field })] : []),
  ].join(', ');
  if (entry.dropped)
    return (
      <Chip
        size="small"
        label={entry.text}
        aria-label={t('Take {entry} back', { entry: entry.text })}
        onClick={onDrop}
        sx={{ textDecoration: 'line-through', opacity: 0.7 }}
      />
    );
  return (
    <Chip
      size="small"
      className="serif"
      label={entry.weight === 1 ? `${entry.text} ↓` : entry.weight > 3 ? `${entry.text} ↑` : entry.text}
      aria-label={inWords}
      title={inWords}
      color={entry.weight > 3 ? 'secondary' : 'default'}
      variant={entry.weight > 3 ? 'filled' : 'outlined'}
      onClick={onWeigh}
      onDelete={onDrop}
      sx={{ opacity: entry.weight === 1 ? 0.6 : 1, borderStyle: entry.field === OWN ? 'dashed' : 'solid' }}
    />
  );
}

interface FacetProps {
  name: string;
  word: string;
  entries: readonly WorldEntry[];
  chosen: Chosen;
  onChange: (chosen: Chosen) => void;
}

function Facet({ name, word, entries, chosen, onChange }: FacetProps) {
  const [all, setAll] = useState(false);
  const [typed, setTyped] = useState('');
  const add = (event: SyntheticEvent) => {
    event.preventDefault();
    if (typed.trim()) onChange(withOwn(chosen, name, typed));
    setTyped('');
  };
  return (
    <Box component="section" aria-label={word}>
      <Stack direction="row" component="form" onSubmit={add} sx={{ alignItems: 'center', gap: 1, mb: 0.6 }}>
        <Typography variant="h3" sx={{ flex: 1 }}>
          {word}
        </Typography>
        <TextField
          size="small"
          placeholder={t('your own')}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          slotProps={{ htmlInput: { 'aria-label': t('Add to {word}', { word }), maxLength: 300 } }}
          sx={{ width: { xs: 110, sm: 170 }, '& input': { py: 0.5 } }}
        />
        <Button type="submit" size="small" disabled={!typed.trim()}>
          {t('Add')}
        </Button>
      </Stack>
      <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 0.6 }}>
        {(all ? entries : entries.slice(0, FIRST)).map((entry) => (
          <EntryChip
            key={entry.text}
            entry={entry}
            onWeigh={() => onChange(withWeight(chosen, entry.text, NEXT[entry.weight] ?? 3))}
            onDrop={() => onChange(withDropped(chosen, name, entry.text, entry.field === OWN))}
          />
        ))}
        {entries.length > FIRST && (
          <Chip
            size="small"
            variant="outlined"
            label={all ? t('fewer') : t('{entries} more', { entries: String(entries.length - FIRST) })}
            onClick={() => setAll(!all)}
          />
        )}
        {entries.length === 0 && (
          <Typography variant="body2" color="textSecondary">
            {t('Nothing yet.')}
          </Typography>
        )}
      </Stack>
    </Box>
  );
}

function Kept({ chosen, onChange }: { chosen: Chosen; onChange: (chosen: Chosen) => void }) {
  const { kept, keep, forget } = useKeptWorlds();
  const [title, setTitle] = useState('');
  const [forgotten, setForgotten] = useState<KeptWorld | null>(null);
  const own = Object.values(chosen.own).reduce((sum, entries) => sum + entries.length, 0);
  const error = asApiError(keep.error ?? forget.error);
  const forgetOne = (world: KeptWorld) => {
    forget.mutate(world.id, {
      onSuccess: () => {
        setForgotten(world);
      },
    });
  };
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    keep.mutate(
      { title, entries: chosen.own },
      {
        onSuccess: () => {
          setTitle('');
        },
      },
    );
  };
  return (
    <Box component="section" aria-label={t('Worlds of your own')}>
      <Typography variant="h3" sx={{ mb: 0.6 }}>
        {t('Worlds of your own')}
      </Typography>
      {error && <Alert severity="error">{error.problems.map((p) => p.message).join(' ') || error.message}</Alert>}
      <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 0.6, mb: 1 }}>
        {kept.data?.map((world) => (
          <Chip
            key={world.id}
            size="small"
            label={world.title}
            title={t('Put its words in here; the cross forgets it')}
            onClick={() => onChange(withKept(chosen, world.entries))}
            onDelete={() => forgetOne(world)}
          />
        ))}
        {kept.data?.length === 0 && (
          <Typography variant="body2" color="textSecondary">
            {t('What you keep under a title is here in your next project.')}
          </Typography>
        )}
      </Stack>
      {forgotten && (
        <Alert
          severity="info"
          sx={{ mb: 1 }}
          action={
            <Button
              size="small"
              color="inherit"
              onClick={() => {
                keep.mutate(forgotten);
                setForgotten(null);
              }}>
              {t('Undo')}
            </Button>
          }>
          {t('The world {title} was forgotten.', { title: forgotten.title })}
        </Alert>
      )}
      <Stack direction="row" component="form" onSubmit={submit} sx={{ gap: 1, alignItems: 'center' }}>
        <TextField
          size="small"
          label={t('Keep your own words as')}
          value={title}
          disabled={own === 0}
          onChange={(e) => setTitle(e.target.value)}
        />
        <Button type="submit" size="small" disabled={!title.trim() || keep.isPending}>
          {t('Keep {own, plural, one {# word} other {# words}}', { own })}
        </Button>
      </Stack>
    </Box>
  );
}

interface Props {
  world: World;
  chosen: Chosen;
  onChange: (chosen: Chosen) => void;
  onClose: () => void;
}

/** The words of the brief's world by facet: each weighed, dropped, or added. */
export function WorldDialog({ world, chosen, onChange, onClose }: Props) {
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="world-title">
      <DialogTitle id="world-title" variant="h2" component="h2">
        {t('The words of your world')}
      </DialogTitle>
      <DialogContent>
        <Typography variant="body2" color="textSecondary" sx={{ mb: 2 }}>
          {t(
            'Press a word to have it weigh more, then little, then as usual; its cross drops it. Names follow as you go.',
          )}
        </Typography>
        <Stack sx={{ gap: 2.2 }}>
          {world.facets.map((facet) => (
            <Facet
              key={facet.name}
              name={facet.name}
              word={facet.word}
              entries={entriesNow(facet, chosen)}
              chosen={chosen}
              onChange={onChange}
            />
          ))}
          <Kept chosen={chosen} onChange={onChange} />
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t('Done')}</Button>
      </DialogActions>
    </Dialog>
  );
}
