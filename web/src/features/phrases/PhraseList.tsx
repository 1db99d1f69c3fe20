import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import { asApiError, type Figures } from '../../shared/api';
import { formatCount } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { EmptyState } from '../../shared/ui/EmptyState';
import { FileMenu } from '../../shared/ui/FileMenu';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { useNotify } from '../../shared/ui/Notices';
import { PhraseDetails } from './PhraseDetails';
import { PhraseFilters } from './PhraseFilters';
import { PhraseTable } from './PhraseTable';
import { useBriefActs } from './useBriefActs';
import { PHRASE_FIELDS, type PhraseActs, type Question, usePhrasePage } from './usePhrases';

const PAGE = 100;

interface Props {
  projectId: number;
  figures: Figures;
  question: Question;
  onAsk: (part: { [K in keyof Question]?: Question[K] | undefined }) => void;
  acts: PhraseActs;
}

/** The phrases: narrowed, ordered, chosen, each opened up. */
export function PhraseList({ projectId, figures, question, onAsk, acts }: Props) {
  const { data, error, refetch, isFetching } = usePhrasePage(projectId, question);
  const [open, setOpen] = useState<string | null>(null);
  const [weigh, setWeigh] = useState(true);
  const notify = useNotify();
  const brief = useBriefActs(projectId, acts);
  if (!data) {
    if (!error) return <LinearProgress aria-label={t('Loading the phrases')} />;
    return <LoadFailed title={t('The phrases could not be loaded')} error={error} onRetry={refetch} />;
  }
  const offset = question.offset ?? 0;
  const last = Math.max(0, Math.ceil(data.total / PAGE) - 1);
  const page = offset / PAGE;
  const choose = (phrases: string[], on: boolean) => {
    acts.choose.mutate(
      { phrases, on },
      {
        onSuccess: () => {
          if (phrases.length > 1)
            notify(
              on
                ? t('{count, plural, one {# phrase} other {# phrases}} chosen.', { count: phrases.length })
                : t('{count, plural, one {# phrase} other {# phrases}} taken off.', { count: phrases.length }),
              () => acts.choose.mutate({ phrases, on: !on }),
            );
        },
        onError: (e) => notify(asApiError(e)?.problems[0]?.message ?? e.message),
      },
    );
  };
  const keywords = () =>
    brief.keywords(
      data.lines.filter((line) => line.chosen).map((line) => line.phrase),
      data.view,
      weigh,
    );
  const fields = new URLSearchParams(PHRASE_FIELDS.write({ ...question, offset: undefined }));
  const shown = data.lines.some((line) => line.chosen);
  return (
    <Box>
      <PhraseFilters question={question} onAsk={onAsk} />
      <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center', flexWrap: 'wrap', my: 1 }}>
        <Typography role="status" color="textSecondary">
          {t('{total} of {heads} phrases, {demand} searches a month', {
            total: formatCount(data.total),
            heads: formatCount(data.heads),
            demand: formatCount(data.demand),
          })}
          {data.unknown > 0 && `; ${t('of {unknown, number} nothing is known', { unknown: data.unknown })}`}
          {data.phrases > data.heads &&
            ` (${t('{phrases, number} before they were gathered', { phrases: data.phrases })})`}
          {isFetching && ' …'}
        </Typography>
        <Button size="small" variant="outlined" disabled={!shown || acts.keywords.isPending} onClick={keywords}>
          {t('Chosen ones of this page as keywords')}
        </Button>
        <FormControlLabel
          control={<Checkbox size="small" checked={weigh} onChange={(_, on) => setWeigh(on)} />}
          label={t('weighed by demand')}
        />
        <FileMenu
          address={(form) => `/api/projects/${projectId}/phrases/file?what=phrases&form=${form}&${fields.toString()}`}
        />
        {figures.dropped > 0 && (
          <Typography variant="caption" color="textSecondary">
            {t('{dropped, number} put aside', { dropped: figures.dropped })}
          </Typography>
        )}
      </Stack>
      <Box sx={{ display: 'grid', gap: 2, gridTemplateColumns: { xs: '1fr', lg: open ? '1fr 340px' : '1fr' } }}>
        <Box sx={{ minWidth: 0, order: { xs: 2, lg: 1 } }}>
          {data.total === 0 ? (
            <EmptyState
              title={t('No phrase is like that')}
              action={
                <Button onClick={() => onAsk({ ...PHRASE_FIELDS.unfiltered, view: question.view })}>
                  {t('Show all of them')}
                </Button>
              }
            />
          ) : (
            <PhraseTable
              lines={data.lines}
              question={question}
              open={open}
              onSort={({ sort, reverse }) => onAsk({ sort, reverse: reverse || undefined, offset: undefined })}
              onOpen={(phrase) => setOpen(open === phrase ? null : phrase)}
              onChoose={choose}
            />
          )}
          {last > 0 && (
            <Stack direction="row" sx={{ gap: 1, alignItems: 'center', mt: 1 }}>
              <Button size="small" disabled={page === 0} onClick={() => onAsk({ offset: offset - PAGE || undefined })}>
                {t('Those before')}
              </Button>
              <Typography variant="body2">
                {t('{page} of {pages}', { page: formatCount(page + 1), pages: formatCount(last + 1) })}
              </Typography>
              <Button size="small" disabled={page >= last} onClick={() => onAsk({ offset: offset + PAGE })}>
                {t('Those after')}
              </Button>
            </Stack>
          )}
        </Box>
        {open && (
          <Box sx={{ order: { xs: 1, lg: 2 }, minWidth: 0 }}>
            <PhraseDetails
              projectId={projectId}
              phrase={open}
              view={data.view}
              service={figures.service}
              acts={acts}
              onOpen={setOpen}
              onClose={() => setOpen(null)}
            />
          </Box>
        )}
      </Box>
    </Box>
  );
}
