import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { ScatterChart } from '@mui/x-charts/ScatterChart';
import { Fragment, type ReactNode, useState } from 'react';
import { Link } from 'react-router';

import { asApiError, type Ladder, type Ladders } from '../../shared/api';
import { formatCount } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { EmptyState } from '../../shared/ui/EmptyState';
import { FileMenu } from '../../shared/ui/FileMenu';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { useNotify } from '../../shared/ui/Notices';
import { useInks } from '../../shared/ui/useInks';
import type { ShownStatus } from '../../shared/ui/status';
import { StatusMark } from '../../shared/ui/StatusMark';
import { type PhraseActs, useLadders } from './usePhrases';

type Rung = Ladders['order'][number];
const RUNGS: Readonly<Record<Rung, string>> = {
  exact_first: t('as it is, first extension'),
  exact_next: t('as it is, next extensions'),
  hyphen_first: t('with a hyphen, first extension'),
  added_first: t('one added word, first extension'),
  hyphen_next: t('with a hyphen, next extensions'),
  added_next: t('one added word, next extensions'),
};
const PROBLEMS: Readonly<Record<string, string>> = {
  long: t('longer than a name can be (63 letters)'),
  letters: t('has letters no name is made of without a rule of its own'),
};

interface Props {
  projectId: number;
  view: string;
  acts: PhraseActs;
  /** How far a check is, and stopping it. */
  checking: ReactNode;
  active: boolean;
}

/** Demand against how good the best open form is: less looked for, but clean. */
function TradeOff({ ladders, onOpen }: { ladders: Ladders; onOpen: (phrase: string) => void }) {
  const inks = useInks();
  const dots = ladders.lines.filter(
    (line): line is Ladder & { best: NonNullable<Ladder['best']>; grade: number; demand: number } =>
      line.best !== null && line.grade !== null && line.demand !== null,
  );
  if (dots.length < 2) return null;
  const kinds = ladders.order.filter((rung) => dots.some((line) => line.best.rung === rung));
  return (
    <Box component="section" aria-label={t('Searches against the best open form')} sx={{ mt: 1 }}>
      <Typography variant="h2">{t('Looked for, or clean')}</Typography>
      <Typography variant="body2" color="textSecondary">
        {t('Each dot is a phrase: how much it is looked for, and the grade of the first form of it that is open.')}
      </Typography>
      <ScatterChart
        height={260}
        skipAnimation
        margin={{ left: 8, right: 16, top: 12, bottom: 4 }}
        xAxis={[
          {
            scaleType: 'symlog',
            min: 0,
            label: t('Searches a month'),
            valueFormatter: (n: number) => formatCount(n),
            tickInterval: [0, 10, 100, 1_000, 10_000, 100_000],
          },
        ]}
        yAxis={[{ width: 56, min: 0, max: 100, label: t('Grade') }]}
        series={kinds.map((rung) => {
          const own = dots.filter((line) => line.best.rung === rung);
          return {
            id: rung,
            label: RUNGS[rung],
            color: inks[ladders.order.indexOf(rung) % inks.length] ?? '#000',
            markerSize: 5,
            data: own.map((line) => ({ x: line.demand, y: line.grade, id: line.phrase })),
            valueFormatter: (point) =>
              t('{phrase}: {searches, number} searches, grade {grade, number}', {
                phrase: String(point.id),
                searches: point.x,
                grade: Math.round(point.y),
              }),
          };
        })}
        onItemClick={(_: unknown, { seriesId, dataIndex }: { seriesId: unknown; dataIndex?: number }) => {
          const line = dots.filter((one) => one.best.rung === seriesId)[dataIndex ?? -1];
          if (line) onOpen(line.phrase);
        }}
        slotProps={{ legend: { direction: 'horizontal', position: { vertical: 'bottom', horizontal: 'center' } } }}
      />
    </Box>
  );
}

function Rungs({ line }: { line: Ladder }) {
  return (
    <Box component="ul" sx={{ m: 0, pl: 0, listStyle: 'none' }}>
      {line.rungs.map(({ rung, forms }) => (
        <li key={rung}>
          <Typography component="span" variant="caption" color="textSecondary">
            {RUNGS[rung]}:
          </Typography>{' '}
          {forms.map((form) => (
            <Box component="span" key={`${form.label}.${form.extension}`} sx={{ mr: 1.5, whiteSpace: 'nowrap' }}>
              {form.label}.{form.extension}{' '}
              <StatusMark status={(form.status || 'unasked') as ShownStatus} likely={form.likely} />
            </Box>
          ))}
        </li>
      ))}
    </Box>
  );
}

/** The chosen phrases as names: the first open form of each, beside how much it is looked for. */
export function LaddersPart({ projectId, view, acts, checking, active }: Props) {
  const { data, error, refetch } = useLadders(projectId, view);
  const [open, setOpen] = useState<string | null>(null);
  const notify = useNotify();
  if (!data) {
    if (!error) return <LinearProgress aria-label={t('Loading the names')} />;
    return <LoadFailed title={t('The names could not be loaded')} error={error} onRetry={refetch} />;
  }
  if (!data.lines.length)
    return (
      <EmptyState title={t('No phrase is chosen yet')}>
        {t('Choose phrases under Phrases or Groups: each is shown here with the first form of it that is open.')}
      </EmptyState>
    );
  const openForms = data.lines.filter((line) => line.best).length;
  return (
    <Box>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography role="status" color="textSecondary">
          {t(
            '{lines, plural, one {# phrase} other {# phrases}}: an open form of {open, number}; {asked, number} of {forms, number} forms asked.',
            {
              lines: data.lines.length,
              open: openForms,
              asked: data.asked,
              forms: data.forms,
            },
          )}
        </Typography>
        {active ? (
          checking
        ) : (
          <Button
            variant="contained"
            disabled={acts.check.isPending}
            onClick={() =>
              acts.check.mutate(undefined, { onError: (e) => notify(asApiError(e)?.message ?? e.message) })
            }>
            {t('Check the forms')}
          </Button>
        )}
        <FileMenu
          address={(form) =>
            `/api/projects/${projectId}/phrases/file?what=names&form=${form}&${new URLSearchParams({ view }).toString()}`
          }
        />
      </Stack>
      <Typography variant="body2" color="textSecondary">
        {t('In your order: {order}. It is changed at any name on the bench, under “If taken”.', {
          order: data.order.map((rung) => RUNGS[rung]).join(' → '),
        })}
      </Typography>
      <TradeOff ladders={data} onOpen={setOpen} />
      <Box sx={{ overflowX: 'auto', mt: 1 }}>
        <Box
          component="table"
          aria-label={t('Phrases as names')}
          sx={{
            width: '100%',
            minWidth: 640,
            borderCollapse: 'collapse',
            '& td, & th': { py: 0.4, pr: 1.5, textAlign: 'left' },
            '& .num': { textAlign: 'right', fontVariantNumeric: 'tabular-nums' },
            '& tbody tr': { borderTop: 1, borderColor: 'divider' },
          }}>
          <thead>
            <tr>
              <th scope="col">{t('Phrase')}</th>
              <th scope="col" className="num">
                {t('Searches a month')}
              </th>
              <th scope="col">{t('First open form')}</th>
              <th scope="col">{t('Which form')}</th>
              <th scope="col" className="num">
                {t('Grade')}
              </th>
            </tr>
          </thead>
          <tbody>
            {data.lines.map((line) => (
              <Fragment key={line.phrase}>
                <tr>
                  <td>
                    <Button
                      color="inherit"
                      className="serif"
                      aria-expanded={open === line.phrase}
                      onClick={() => setOpen(open === line.phrase ? null : line.phrase)}
                      sx={{ px: 0, minWidth: 0, fontSize: '1rem', textAlign: 'left', overflowWrap: 'anywhere' }}>
                      {line.phrase}
                    </Button>
                  </td>
                  <td className="num">{line.demand === null ? '–' : formatCount(line.demand)}</td>
                  <td>
                    {line.best ? (
                      <Box
                        component={Link}
                        to={`/projects/${projectId}/names/${line.best.label}`}
                        sx={{ color: 'secondary.main', fontWeight: 600 }}>
                        {line.best.label}.{line.best.extension}
                      </Box>
                    ) : (
                      <Typography component="span" variant="body2" color="textSecondary">
                        {line.problem
                          ? PROBLEMS[line.problem]
                          : line.asked < line.forms
                            ? t('none known; {left, number} not asked', { left: line.forms - line.asked })
                            : t('none is open')}
                      </Typography>
                    )}
                  </td>
                  <td>{line.best && RUNGS[line.best.rung]}</td>
                  <td className="num">{line.grade === null ? '–' : Math.round(line.grade)}</td>
                </tr>
                {open === line.phrase && (
                  <tr>
                    <td colSpan={5}>
                      <Rungs line={line} />
                      <Button
                        size="small"
                        onClick={() => {
                          const phrases = [line.phrase];
                          acts.choose.mutate(
                            { phrases, on: false },
                            {
                              onSuccess: () =>
                                notify(t('“{phrase}” is taken off.', { phrase: line.phrase }), () =>
                                  acts.choose.mutate({ phrases, on: true }),
                                ),
                              onError: (e) => notify(e.message),
                            },
                          );
                        }}>
                        {t('Take off the chosen')}
                      </Button>
                    </td>
                  </tr>
                )}
              </Fragment>
            ))}
          </tbody>
        </Box>
      </Box>
    </Box>
  );
}
