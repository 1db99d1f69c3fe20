import Box from '@mui/material/Box';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';

import { asApiError, type Outcome } from '../../shared/api';
import { Age } from '../../shared/ui/Age';
import { EmptyState } from '../../shared/ui/EmptyState';
import { useResults } from './useShares';
import { t } from '../../shared/texts';

const share = (part: number, whole: number): string =>
  whole ? t('{part} % of {whole}', { part: Math.round((100 * part) / whole), whole }) : t('nobody yet');

function Wrong({ outcome }: { outcome: Outcome }) {
  const wrong = Object.entries(outcome.wrong)
    .sort((a, b) => b[1] - a[1])
    .slice(0, 4);
  return wrong.length ? (
    <Typography variant="caption" color="textSecondary" component="div">
      {t('wrote {wrong}', { wrong: wrong.map(([word, n]) => (n > 1 ? `${word} (${n})` : word)).join(', ') })}
    </Typography>
  ) : null;
}

/** Votes, what was heard and remembered, and comments, name by name. */
export function Results({ projectId, shareId }: { projectId: number; shareId: number }) {
  const { data, error } = useResults(projectId, shareId);
  const failed = asApiError(error);
  if (failed && !data)
    return (
      <EmptyState alert title={t('The answers could not be loaded')}>
        {failed.message}
      </EmptyState>
    );
  if (!data) return <LinearProgress aria-label={t('Loading the answers')} />;
  const best = [...data.outcomes].sort((a, b) => b.liked - b.disliked - (a.liked - a.disliked));
  const cell = {
    p: 1,
    borderTop: 1,
    borderColor: 'divider',
    textAlign: 'left',
    verticalAlign: 'top',
  } as const;
  return (
    <Box>
      <Typography color="textSecondary" role="status" sx={{ mb: 1 }}>
        {t('{people, plural, one {# person} other {# people}} opened the link.', { people: data.people })}
      </Typography>
      <Box sx={{ overflowX: 'auto' }}>
        <Box
          component="table"
          aria-label={t('Answers to {title}', { title: data.share.title })}
          sx={{ borderCollapse: 'collapse', width: '100%', minWidth: 620 }}>
          <thead>
            <tr>
              {[
                t('Name'),
                t('For'),
                t('Against'),
                t('No matter'),
                t('Heard and written right'),
                t('Computed spelling'),
                t('Remembered'),
              ].map((h) => (
                <Box
                  component="th"
                  scope="col"
                  key={h}
                  sx={{ ...cell, borderTop: 0, color: 'text.secondary', fontWeight: 600 }}>
                  {h}
                </Box>
              ))}
            </tr>
          </thead>
          <tbody>
            {best.map((o) => (
              <tr key={o.label}>
                <Box component="th" scope="row" sx={{ ...cell, fontWeight: 400 }}>
                  <span className="serif">{o.shown_as}</span>
                  {o.comments.map((c) => (
                    <Typography key={c.id} variant="body2" color="textSecondary" sx={{ maxWidth: 340 }}>
                      “{c.text}” {c.first_name || t('someone')}, <Age at={c.said_at} />
                    </Typography>
                  ))}
                </Box>
                <Box component="td" sx={cell}>
                  {o.liked}
                </Box>
                <Box component="td" sx={cell}>
                  {o.disliked}
                </Box>
                <Box component="td" sx={cell}>
                  {o.neutral}
                </Box>
                <Box component="td" sx={cell}>
                  {share(o.right, o.heard)}
                  <Wrong outcome={o} />
                </Box>
                <Box component="td" sx={cell}>
                  {o.spelling === null ? t('not graded') : Math.round(o.spelling)}
                </Box>
                <Box component="td" sx={cell}>
                  {share(o.remembered, o.shown)}
                </Box>
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
    </Box>
  );
}
