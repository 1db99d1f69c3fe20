import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';

import { findingKind, weightKind } from '../../shared/lib/concepts';
import { formatDay, formatMoment } from '../../shared/lib/format';
import { useOpenProject } from '../../shared/lib/projectContext';
import { t } from '../../shared/texts';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { PAPER } from '../../shared/ui/paper';
import { useReport } from './useVetting';

/** The report made for paper: name by name, what was found and what is accepted. */
export function VettingPaper() {
  const project = useOpenProject();
  const { data, error, refetch } = useReport(project.id);
  if (error) return <LoadFailed title={t('The findings could not be loaded')} error={error} onRetry={refetch} />;
  if (!data) return <LinearProgress aria-label={t('Loading')} />;
  return (
    <Box component="main" sx={{ py: 2, '@media print': { py: 0 } }}>
      <Stack direction="row" sx={{ gap: 1, justifyContent: 'center', mb: 2, '@media print': { display: 'none' } }}>
        <Button variant="contained" onClick={() => window.print()}>
          {t('Print')}
        </Button>
        <Button component={Link} to={`/projects/${project.id}/vetting`} variant="outlined">
          {t('Back')}
        </Button>
      </Stack>
      <Box className="paper" sx={PAPER}>
        <Typography variant="h1">{t('{name}: what was found of the names', { name: project.name })}</Typography>
        {data.names.map((name) => (
          <Box key={name.label} sx={{ breakInside: 'avoid' }}>
            <Typography variant="h2" className="serif" sx={{ mt: 2 }}>
              {name.full_name}
            </Typography>
            <table>
              <tbody>
                {name.kinds.map((kind) => (
                  <tr key={kind.kind}>
                    <td style={{ whiteSpace: 'nowrap' }}>{findingKind(kind.kind)?.word}</td>
                    <td style={{ whiteSpace: 'nowrap' }}>{weightKind(kind.weight)?.word}</td>
                    <td>
                      {kind.text} {kind.accepted && t('Seen and accepted: {note}', { note: kind.note || '—' })}
                    </td>
                    <td style={{ whiteSpace: 'nowrap' }}>{formatDay(kind.found_at)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            {!name.kinds.length && <Typography>{t('Not vetted yet.')}</Typography>}
          </Box>
        ))}
        <Typography variant="caption" component="p" sx={{ mt: 3, color: '#55434f' }}>
          {t('Made with Vine Tag, {moment}. None of this is legal advice.', {
            moment: formatMoment(new Date().toISOString()),
          })}
        </Typography>
      </Box>
    </Box>
  );
}
