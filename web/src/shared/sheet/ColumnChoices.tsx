import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import IconButton from '@mui/material/IconButton';
import Stack from '@mui/material/Stack';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';

import { DownIcon, UpIcon } from '../ui/icons';
import { t } from '../texts';
import { DENSITIES, DENSITY_WORDS, type Density, type View } from './useView';

interface Props {
  view: View;
  onView: (part: Partial<View>) => void;
}

const small = { p: 0.2 };

/** Which columns, in which order, and which of them stay in sight. */
export function ColumnChoices({
  all,
  columnOf,
  view,
  onView,
}: Props & { all: readonly string[]; columnOf: (id: string) => { word: string } }) {
  const { columns, pinned } = view;
  const rest = all.filter((id) => !columns.includes(id));
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

/** How high the rows are, and the usual widths again. */
export function RowChoices({ view, onView }: Props) {
  return (
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
  );
}
