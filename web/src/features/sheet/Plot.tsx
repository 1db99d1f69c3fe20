import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import Skeleton from '@mui/material/Skeleton';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type KeyboardEvent, memo, type MouseEvent, useMemo, useRef, useState } from 'react';

import { commandOf, useLetterKeys } from '../../shared/lib/keymap';
import type { Dots } from '../../shared/api';
import { useDots } from './useDots';
import type { Doing } from '../../shared/lib/acts';
import { measures } from '../../shared/lib/concepts';
import { gradeOf, type Grading } from '../../shared/lib/grading';
import { EmptyState } from '../../shared/ui/EmptyState';
import { type Dot, inFigure, nearest, place, toward } from './dots';
import type { SheetQuestion } from '../../shared/lib/question';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { t } from '../../shared/texts';

const WIDTH = 660;
const HEIGHT = 420;
const LEFT = 44;
const BOTTOM = 40;
const EDGE = 12;
const axes = () => [{ name: 'letters', word: t('Letters') }, { name: 'grade', word: t('Grade') }, ...measures()];

interface Props {
  projectId: number;
  question: SheetQuestion;
  grading: Grading;
  selected: string | null;
  onSelect: (label: string) => void;
  onAct: (doing: Doing, labels: readonly string[]) => void;
}

const valueOf = (dots: Dots, axis: string, i: number, grading: Grading): number | null => {
  if (axis === 'letters') return dots.letters[i] ?? null;
  if (axis !== 'grade') return dots.scores[axis]?.[i] ?? null;
  return gradeOf(
    Object.fromEntries(Object.entries(dots.scores).map(([name, column]) => [name, column[i] ?? null])),
    grading,
  );
};

function AxisField({ label, value, onChange }: { label: string; value: string; onChange: (axis: string) => void }) {
  return (
    <TextField select label={label} value={value} onChange={(e) => onChange(e.target.value)} sx={{ width: 138 }}>
      {axes().map(({ name, word }) => (
        <MenuItem key={name} value={name}>
          {word}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** The list as dots, one a name: two figures against each other, a name picked by click or by arrow keys. */
export function Plot({ projectId, question, grading, selected, onSelect, onAct }: Props) {
  const letters = useLetterKeys();
  const [across, setAcross] = useState('letters');
  const [up, setUp] = useState('grade');
  const [under, setUnder] = useState<string | null>(null);
  const figure = useRef<SVGSVGElement>(null);
  const { data, error, refetch } = useDots(projectId, question);
  const plotted = useMemo(() => {
    if (!data) return null;
    const points = data.labels.flatMap((label, i) => {
      const x = valueOf(data, across, i, grading);
      const y = valueOf(data, up, i, grading);
      return x === null || y === null ? [] : [{ label, x, y, kept: data.kept[i] ?? false }];
    });
    return place(points, {
      across,
      up,
      left: LEFT,
      top: EDGE,
      width: WIDTH - LEFT - EDGE,
      height: HEIGHT - BOTTOM - EDGE,
    });
  }, [data, across, up, grading]);

  if (error && !data) return <LoadFailed title={t('The dots could not be loaded')} error={error} onRetry={refetch} />;
  if (!data || !plotted) return <Skeleton variant="rounded" height={HEIGHT} />;
  if (plotted.dots.length === 0)
    return (
      <EmptyState title={t('No dots to show')}>
        {t('No name of the list has both figures, or none passes these filters.')}
      </EmptyState>
    );
  const { dots, ticks } = plotted;
  const chosen = dots.find((d) => d.label === selected);
  const shown = dots.find((d) => d.label === under) ?? chosen;
  const at = (event: MouseEvent): Dot | undefined => {
    const box = figure.current?.getBoundingClientRect();
    if (!box) return undefined;
    // Whole pixels: a press is told by those, a move by parts of them, and dots stand closer than that.
    const [x, y] = inFigure(
      box,
      { clientX: Math.floor(event.clientX), clientY: Math.floor(event.clientY) },
      WIDTH,
      HEIGHT,
    );
    return nearest(dots, x, y, 14);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (commandOf('dots', event, letters) === 'keep' && chosen) onAct(chosen.kept ? 'unkeep' : 'keep', [chosen.label]);
    else {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const next = chosen ? toward(dots, chosen, event.key) : event.key.startsWith('Arrow') ? dots[0] : undefined;
      if (!next) return;
      onSelect(next.label);
    }
    event.preventDefault();
  };
  const inWords = (dot: Dot) =>
    `${dot.label}: ${word(across).toLowerCase()} ${Math.round(dot.x)}, ${word(up).toLowerCase()} ${Math.round(dot.y)}`;
  return (
    <Stack sx={{ flex: 1, minHeight: 0, gap: 1 }}>
      <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
        <AxisField label={t('Upwards')} value={up} onChange={setUp} />
        <AxisField label={t('Across')} value={across} onChange={setAcross} />
        <Typography variant="caption" color="textSecondary" sx={{ ml: 'auto' }}>
          {t('{dots, plural, one {# name} other {# names}} · the filled dots are on the shortlist', {
            dots: dots.length,
          })}
        </Typography>
      </Stack>
      <Box
        role="application"
        tabIndex={0}
        aria-label={t('{word} against {word2}. Arrow keys go from name to name.', {
          word: word(up),
          word2: word(across),
        })}
        aria-describedby="dot-told"
        onKeyDown={onKeyDown}
        sx={{ flex: 1, minHeight: 0, '& svg': { width: '100%', height: '100%', cursor: 'pointer' } }}>
        <svg
          ref={figure}
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          aria-hidden
          onPointerMove={(e) => setUnder(at(e)?.label ?? null)}
          onPointerLeave={() => setUnder(null)}
          onClick={(e) => {
            const dot = at(e);
            if (dot) onSelect(dot.label);
          }}>
          {ticks.up.map(({ at: y, value }) => (
            <g key={value}>
              <line x1={LEFT} x2={WIDTH - EDGE} y1={y} y2={y} stroke="var(--mui-palette-divider)" />
              <text x={LEFT - 8} y={y + 4} textAnchor="end" fontSize="12" fill="var(--mui-palette-text-secondary)">
                {value}
              </text>
            </g>
          ))}
          {ticks.across.map(({ at: x, value }) => (
            <g key={value}>
              <line x1={x} x2={x} y1={HEIGHT - BOTTOM} y2={HEIGHT - BOTTOM + 5} stroke="var(--mui-palette-wire)" />
              <text
                x={x}
                y={HEIGHT - BOTTOM + 18}
                textAnchor="middle"
                fontSize="12"
                fill="var(--mui-palette-text-secondary)">
                {value}
              </text>
            </g>
          ))}
          <line
            x1={LEFT}
            x2={WIDTH - EDGE}
            y1={HEIGHT - BOTTOM}
            y2={HEIGHT - BOTTOM}
            stroke="var(--mui-palette-wire)"
            strokeWidth="2"
          />
          <text
            x={WIDTH - EDGE}
            y={HEIGHT - 6}
            textAnchor="end"
            fontSize="12.5"
            fontWeight="600"
            fill="var(--mui-palette-text-primary)">
            {word(across)} →
          </text>
          <text x={LEFT + 6} y={EDGE + 8} fontSize="12.5" fontWeight="600" fill="var(--mui-palette-text-primary)">
            ↑ {word(up)}
          </text>
          <Circles dots={dots} />
          {shown && <DotLabel dot={shown} />}
          {chosen && (
            <circle
              cx={chosen.px}
              cy={chosen.py}
              r="7"
              fill="none"
              stroke="var(--mui-palette-primary-main)"
              strokeWidth="2"
            />
          )}
        </svg>
      </Box>
      <Typography id="dot-told" role="status" variant="caption" color="textSecondary">
        {shown ? inWords(shown) : t('Point at a dot, or press an arrow key.')}
      </Typography>
    </Stack>
  );
}

const word = (axis: string): string => axes().find((a) => a.name === axis)?.word ?? axis;

/** The dots alone: they are many, and stay as they are while one points at them. */
const Circles = memo(function Circles({ dots }: { dots: readonly Dot[] }) {
  return dots.map((dot) => (
    <circle
      key={dot.label}
      cx={dot.px}
      cy={dot.py}
      r={dot.kept ? 4.5 : 2.6}
      fill={dot.kept ? 'var(--mui-palette-primary-main)' : 'var(--mui-palette-secondary-main)'}
      fillOpacity={dot.kept ? 1 : 0.42}
    />
  ));
});

/** The name of a dot, on the side where there is room. */
function DotLabel({ dot }: { dot: Dot }) {
  const right = dot.px < WIDTH * 0.7;
  return (
    <text
      x={dot.px + (right ? 11 : -11)}
      y={dot.py + 5}
      textAnchor={right ? 'start' : 'end'}
      className="serif"
      fontSize="15"
      fontWeight="650"
      fill="var(--mui-palette-text-primary)"
      stroke="var(--mui-palette-background-default)"
      strokeWidth="4"
      paintOrder="stroke">
      {dot.label}
    </text>
  );
}
