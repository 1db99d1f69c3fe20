import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import IconButton from '@mui/material/IconButton';
import Stack from '@mui/material/Stack';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { type KeyboardEvent, type ReactNode, useEffect, useRef } from 'react';
import { Link } from 'react-router';

import type { Brief, Glance, Kept } from '../../shared/api';
import { findingKind } from '../../shared/lib/concepts';
import { withOwn } from '../../shared/lib/fullName';
import { Age } from '../../shared/ui/Age';
import { GradeFigure } from '../../shared/ui/GradeFigure';
import { CrossIcon, DownIcon, UpIcon } from '../../shared/ui/icons';
import { priceOf } from '../../shared/ui/Price';
import { Handle, useSortableEntry } from '../../shared/ui/Sortable';
import { SeamedName } from '../../shared/ui/SeamedName';
import { shownStatus } from '../../shared/ui/status';
import { StatusMark } from '../../shared/ui/StatusMark';
import { WeightMark } from '../../shared/ui/WeightMark';
import { NoteField } from './NoteField';
import { TagsField } from './TagsField';
import { rich, t } from '../../shared/texts';

interface Props {
  projectId: number;
  kept: Kept;
  place: number;
  last: boolean;
  extensions: readonly string[];
  owner: Brief['owner'];
  /** What vetting found of it. */
  vetted: readonly Glance[];
  knownTags: readonly string[];
  /** Ticked for comparing. */
  picked: boolean;
  onPick: () => void;
  onMove: (by: number) => void;
  onRemove: () => void;
  /** Kept as a full name with this extension; without one when it is empty. */
  onSettle: (extension: string) => void;
}

function Places({
  kept,
  place,
  last,
  onMove,
  children,
}: Pick<Props, 'kept' | 'place' | 'last' | 'onMove'> & { children: ReactNode }) {
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
      <IconButton
        ref={up}
        size="small"
        aria-label={t('Move {shown} up', { shown: kept.shown })}
        disabled={place === 1}
        onClick={() => {
          pressed.current = 'up';
          onMove(-1);
        }}
        sx={{ p: 0.2 }}>
        <UpIcon sx={{ fontSize: 17 }} />
      </IconButton>
      {children}
      <IconButton
        ref={down}
        size="small"
        aria-label={t('Move {shown} down', { shown: kept.shown })}
        disabled={last}
        onClick={() => {
          pressed.current = 'down';
          onMove(1);
        }}
        sx={{ p: 0.2 }}>
        <DownIcon sx={{ fontSize: 17 }} />
      </IconButton>
    </Stack>
  );
}

/** What weighs on a name, each in a word or two: the whole is on the page of vetting. */
function Weighty({ projectId, label, vetted }: { projectId: number; label: string; vetted: readonly Glance[] }) {
  const weighty = vetted.filter((one) => !one.accepted && (one.weight === 'stop' || one.weight === 'think'));
  if (!weighty.length) return null;
  return (
    <Stack
      component="ul"
      aria-label={t('What weighs on it')}
      sx={{ m: 0, p: 0, listStyle: 'none', fontSize: '0.82rem' }}>
      {weighty.map((one) => (
        <li key={one.kind}>
          <Box
            component={Link}
            to={`/projects/${projectId}/vetting?name=${label}&kind=${one.kind}`}
            title={one.text}
            sx={{
              display: 'inline-flex',
              gap: 0.5,
              color: 'inherit',
              textDecoration: 'none',
              '&:hover': { textDecoration: 'underline' },
            }}>
            <WeightMark weight={one.weight} wordless />
            {findingKind(one.kind)?.word}
          </Box>
        </li>
      ))}
    </Stack>
  );
}

/** One kept name: place, figures, statuses with their age, tags and a note. Alt and an arrow moves it, or drawing it by its place. */
export function ShortlistRow({
  projectId,
  kept,
  place,
  last,
  extensions,
  owner,
  vetted,
  knownTags,
  picked,
  onPick,
  onMove,
  onRemove,
  onSettle,
}: Props) {
  const { setNode, style, dragged, handle } = useSortableEntry(kept.label);
  const onKeyDown = (event: KeyboardEvent) => {
    const by = event.altKey ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined;
    if (!by) return;
    event.preventDefault();
    onMove(by);
  };
  return (
    <Box
      component="li"
      onKeyDown={onKeyDown}
      ref={setNode}
      style={style}
      sx={{
        display: 'grid',
        gridTemplateColumns: {
          xs: '34px minmax(0, 1fr) 34px',
          md: '34px minmax(150px, 210px) minmax(180px, 1fr) minmax(220px, 1.15fr) 34px',
        },
        columnGap: 2,
        rowGap: 1,
        alignItems: 'center',
        bgcolor: 'background.paper',
        border: 1,
        borderColor: dragged ? 'secondary.main' : 'divider',
        boxShadow: dragged ? 4 : 0,
        position: 'relative',
        borderLeft: 5,
        borderLeftColor: 'secondary.main',
        borderRadius: 1,
        px: 1.5,
        py: 1,
      }}>
      <Places kept={kept} place={place} last={last} onMove={onMove}>
        <Handle label={t('Draw {shown} to another place', { shown: kept.shown })} place={place} handle={handle} />
      </Places>
      <Box sx={{ minWidth: 0 }}>
        <Typography component="h2" sx={{ fontSize: '1.3rem', lineHeight: 1.25, overflowWrap: 'anywhere' }}>
          <Box
            component={Link}
            to={`/projects/${projectId}/names/${kept.label}`}
            title={t('Everything about it')}
            sx={{ color: 'inherit', textDecoration: 'none', '&:hover': { textDecoration: 'underline' } }}>
            <SeamedName label={kept.label} shown={kept.shown} starts={kept.starts} extension={kept.extension} />
          </Box>
        </Typography>
        <Stack direction="row" sx={{ gap: 1.5, color: 'text.secondary', alignItems: 'center' }}>
          {kept.grade === null ? <span>{t('no grade')}</span> : <GradeFigure grade={kept.grade} />}
          <span>{t('{letters} letters', { letters: kept.letters })}</span>
        </Stack>
        <Weighty projectId={projectId} label={kept.label} vetted={vetted} />
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={picked}
              onChange={onPick}
              sx={{ p: 0.4 }}
              slotProps={{ input: { 'aria-label': t('Compare {shown}', { shown: kept.shown }) } }}
            />
          }
          label={
            <Typography variant="caption" color="textSecondary">
              {t('compare')}
            </Typography>
          }
          sx={{ ml: -0.5 }}
        />
      </Box>
      <Box
        component="ul"
        aria-label={t('Statuses of {shown}', { shown: kept.shown })}
        sx={{
          m: 0,
          p: 0,
          listStyle: 'none',
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(124px, 1fr))',
          columnGap: 1.5,
          fontSize: '0.86rem',
          gridColumn: { xs: '1 / -1', md: 'auto' },
        }}>
        {withOwn(extensions, kept.extension).map((extension) => {
          const cell = kept.statuses.find((c) => c.extension === extension);
          const price = priceOf(cell, owner);
          return (
            <Stack
              component="li"
              direction="row"
              key={extension}
              sx={{ gap: 0.8, alignItems: 'center', minHeight: 24 }}>
              <Box
                component="button"
                type="button"
                aria-pressed={kept.extension === extension}
                title={
                  kept.extension === extension
                    ? t('Keep {shown} alone, without an extension', { shown: kept.shown })
                    : t('Keep it as {shown}.{extension}', { shown: kept.shown, extension })
                }
                onClick={() => onSettle(kept.extension === extension ? '' : extension)}
                sx={{
                  font: 'inherit',
                  fontWeight: 600,
                  border: 1,
                  borderColor: kept.extension === extension ? 'secondary.main' : 'transparent',
                  borderRadius: 1,
                  color: kept.extension === extension ? 'secondary.main' : 'inherit',
                  bgcolor: 'transparent',
                  px: 0.4,
                  py: 0,
                  ml: -0.4,
                  lineHeight: 1.35,
                  cursor: 'pointer',
                  '&:hover': { borderColor: 'wire' },
                }}>
                .{extension}
              </Box>
              <Box component="span" title={cell?.reason ?? undefined}>
                <StatusMark status={shownStatus(cell)} likely={cell?.likely ?? false} />
                {price && (
                  <Typography variant="caption" color="textSecondary" component="div" sx={{ lineHeight: 1.25 }}>
                    {price}
                  </Typography>
                )}
              </Box>
            </Stack>
          );
        })}
        {kept.statuses[0]?.asked_at && (
          <Typography component="li" variant="caption" color="textSecondary" sx={{ gridColumn: '1 / -1' }}>
            {rich('asked {age}', { age: <Age at={kept.statuses[0].asked_at} /> })}
          </Typography>
        )}
      </Box>
      <Stack sx={{ gap: 0.8, gridColumn: { xs: '1 / -1', md: 'auto' } }}>
        <NoteField projectId={projectId} label={kept.label} shown={kept.shown} note={kept.note} />
        <TagsField projectId={projectId} label={kept.label} shown={kept.shown} tags={kept.tags} known={knownTags} />
      </Stack>
      <Tooltip title={t('Take off the shortlist')}>
        <IconButton
          size="small"
          aria-label={t('Take {shown} off the shortlist', { shown: kept.shown })}
          onClick={onRemove}
          sx={{ gridRow: { xs: 1, md: 'auto' }, gridColumn: { xs: 3, md: 'auto' } }}>
          <CrossIcon fontSize="small" />
        </IconButton>
      </Tooltip>
    </Box>
  );
}
