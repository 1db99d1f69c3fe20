import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Stack from '@mui/material/Stack';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { type KeyboardEvent, useEffect, useRef } from 'react';

import type { Kept } from '../../shared/api';
import { Age } from '../../shared/ui/Age';
import { GradeFigure } from '../../shared/ui/GradeFigure';
import { CrossIcon, DownIcon, UpIcon } from '../../shared/ui/icons';
import { SeamedName } from '../../shared/ui/SeamedName';
import { shownStatus } from '../../shared/ui/status';
import { StatusMark } from '../../shared/ui/StatusMark';
import { NoteField } from './NoteField';

interface Props {
  projectId: number;
  kept: Kept;
  place: number;
  last: boolean;
  extensions: readonly string[];
  onMove: (by: number) => void;
  onRemove: () => void;
}

function Places({ kept, place, last, onMove }: Pick<Props, 'kept' | 'place' | 'last' | 'onMove'>) {
  const pressed = useRef<string | null>(null);
  const up = useRef<HTMLButtonElement>(null);
  const down = useRef<HTMLButtonElement>(null);
  // The row has moved under the focused button; at the ends the focus goes to the other one.
  useEffect(() => {
    if (pressed.current === 'up' && place === 1) down.current?.focus();
    if (pressed.current === 'down' && last) up.current?.focus();
    pressed.current = null;
  }, [place, last]);
  return (
    <Stack sx={{ alignItems: 'center' }}>
      <IconButton ref={up} size="small" aria-label={`Move ${kept.shown} up`} disabled={place === 1} onClick={() => { pressed.current = 'up'; onMove(-1); }} sx={{ p: 0.2 }}><UpIcon sx={{ fontSize: 17 }} /></IconButton>
      <Box component="span" className="serif" sx={{ fontSize: '1.1rem', lineHeight: 1.1 }}>{place}</Box>
      <IconButton ref={down} size="small" aria-label={`Move ${kept.shown} down`} disabled={last} onClick={() => { pressed.current = 'down'; onMove(1); }} sx={{ p: 0.2 }}><DownIcon sx={{ fontSize: 17 }} /></IconButton>
    </Stack>
  );
}

/** One kept name: place, figures, statuses with their age, and a note. Alt and an arrow moves it. */
export function ShortlistRow({ projectId, kept, place, last, extensions, onMove, onRemove }: Props) {
  const onKeyDown = (event: KeyboardEvent) => {
    const by = event.altKey ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined;
    if (!by) return;
    event.preventDefault();
    onMove(by);
  };
  return (
    <Box component="li" onKeyDown={onKeyDown} sx={{ display: 'grid', gridTemplateColumns: '34px minmax(150px, 210px) minmax(180px, 1fr) minmax(200px, 1.15fr) 34px', columnGap: 2, alignItems: 'center', bgcolor: 'background.paper', border: 1, borderColor: 'divider', borderLeft: 5, borderLeftColor: 'secondary.main', borderRadius: 1, px: 1.5, py: 1 }}>
      <Places kept={kept} place={place} last={last} onMove={onMove} />
      <Box sx={{ minWidth: 0 }}>
        <Typography component="h2" sx={{ fontSize: '1.3rem', lineHeight: 1.25, overflowWrap: 'anywhere' }}>
          {kept.shown === kept.label ? <SeamedName label={kept.label} starts={kept.starts} /> : <span className="serif">{kept.shown}</span>}
        </Typography>
        <Stack direction="row" sx={{ gap: 1.5, color: 'text.secondary' }}>{kept.grade === null ? <span>no grade</span> : <GradeFigure grade={kept.grade} />}<span>{kept.letters} letters</span></Stack>
      </Box>
      <Box component="ul" aria-label={`Statuses of ${kept.shown}`} sx={{ m: 0, p: 0, listStyle: 'none', display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(124px, 1fr))', columnGap: 1.5, fontSize: '0.86rem' }}>
        {extensions.map((extension) => {
          const cell = kept.statuses.find((c) => c.extension === extension);
          return (
            <Stack component="li" direction="row" key={extension} sx={{ gap: 0.8 }}>
              <Box component="span" sx={{ fontWeight: 600 }}>.{extension}</Box>
              <Box component="span" title={cell?.reason ?? undefined}><StatusMark status={shownStatus(cell)} /></Box>
            </Stack>
          );
        })}
        {kept.statuses[0]?.asked_at && <Typography component="li" variant="caption" color="textSecondary" sx={{ gridColumn: '1 / -1' }}>asked <Age at={kept.statuses[0].asked_at} /></Typography>}
      </Box>
      <NoteField projectId={projectId} kept={kept} />
      <Tooltip title="Take off the shortlist">
        <IconButton size="small" aria-label={`Take ${kept.shown} off the shortlist`} onClick={onRemove}><CrossIcon fontSize="small" /></IconButton>
      </Tooltip>
    </Box>
  );
}
