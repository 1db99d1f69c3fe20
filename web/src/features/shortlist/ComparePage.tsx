import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import IconButton from '@mui/material/IconButton';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';

import { asApiError, type Judged } from '../../shared/api';
import { useOpenProject } from '../../shared/lib/projectContext';
import { useNames } from '../../shared/lib/useName';
import { Age } from '../../shared/ui/Age';
import { EmptyState } from '../../shared/ui/EmptyState';
import { Bar } from '../../shared/ui/GradeFigure';
import { CrossIcon } from '../../shared/ui/icons';
import { SayButton } from '../../shared/ui/SayButton';
import { SeamedName } from '../../shared/ui/SeamedName';
import type { ShownStatus } from '../../shared/ui/status';
import { StatusMark } from '../../shared/ui/StatusMark';
import { VisuallyHidden } from '../../shared/ui/VisuallyHidden';
import { compare, type Line } from './compared';
import { useShortlist } from './useShortlist';
import { t } from '../../shared/texts';

const MOST = 6;
const LOOKS: readonly { key: string; word: string; sx: object; of: (shown: string) => string }[] = [
  {
    key: 'serif',
    word: t('serif'),
    sx: { fontFamily: '"Literata Variable", Georgia, serif', fontSize: '1.15rem' },
    of: (s) => s,
  },
  { key: 'sans', word: t('sans serif'), sx: { fontWeight: 650, fontSize: '1.05rem' }, of: (s) => s },
  {
    key: 'capitals',
    word: t('capitals'),
    sx: { letterSpacing: '0.12em', fontSize: '0.92rem' },
    of: (s) => s.toUpperCase(),
  },
];

function Value({ line, at, name }: { line: Line; at: number; name: Judged }) {
  const value = line.values[at];
  if (line.kind === 'status') {
    const cell = name.cells.find((c) => `.${c.extension}` === line.key);
    return (
      <>
        <StatusMark status={value as ShownStatus} likely={cell?.likely ?? false} />
        {cell?.asked_at && (
          <Typography variant="caption" color="textSecondary" component="div">
            <Age at={cell.asked_at} />
          </Typography>
        )}
      </>
    );
  }
  if (value === null) return <span title={t('Not known')}>–</span>;
  if (line.kind === 'figure')
    return (
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
        <span>{value}</span>
        {line.key !== 'letters' && <Bar value={Number(value)} width={46} />}
      </Stack>
    );
  return <Typography variant="body2">{value}</Typography>;
}

/** Two to six names side by side: what differs is brought out, the best of each line is marked. */
export function ComparePage() {
  const project = useOpenProject();
  const [params, setParams] = useSearchParams();
  const labels = [...new Set((params.get('names') ?? '').split(',').filter(Boolean))].slice(0, MOST);
  const found = useNames(project.id, labels);
  const { list } = useShortlist(project.id);
  const [only, setOnly] = useState(false);
  const choose = (next: readonly string[]) => {
    setParams({ names: next.join(',') }, { replace: true });
  };
  const others = (list.data ?? []).filter((k) => !labels.includes(k.label));
  const adding = others.length > 0 && labels.length < MOST && (
    <TextField
      select
      label={t('Add a name')}
      value=""
      onChange={(e) => choose([...labels, e.target.value])}
      sx={{ width: 170 }}>
      {others.map((k) => (
        <MenuItem key={k.label} value={k.label}>
          {k.shown}
        </MenuItem>
      ))}
    </TextField>
  );
  const failed = found
    .map((q, i) => ({ label: labels[i] ?? '', error: asApiError(q.error), again: q.refetch }))
    .filter(({ error }) => error !== null);
  const names = found.map((q) => q.data).filter((n): n is Judged => n !== undefined);
  if (labels.length < 2)
    return (
      <EmptyState
        title={t('Choose two to six names')}
        action={
          <Stack direction="row" sx={{ gap: 1 }}>
            {adding}
            <Button component={Link} to={`/projects/${project.id}/shortlist`} variant="outlined">
              {t('To the shortlist')}
            </Button>
          </Stack>
        }>
        {t('Tick them on the shortlist, or mark them at the bench and press g.')}
      </EmptyState>
    );
  if (found.some((q) => q.isPending)) return <LinearProgress aria-label={t('Loading the names')} />;
  const refused = failed.length > 0 && (
    <Alert
      severity="error"
      sx={{ mb: 2 }}
      action={
        <Button
          color="inherit"
          onClick={() => {
            for (const { again } of failed) void again();
          }}>
          {t('Try again')}
        </Button>
      }>
      {failed.map(({ label, error }) => `${label}: ${error?.problems[0]?.message ?? error?.message ?? ''}`).join(' ')}
    </Alert>
  );
  const lines = compare(names, project.brief.extensions).filter((line) => !only || line.differs);
  const cell = {
    p: 1,
    borderTop: 1,
    borderColor: 'divider',
    textAlign: 'left',
    verticalAlign: 'top',
    overflowWrap: 'anywhere',
  } as const;
  return (
    <Box component="main" sx={{ maxWidth: 1240, mx: 'auto', px: { xs: 1, md: 3 }, py: 3 }}>
      <Stack
        direction="row"
        sx={{ justifyContent: 'space-between', alignItems: 'center', flexWrap: 'wrap', gap: 1.5, mb: 2 }}>
        <Typography variant="h1">{t('Side by side')}</Typography>
        <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center' }}>
          <FormControlLabel
            control={<Checkbox size="small" checked={only} onChange={(e) => setOnly(e.target.checked)} />}
            label={t('Only what differs')}
          />
          {adding}
        </Stack>
      </Stack>
      {refused}
      <Box sx={{ overflowX: 'auto' }}>
        <Box
          component="table"
          sx={{
            borderCollapse: 'collapse',
            width: '100%',
            tableLayout: 'fixed',
            minWidth: { xs: 92 + 118 * names.length, md: 160 + 150 * names.length },
          }}>
          <caption>
            <VisuallyHidden>{t('Names side by side; the best of each line is marked')}</VisuallyHidden>
          </caption>
          <thead>
            <tr>
              <Box component="td" sx={{ width: { xs: 92, md: 150 } }}>
                <VisuallyHidden>{t('What is compared')}</VisuallyHidden>
              </Box>
              {names.map((name) => (
                <Box
                  component="th"
                  scope="col"
                  key={name.label}
                  sx={{ p: 1, textAlign: 'left', verticalAlign: 'bottom', fontWeight: 400 }}>
                  <Stack direction="row" sx={{ alignItems: 'flex-start', justifyContent: 'space-between' }}>
                    <Box
                      component={Link}
                      to={`/projects/${project.id}/names/${name.label}`}
                      sx={{
                        color: 'text.primary',
                        textDecoration: 'none',
                        fontSize: names.length > 4 ? '1.15rem' : '1.5rem',
                        overflowWrap: 'anywhere',
                      }}>
                      <SeamedName
                        label={name.label}
                        shown={name.shown}
                        starts={name.parts.map((p) => p.start)}
                        extension={name.extension}
                      />
                    </Box>
                    <IconButton
                      size="small"
                      aria-label={t('Leave {shown} out', { shown: name.shown })}
                      onClick={() => choose(labels.filter((l) => l !== name.label))}>
                      <CrossIcon sx={{ fontSize: 16 }} />
                    </IconButton>
                  </Stack>
                  <SayButton text={name.shown} />
                </Box>
              ))}
            </tr>
          </thead>
          <tbody>
            {LOOKS.map(({ key, word, sx, of }, i) => (
              <tr key={key}>
                <Box
                  component="th"
                  scope="row"
                  sx={{ ...cell, fontWeight: 400, color: 'text.secondary', ...(i && { borderTop: 0 }) }}>
                  {i === 0 ? t('How it looks') : <VisuallyHidden>{word}</VisuallyHidden>}
                </Box>
                {names.map((name) => (
                  <Box component="td" key={name.label} sx={{ ...cell, ...(i && { borderTop: 0, pt: 0 }) }}>
                    <Box component="span" sx={sx}>
                      {of(name.shown)}
                    </Box>
                  </Box>
                ))}
              </tr>
            ))}
            {lines.map((line) => (
              <tr key={line.key}>
                <Box
                  component="th"
                  scope="row"
                  sx={{
                    ...cell,
                    fontWeight: line.differs ? 650 : 400,
                    color: line.differs ? 'text.primary' : 'text.secondary',
                  }}>
                  {line.word}
                </Box>
                {names.map((name, i) => {
                  const best = line.best.includes(i);
                  return (
                    <Box
                      component="td"
                      key={name.label}
                      sx={{
                        ...cell,
                        color: line.differs ? 'text.primary' : 'text.secondary',
                        ...(best && {
                          boxShadow: 'inset 3px 0 0 var(--mui-palette-secondary-main)',
                          fontWeight: 650,
                        }),
                      }}>
                      <Value line={line} at={i} name={name} />
                      {best && <VisuallyHidden>{t(', the best')}</VisuallyHidden>}
                    </Box>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
    </Box>
  );
}
