import Box from '@mui/material/Box';
import Chip from '@mui/material/Chip';
import Slider from '@mui/material/Slider';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import type { ApiError, Making } from '../../shared/api';
import { concepts } from '../../shared/lib/concepts';
import { t } from '../../shared/texts';

interface Props {
  making: Making;
  considered: number;
  onChange: (making: Making) => void;
  error: ApiError | null;
}

/** Which recipes make names, how far they may go, and how long an added word may be. */
export function RecipeFields({ making, considered, onChange, error }: Props) {
  const { recipes } = concepts();
  const off = new Set(making.off);
  const [dial, setDial] = useState<number | null>(null);
  // What is typed; null while nobody types: then the field shows the brief, as it is or was undone to.
  const [typed, setTyped] = useState<string | null>(null);
  const inBrief = making.shapes.join(' ');
  const problem = error?.at('brief.making.shapes', true);
  const saveShapes = () => {
    if (typed === null) return;
    const shapes = typed
      .toUpperCase()
      .split(/[\s,]+/)
      .filter(Boolean);
    setTyped(null);
    if (shapes.join(' ') !== inBrief) onChange({ ...making, shapes });
  };
  return (
    <Stack sx={{ gap: 1.2 }}>
      <Typography variant="caption" color="textSecondary">
        {off.size === recipes.length
          ? t('All recipes are off: switch one on to get names.')
          : t('{considered, number} names weighed for this brief', { considered })}
      </Typography>
      <Stack direction="row" role="group" aria-label={t('Recipes')} sx={{ flexWrap: 'wrap', gap: 0.5 }}>
        {recipes.map(({ name, summary }) => {
          const on = !off.has(name);
          return (
            <Tooltip key={name} title={summary} describeChild>
              <Chip
                size="small"
                label={name}
                variant={on ? 'filled' : 'outlined'}
                color={on ? 'secondary' : 'default'}
                role="switch"
                aria-checked={on}
                onClick={() => {
                  onChange({
                    ...making,
                    off: on ? [...making.off, name] : making.off.filter((n) => n !== name),
                  });
                }}
                sx={on ? undefined : { textDecoration: 'line-through', color: 'text.secondary' }}
              />
            </Tooltip>
          );
        })}
      </Stack>
      <Box
        title={t(
          'Which recipes come first. Brand-like names begin further towards daring, descriptive ones towards plain.',
        )}>
        <Stack direction="row" sx={{ justifyContent: 'space-between' }}>
          <Typography variant="caption" color="textSecondary">
            {t('plain')}
          </Typography>
          <Typography variant="caption" color="textSecondary">
            {t('daring')}
          </Typography>
        </Stack>
        <Slider
          size="small"
          color="secondary"
          aria-label={t('Plain to daring')}
          value={dial ?? making.daring}
          min={0}
          max={100}
          step={5}
          valueLabelDisplay="auto"
          onChange={(_, value) => setDial(value)}
          onChangeCommitted={(_, value) => {
            setDial(null);
            onChange({ ...making, daring: value });
          }}
          sx={{ py: 0.8 }}
        />
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1.5fr', gap: 1 }}>
        <TextField
          select
          label={t('Added letters')}
          value={making.added_max}
          onChange={(e) => onChange({ ...making, added_max: Number(e.target.value) })}
          slotProps={{ select: { native: true } }}>
          {Array.from({ length: 12 }, (_, i) => i + 1).map((n) => (
            <option key={n} value={n}>
              {t('to {n}', { n })}
            </option>
          ))}
        </TextField>
        <TextField
          label={t('Shapes')}
          placeholder={t('CVCV')}
          value={typed ?? inBrief}
          onChange={(e) => setTyped(e.target.value)}
          onBlur={saveShapes}
          onKeyDown={(e) => {
            if (e.key === 'Enter') saveShapes();
          }}
          error={Boolean(problem)}
          helperText={problem}
          title={t('Shapes of invented words: C a consonant, V a vowel')}
        />
      </Box>
    </Stack>
  );
}
