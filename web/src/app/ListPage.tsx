import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';

import { asApiError } from '../shared/api';
import { formatCount } from '../shared/lib/format';
import { useOpenProject } from '../shared/lib/projectContext';
import { EmptyState } from '../shared/ui/EmptyState';
import { wordOf } from '../shared/ui/status';
import { useVocabulary } from '../features/brief/useWords';
import { CheckBar } from '../features/check/CheckBar';
import { ExportMenu } from '../features/check/ExportMenu';
import { useCheck } from '../features/check/useCheck';
import { ListTable } from '../features/list/ListTable';
import { PasteForm } from '../features/list/PasteForm';
import { useCounting, useList } from '../features/list/useList';
import { LoadFailed } from '../shared/ui/LoadFailed';
import { t } from '../shared/texts';

/** Names pasted or uploaded, checked in bulk. */
export function ListPage() {
  const project = useOpenProject();
  const known = useVocabulary().data?.extensions ?? [];
  const [status, setStatus] = useState('');
  const [at, setAt] = useState(0);
  const { page, paste, clear, pageSize } = useList(project.id, status, at);
  const controls = useCheck(project.id, project.brief.extensions);
  const data = page.data;
  const { active } = controls;
  useCounting(project.id, active);
  const top = useRef<HTMLDivElement>(null);
  const error = asApiError(page.error);
  const take = (text: string, extensions: string[]) => {
    setStatus('');
    setAt(0);
    paste.mutate(
      { text, ...(extensions.length && { extensions }) },
      {
        onSuccess: () => {
          controls.start.mutate({ what: 'pasted' });
        },
      },
    );
  };
  const pages = Math.ceil((data?.total ?? 0) / pageSize);
  return (
    <Box
      component="main"
      ref={top}
      sx={{
        height: 1,
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: '320px minmax(0, 1fr)' },
        '& > *': { minHeight: 0 },
      }}>
      <Box
        component="section"
        aria-label={t('Paste names')}
        sx={{ p: 2, overflowY: 'auto', borderRight: 1, borderColor: 'divider' }}>
        <Typography variant="h1" sx={{ fontSize: '1.5rem', mb: 1.5 }}>
          {t('Check a list')}
        </Typography>
        {data && (
          <PasteForm
            extensions={data.extensions.length ? data.extensions : project.brief.extensions}
            known={known}
            busy={paste.isPending || controls.active}
            error={asApiError(paste.error)}
            report={paste.data ?? null}
            onTake={take}
          />
        )}
      </Box>
      <Stack component="section" aria-label={t('Results')} sx={{ gap: 1.2, p: 1.5, minWidth: 0 }}>
        {error && !data && (
          <LoadFailed title={t('The list could not be loaded')} error={error} onRetry={page.refetch} />
        )}
        {data?.names === 0 && (
          <EmptyState title={t('No names pasted yet')}>
            {t(
              'Paste names on the left, or take them from a file: each line is cleaned, repeats are put together, and every full name is looked up.',
            )}
          </EmptyState>
        )}
        {data && data.names > 0 && (
          <>
            <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center', minHeight: 42 }}>
              <Typography color="textSecondary" sx={{ whiteSpace: 'nowrap' }}>
                {t('{names, plural, one {# name} other {# names}}', { names: data.names })} ·{' '}
                {t('{fullNames, plural, one {# full name} other {# full names}}', { fullNames: data.full_names })}
              </Typography>
              <CheckBar controls={controls} names={data.names} what="pasted" />
              <ExportMenu projectId={project.id} />
              <Button
                onClick={() => {
                  paste.reset();
                  clear.mutate();
                }}
                disabled={controls.active}>
                {t('Empty')}
              </Button>
            </Stack>
            <Stack direction="row" role="group" aria-label={t('Statuses')} sx={{ gap: 0.7, flexWrap: 'wrap' }}>
              <Chip
                size="small"
                label={t('all {names, number}', { names: data.names })}
                variant={status ? 'outlined' : 'filled'}
                aria-pressed={!status}
                onClick={() => {
                  setStatus('');
                  setAt(0);
                }}
              />
              {Object.entries(data.statuses).map(([name, count]) => (
                <Chip
                  key={name}
                  size="small"
                  label={`${wordOf(name)} ${formatCount(count)}`}
                  variant={status === name ? 'filled' : 'outlined'}
                  aria-pressed={status === name}
                  onClick={() => {
                    setStatus(status === name ? '' : name);
                    setAt(0);
                  }}
                />
              ))}
            </Stack>
            <ListTable rows={data.rows} />
            {pages > 1 && (
              <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
                <Button disabled={at === 0} onClick={() => setAt(at - 1)}>
                  {t('Before')}
                </Button>
                <Typography variant="caption" role="status">
                  {t('{at, number} to {min, number} of {total, number}', {
                    at: at * pageSize + 1,
                    min: Math.min(data.total, (at + 1) * pageSize),
                    total: data.total,
                  })}
                </Typography>
                <Button disabled={at + 1 >= pages} onClick={() => setAt(at + 1)}>
                  {t('Next')}
                </Button>
              </Stack>
            )}
          </>
        )}
      </Stack>
    </Box>
  );
}
