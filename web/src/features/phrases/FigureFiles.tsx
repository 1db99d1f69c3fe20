import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';

import type { FigureFile } from '../../shared/api';
import { formatCount, formatDay } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { useNotify } from '../../shared/ui/Notices';
import type { PhraseActs } from './usePhrases';

function stateOf(file: FigureFile): string {
  if (file.state === 'waiting') return t('waits to be read');
  if (file.state === 'reading') return t('is being read: {done, number} lines', { done: file.done });
  if (file.state === 'failed') return t('could not be read');
  return t('{taken, plural, one {# phrase} other {# phrases}}, as of {day}', {
    taken: file.taken,
    day: formatDay(file.dated),
  });
}

/** The files figures came from: what was taken, what was wrong with which line, and taking one away. */
export function FigureFiles({ files, acts }: { files: readonly FigureFile[]; acts: PhraseActs }) {
  const notify = useNotify();
  const there = files.filter((file) => !file.removed);
  if (!there.length) return null;
  const wrong = there.reduce((sum, file) => sum + file.wrong, 0);
  return (
    <Box component="details" sx={{ mt: 2 }} open={there.some((file) => file.state !== 'done')}>
      <summary>
        {t('{count, plural, one {One file} other {# files}} of figures', { count: there.length })}
        {wrong > 0 && `, ${t('{wrong, plural, one {# remark} other {# remarks}}', { wrong })}`}
      </summary>
      <Box component="ul" aria-label={t('Files of figures')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {there.map((file) => (
          <Box component="li" key={file.id} sx={{ py: 0.8, borderTop: 1, borderColor: 'divider' }}>
            <strong>{file.kind === 'typed' ? t('Typed') : file.source}</strong>{' '}
            <Typography component="span" variant="body2" color="textSecondary">
              {[file.name, file.country, file.language].filter(Boolean).join(' · ')} {stateOf(file)}
            </Typography>{' '}
            <Button
              size="small"
              onClick={() =>
                acts.remove.mutate(file.id, {
                  onSuccess: () => notify(t('The figures are taken away.'), () => acts.restore.mutate(file.id)),
                  onError: (e) => notify(e.message),
                })
              }>
              {t('Take away')}
            </Button>
            {file.state === 'reading' && <LinearProgress aria-label={t('Lines read')} />}
            {file.problems.length > 0 && (
              <details>
                <summary>{t('What was remarked: {wrong, number}', { wrong: file.wrong })}</summary>
                <ul>
                  {file.problems.map((problem, n) => (
                    <li key={`${problem.path}${problem.code}${String(n)}`}>{`${problem.path}: ${problem.message}`}</li>
                  ))}
                  {file.wrong > file.problems.length && (
                    <li>{t('and {more} more', { more: formatCount(file.wrong - file.problems.length) })}</li>
                  )}
                </ul>
              </details>
            )}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
