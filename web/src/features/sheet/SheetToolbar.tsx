import Badge from '@mui/material/Badge';
import Button from '@mui/material/Button';
import InputAdornment from '@mui/material/InputAdornment';
import Popover from '@mui/material/Popover';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { type ReactNode, type RefObject, useCallback, useState } from 'react';

import { Key } from '../../shared/ui/Key';
import type { Project } from '../../shared/api';
import type { SheetQuestion, Change } from '../../shared/lib/question';
import { useLetters } from '../../shared/lib/useLetters';
import { activeFilters } from './activeFilters';
import type { View } from '../../shared/sheet/useView';
import { figureColumns, statusColumns } from './useView';
import { ViewMenu } from './ViewMenu';
import { t } from '../../shared/texts';

interface Props {
  project: Project;
  question: SheetQuestion;
  onAsk: (part: Change) => void;
  extensions: readonly string[];
  filterRef: RefObject<HTMLInputElement | null>;
  view: View;
  onView: (part: Partial<View>) => void;
  filtering: boolean;
  onFiltering: (on: boolean) => void;
  /** There is little room: what is not needed all the time, `children` too, goes into a menu. */
  compact?: boolean;
  children?: ReactNode;
}

const SETS = [
  { value: 'statuses', word: t('Open?'), help: t('Statuses by extension beside the names') },
  { value: 'measures', word: t('Figures'), help: t('Every measure beside the names') },
  { value: 'plot', word: t('Dots'), help: t('The names as dots in a plot') },
] as const;

/** Letters to look for, filters, and what stands beside the names. */
export function SheetToolbar({
  project,
  question,
  onAsk,
  extensions,
  filterRef,
  view,
  onView,
  filtering,
  onFiltering,
  compact = false,
  children,
}: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const look = useCallback(
    (letters: string) => {
      onAsk({ text: letters || undefined });
    },
    [onAsk],
  );
  const [typed, setTyped] = useLetters(question.text ?? '', 40, look);
  const shown = view.plot
    ? 'plot'
    : view.columns.join() === figureColumns().join()
      ? 'measures'
      : view.columns.join() === statusColumns(extensions).join()
        ? 'statuses'
        : null;
  const show = (set: (typeof SETS)[number]['value'] | null) => {
    if (set === 'plot') onView({ plot: true });
    else if (set)
      onView({
        plot: false,
        pinned: [],
        columns: set === 'measures' ? figureColumns() : statusColumns(extensions),
      });
    else if (view.plot) onView({ plot: false });
  };
  const looks = (
    <>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={shown}
        aria-label={t('Beside the names')}
        onChange={(_, next: (typeof SETS)[number]['value'] | null) => {
          show(next);
        }}>
        {SETS.map(({ value, word, help }) => (
          <ToggleButton key={value} value={value} title={help} sx={{ px: 0.8, textTransform: 'none' }}>
            {word}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <ViewMenu project={project} extensions={extensions} view={view} onView={onView} />
    </>
  );
  return (
    <Stack direction="row" sx={{ gap: 0.8, alignItems: 'center', ...(compact && { flex: '1 1 240px' }) }}>
      <TextField
        inputRef={filterRef}
        label={t('Has letters')}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Escape') setTyped('');
        }}
        sx={{ width: compact ? 'auto' : 118, flex: compact ? 1 : 'none', minWidth: 90 }}
        slotProps={{
          input: {
            endAdornment: typed ? undefined : (
              <InputAdornment position="end">
                <Key place="bench" of="find" />
              </InputAdornment>
            ),
          },
        }}
      />
      <Badge badgeContent={activeFilters(question).length} color="secondary">
        <Button
          variant={filtering ? 'contained' : 'outlined'}
          color={filtering ? 'secondary' : 'primary'}
          aria-pressed={filtering}
          title={t('All filters, in place of the words (key f)')}
          onClick={() => onFiltering(!filtering)}
          sx={{ minWidth: 0 }}>
          {t('Filters')}
        </Button>
      </Badge>
      {compact ? (
        <>
          <Button
            variant="outlined"
            aria-haspopup="dialog"
            aria-expanded={anchor !== null}
            onClick={(e) => setAnchor(e.currentTarget)}
            sx={{ flex: 'none', minWidth: 0 }}>
            {t('More')}
          </Button>
          <Popover
            disablePortal
            open={anchor !== null}
            anchorEl={anchor}
            onClose={() => setAnchor(null)}
            anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
            transformOrigin={{ vertical: 'top', horizontal: 'right' }}
            slotProps={{
              paper: {
                role: 'dialog',
                'aria-label': t('More of the sheet'),
                sx: { p: 1.5, maxWidth: 'calc(100vw - 24px)' },
              } as object,
            }}>
            <Stack sx={{ gap: 1.5, alignItems: 'flex-start' }}>
              <Stack direction="row" sx={{ gap: 0.8 }}>
                {looks}
              </Stack>
              {children}
            </Stack>
          </Popover>
        </>
      ) : (
        looks
      )}
    </Stack>
  );
}
