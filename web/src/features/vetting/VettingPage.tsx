import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useState } from 'react';
import { Link } from 'react-router';

import { asApiError } from '../../shared/api';
import { useOpenProject } from '../../shared/lib/projectContext';
import { useAddress } from '../../shared/lib/useAddress';
import { t } from '../../shared/texts';
import { EmptyState } from '../../shared/ui/EmptyState';
import { FileMenu } from '../../shared/ui/FileMenu';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { AllHandles } from './AllHandles';
import { ForFields } from './ForFields';
import { NameFindings } from './NameFindings';
import { Registers } from './Registers';
import { ReportTable } from './ReportTable';
import { RunBar } from './RunBar';
import { useMarkets } from './useMarkets';
import { isRunning, useReport, useVettingActs } from './useVetting';

/** The names of the shortlist looked at from outside, before anybody pays. */
export function VettingPage() {
  const project = useOpenProject();
  const [params, turn] = useAddress();
  const [typed, setTyped] = useState('');
  const report = useReport(project.id);
  const acts = useVettingActs(project.id);
  const countries = useMarkets();
  if (report.error && !report.data)
    return <LoadFailed title={t('The findings could not be loaded')} error={report.error} onRetry={report.refetch} />;
  if (!report.data) return <LinearProgress aria-label={t('Loading')} />;
  const { names, run } = report.data;
  const sought = params.get('name');
  // The worst first, where nobody asked for one.
  const open = sought ?? names.find((n) => n.kinds.length)?.label ?? null;
  const running = isRunning(run);
  const show = (name: string, kind: string | null) =>
    turn((now) => {
      const next = new URLSearchParams(now);
      next.set('name', name);
      if (kind) next.set('kind', kind);
      else next.delete('kind');
      return next;
    });
  const look = (event: SyntheticEvent) => {
    event.preventDefault();
    const name = typed.trim();
    if (!name) return;
    const there = () => show(name.toLowerCase(), null);
    acts.start.mutate(
      { names: [name] },
      {
        onSuccess: there,
        // What is known of it already is shown all the same.
        onError: (error) => {
          if (asApiError(error)?.code === 'fresh') there();
        },
      },
    );
  };
  return (
    <Box component="main" sx={{ maxWidth: 1180, mx: 'auto', px: { xs: 1.5, md: 3 }, py: 3 }}>
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between', gap: 1, flexWrap: 'wrap' }}>
        <Typography variant="h1">{t('Vetting')}</Typography>
        <Stack direction="row" sx={{ gap: 1 }}>
          <Button
            component={Link}
            to={`/projects/${project.id}/vetting/print`}
            variant="outlined"
            size="small"
            disabled={!names.some((n) => n.kinds.length)}>
            {t('On paper')}
          </Button>
          <FileMenu
            address={(form) => `/api/projects/${project.id}/vetting/file?form=${form}`}
            disabled={!names.length}
          />
        </Stack>
      </Stack>
      <Typography color="textSecondary" sx={{ mb: 2 }}>
        {t('Who hears, sees, reads or owns something like the names on your shortlist, before you pay for one.')}
      </Typography>
      <ForFields project={project} report={report.data} countries={countries} />
      <Stack direction="row" sx={{ gap: 2, mb: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Stack component="form" direction="row" onSubmit={look} sx={{ gap: 1 }}>
          <TextField
            size="small"
            label={t('Another name')}
            value={typed}
            onChange={(e) => setTyped(e.target.value.slice(0, 300))}
            sx={{ width: 200 }}
          />
          <Button type="submit" variant="outlined" disabled={!typed.trim() || running || acts.start.isPending}>
            {t('Vet it')}
          </Button>
        </Stack>
        <Box sx={{ flex: 1 }} />
        <RunBar run={run} acts={acts} names={names.length} />
      </Stack>
      {names.length ? (
        <>
          <ReportTable report={report.data} open={open} onOpen={show} />
          <AllHandles report={report.data} />
        </>
      ) : (
        <EmptyState
          title={t('Nothing to vet yet')}
          action={
            <Button component={Link} to={`/projects/${project.id}`} variant="outlined">
              {t('To the bench')}
            </Button>
          }>
          {t('Keep some names first, or type one above; what speaks against them is found out here.')}
        </EmptyState>
      )}
      {open && (
        <NameFindings
          key={open}
          projectId={project.id}
          name={open}
          at={params.get('kind')}
          sought={sought !== null}
          acts={acts}
          running={running}
          others={names.map((n) => n.shown)}
        />
      )}
      <Registers />
    </Box>
  );
}
