import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Slider from '@mui/material/Slider';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useSearchParams } from 'react-router';

import { asApiError, type Setting } from '../../shared/api';
import { type Case, useWordmarks } from './useWordmarks';
import { useOpenProject } from '../../shared/lib/projectContext';
import { useDebounced } from '../../shared/lib/useDebounced';
import { useName } from '../../shared/lib/useName';
import { EmptyState } from '../../shared/ui/EmptyState';
import { useNotify } from '../../shared/ui/Notices';
import { contrast, ENOUGH, type Ground, INKS, PAPERS, wordOf } from './colours';
import { download } from '../../shared/lib/download';
import { asPng } from './pictures';
import { numbers, t } from '../../shared/texts';

const CASES = [
  ['typed', t('as typed')],
  ['lower', t('lower case')],
  ['upper', t('CAPITALS')],
] as const;
const MARGIN = 120;

interface Colours {
  ink: string;
  second: string;
  split: number;
  paper: string;
}

/** The name as its outlines, in one colour or two. */
function Drawing({ setting, ink, second, split, paper }: Colours & { setting: Setting }) {
  const path = (mine: boolean) =>
    setting.glyphs
      .filter((g) => (second !== '' && split > 0 && g.at >= split) === mine)
      .map((g) => g.path)
      .join('');
  const width = setting.width + 2 * MARGIN;
  const height = setting.ascent + setting.descent + 2 * MARGIN;
  return (
    <Box
      component="svg"
      role="img"
      aria-label={t('{setting} in {word}', { setting: setting.text, word: setting.word })}
      viewBox={`0 0 ${width} ${height}`}
      sx={{ width: '100%', height: 92, display: 'block', bgcolor: paper, borderRadius: 1 }}>
      <g transform={`translate(${MARGIN} ${MARGIN + setting.ascent})`}>
        <path d={path(false)} fill={ink} />
        <path d={path(true)} fill={second || ink} />
      </g>
    </Box>
  );
}

function Inks({
  label,
  value,
  none,
  onChange,
}: {
  label: string;
  value: string;
  none?: string;
  onChange: (colour: string) => void;
}) {
  return (
    <TextField
      select
      label={label}
      value={value}
      onChange={(e) => onChange(e.target.value)}
      sx={{ width: 210 }}
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}>
      {none !== undefined && <MenuItem value="">{none}</MenuItem>}
      {INKS.map(({ colour, word, suggests }) => (
        <MenuItem key={colour} value={colour} title={suggests}>
          <Box
            component="span"
            aria-hidden
            sx={{
              width: 14,
              height: 14,
              borderRadius: '50%',
              bgcolor: colour,
              border: 1,
              borderColor: 'divider',
              mr: 1,
              display: 'inline-block',
              verticalAlign: '-2px',
            }}
          />
          {word}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** A name tried out as a wordmark: a dozen typefaces, spacing, case and colours, to take away as SVG or PNG. */
export function WordmarkPage() {
  const project = useOpenProject();
  const notify = useNotify();
  const [params] = useSearchParams();
  const label = params.get('name');
  const { data: name } = useName(project.id, label);
  const [typed, setTyped] = useState<string | null>(null);
  const [letterCase, setCase] = useState<Case>('typed');
  const [spacing, setSpacing] = useState(0);
  const [ground, setGround] = useState<Ground>('light');
  const [ink, setInk] = useState('#4f2143');
  const [second, setSecond] = useState('');
  const [face, setFace] = useState('literata');
  const text = typed ?? name?.shown ?? label ?? project.name;
  const starts = name && typed === null ? name.parts.map((p) => p.start).filter((s) => s > 0) : [];
  const [cut, setCut] = useState<number | null>(null);
  const split = cut ?? starts[0] ?? Math.ceil(text.length / 2);
  const query = useDebounced(JSON.stringify({ text, spacing, case: letterCase }), 120);
  const asked = JSON.parse(query) as { text: string; spacing: number; case: Case };
  const { data: settings, error } = useWordmarks(asked);
  const failed = asApiError(error);
  const paper = PAPERS[ground];
  const faint = [ink, ...(second ? [second] : [])].filter((c) => contrast(c, paper) < ENOUGH);
  const colours = { ink, second, split, paper };
  const address = (form: 'outlines' | 'text') => {
    const fields = {
      ...asked,
      spacing: String(spacing),
      face,
      ink,
      split: String(split),
      paper,
      form,
      ...(second && { second }),
    };
    return `/api/wordmark?${new URLSearchParams(fields).toString()}`;
  };
  const png = () => {
    asPng(address('outlines'), 1600).then(
      (blob) => {
        download(blob, `${text.replaceAll(/\W+/g, '-')}.png`);
      },
      () => {
        notify(t('The picture could not be made. Try again.'));
      },
    );
  };
  return (
    <Box component="main" sx={{ maxWidth: 1180, mx: 'auto', px: 2, py: 3 }}>
      <Typography variant="h1" sx={{ mb: 2 }}>
        {t('Wordmark')}
      </Typography>
      <Stack direction="row" sx={{ flexWrap: 'wrap', gap: 1.5, alignItems: 'center', mb: 2 }}>
        <TextField
          label={t('The name as it is written')}
          value={text}
          onChange={(e) => setTyped(e.target.value.slice(0, 63))}
          error={Boolean(failed)}
          helperText={failed ? (failed.problems[0]?.message ?? failed.message) : undefined}
          sx={{ width: 230 }}
        />
        <ToggleButtonGroup
          exclusive
          size="small"
          value={letterCase}
          aria-label={t('Letters')}
          onChange={(_, next: Case | null) => {
            if (next) setCase(next);
          }}>
          {CASES.map(([value, word]) => (
            <ToggleButton key={value} value={value} sx={{ textTransform: 'none', px: 1.2 }}>
              {word}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Box sx={{ width: 170 }}>
          <Typography variant="caption" color="textSecondary">
            {t('Letter spacing {spacing} % of the size', {
              spacing: numbers({ signDisplay: 'exceptZero' }).format(spacing / 10),
            })}
          </Typography>
          <Slider
            size="small"
            color="secondary"
            min={-60}
            max={300}
            step={10}
            value={spacing}
            aria-label={t('Letter spacing')}
            onChange={(_, v) => setSpacing(v)}
          />
        </Box>
        <Inks label={t('Colour')} value={ink} onChange={setInk} />
        <Inks label={t('Second colour')} value={second} none={t('none')} onChange={setSecond} />
        {second && (
          <TextField
            type="number"
            label={t('From letter')}
            value={split + 1}
            onChange={(e) => setCut(Math.min(text.length - 1, Math.max(1, Number(e.target.value) - 1)))}
            sx={{ width: 96 }}
            slotProps={{ htmlInput: { min: 2, max: text.length } }}
          />
        )}
        <ToggleButtonGroup
          exclusive
          size="small"
          value={ground}
          aria-label={t('Ground')}
          onChange={(_, next: Ground | null) => {
            if (next) setGround(next);
          }}>
          <ToggleButton value="light" sx={{ textTransform: 'none', px: 1.2 }}>
            {t('on light')}
          </ToggleButton>
          <ToggleButton value="dark" sx={{ textTransform: 'none', px: 1.2 }}>
            {t('on dark')}
          </ToggleButton>
        </ToggleButtonGroup>
      </Stack>
      <Typography color="textSecondary" sx={{ mb: 1 }}>
        {t('{colours}. What colours and letters suggest are habits of seeing, not laws.', {
          colours: [ink, second].filter(Boolean).map(wordOf).join(' · '),
        })}
      </Typography>
      {faint.length > 0 && (
        <Alert severity="warning" sx={{ mb: 1.5 }}>
          {t('{faint} can hardly be read on this ground.', {
            faint: faint.map((c) => INKS.find((i) => i.colour === c)?.word ?? c).join(' and '),
          })}
        </Alert>
      )}
      <Stack direction="row" sx={{ gap: 1, mb: 2, flexWrap: 'wrap', alignItems: 'center' }}>
        <Typography>{t('Take away the one chosen:')}</Typography>
        <Button variant="contained" component="a" href={address('outlines')} download>
          {t('SVG, outlines')}
        </Button>
        <Button variant="outlined" component="a" href={address('text')} download>
          {t('SVG, text')}
        </Button>
        <Button variant="outlined" onClick={png}>
          {t('PNG')}
        </Button>
      </Stack>
      {!settings && !failed && <LinearProgress aria-label={t('Setting the name')} />}
      {failed && !settings && (
        <EmptyState alert title={t('The name could not be set')}>
          {failed.message}
        </EmptyState>
      )}
      <Box
        role="radiogroup"
        aria-label={t('Typefaces')}
        sx={{ display: 'grid', gap: 1.5, gridTemplateColumns: 'repeat(auto-fill, minmax(260px, 1fr))' }}>
        {settings?.map((setting) => (
          <Box
            key={setting.face}
            component="button"
            type="button"
            role="radio"
            aria-checked={face === setting.face}
            onClick={() => setFace(setting.face)}
            sx={{
              font: 'inherit',
              color: 'inherit',
              textAlign: 'left',
              cursor: 'pointer',
              p: 1,
              bgcolor: 'background.paper',
              border: 2,
              borderColor: face === setting.face ? 'secondary.main' : 'divider',
              borderRadius: 1,
            }}>
            <Drawing setting={setting} {...colours} />
            <Typography variant="body2" sx={{ mt: 0.8 }}>
              <strong>{setting.word}</strong>{' '}
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {setting.suggests}
              </Box>
            </Typography>
            {setting.missing && (
              <Typography variant="caption" sx={{ color: 'amber' }}>
                {t('lacks {missing}', { missing: setting.missing })}
              </Typography>
            )}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
