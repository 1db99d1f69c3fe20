import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableContainer from '@mui/material/TableContainer';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { lazy, Suspense } from 'react';
import { Link } from 'react-router';

import { asApiError, type ShortPage } from '../../shared/api';
import { formatCount, formatDay, formatMoney } from '../../shared/lib/format';
import { listOf, toggled } from '../../shared/lib/question';
import { LettersField } from '../../shared/sheet/LettersField';
import { Choice, Row } from '../../shared/ui/Choice';
import { EmptyState } from '../../shared/ui/EmptyState';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { shownStatus } from '../../shared/ui/status';
import { StatusMark } from '../../shared/ui/StatusMark';
import { t } from '../../shared/texts';
import { countedShape, SHORT_PAGE, useShortNames, useShortQuestion } from './useShortNames';

// Charts are loaded when there is something to draw.
const LengthPrices = lazy(async () => ({ default: (await import('./LengthPrices')).LengthPrices }));
const Scarcity = lazy(async () => ({ default: (await import('./Scarcity')).Scarcity }));

interface Props {
  projectId: number;
  /** Those of the brief. */
  own: readonly string[];
  /** Extensions whose zones there are, or that one may want to look at. */
  offered: readonly string[];
  checking: boolean;
  onCheck: (fullNames: string[]) => void;
  onKeep: (label: string) => void;
}

const SHAPES: readonly (readonly [string, string])[] = [
  ['???', t('three letters')],
  ['????', t('four letters')],
  ['?????', t('five letters')],
  ['CVC', t('one beat: CVC')],
  ['CVCV', t('two beats: CVCV')],
  ['CVCVC', t('CVCVC')],
  ['VCVC', t('VCVC')],
  ['CVVC', t('CVVC')],
];

const FIELDS = [
  ['shape', t('C, V, ? or letters')],
  ['letters', t('Only these letters')],
  ['text', t('Has letters')],
  ['starts', t('Begins with')],
  ['initials', t('Initials, or words')],
] as const;

/** What a zone file said of one name, and what was answered since. */
function Known({ page, row, extension }: { page: ShortPage; row: ShortPage['rows'][number]; extension: string }) {
  const cell = row.cells.find((c) => c.extension === extension);
  if (cell) return <StatusMark status={shownStatus(cell)} likely={cell.likely} />;
  const had = row.had[extension] ?? null;
  const day = page.extensions.find((e) => e.extension === extension)?.day;
  if (had === null || !day) return <Typography color="textSecondary">{t('no zone file')}</Typography>;
  return had ? (
    <StatusMark status="taken" likely={false} />
  ) : (
    <Typography
      color="textSecondary"
      title={t('Not delegated on {day}: ask before you count on it', { day: formatDay(day) })}>
      {t('not there then')}
    </Typography>
  );
}

/** Every short name of a shape, gone through at once against zone files, a page at a time. */
export function ShortNames({ projectId, own, offered, checking, onCheck, onKeep }: Props) {
  const [asked, ask] = useShortQuestion();
  const { data, error, isFetching, refetch } = useShortNames(projectId, asked, checking);
  const extensions = listOf(asked.extensions);
  const chosen = extensions.length ? extensions : own;
  const offset = asked.offset ?? 0;
  const failed = asApiError(error);
  const open = data?.rows.flatMap((row) =>
    data.extensions
      .filter(({ extension }) => row.had[extension] !== true)
      .map(({ extension }) => `${row.label}.${extension}`),
  );
  return (
    <Box component="main" sx={{ maxWidth: 1100, mx: 'auto', px: 3, py: 3 }}>
      <Typography variant="h2" component="h1">
        {t('Short names')}
      </Typography>
      <Typography color="textSecondary" sx={{ mb: 2, maxWidth: 720 }}>
        {t(
          'Every name of up to five letters of a shape, gone through at once against the newest zone files. A name that was not there may have gone since, or be held back: the registry has the last word.',
        )}
      </Typography>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center', mb: 1.5 }}>
        <TextField
          select
          size="small"
          label={t('Shape')}
          value={SHAPES.some(([shape]) => shape === (asked.shape ?? '????')) ? (asked.shape ?? '????') : ''}
          onChange={(e) => ask({ shape: e.target.value || undefined, offset: undefined })}
          sx={{ width: 210 }}>
          {SHAPES.map(([shape, word]) => (
            <MenuItem key={shape} value={shape}>
              {word}
            </MenuItem>
          ))}
          <MenuItem value="">{t('one of your own')}</MenuItem>
        </TextField>
        {FIELDS.map(([field, label]) => (
          <Box key={field} sx={{ width: 150 }}>
            <LettersField field={field} label={label} question={asked} onAsk={ask} words={field === 'initials'} />
          </Box>
        ))}
      </Stack>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center', mb: 2 }}>
        <Row label={t('Extensions')}>
          {[...new Set([...own, ...offered, ...extensions])].map((e) => (
            <Choice
              key={e}
              word={`.${e}`}
              count={data?.extensions.find((one) => one.extension === e)?.free ?? undefined}
              on={chosen.includes(e)}
              onPress={() => ask({ extensions: toggled(chosen.join(','), e), offset: undefined })}
            />
          ))}
        </Row>
        {(
          [
            ['sayable', t('that can be said')],
            ['every', t('taken ones, too')],
          ] as const
        ).map(([field, word]) => (
          <FormControlLabel
            key={field}
            control={
              <Checkbox
                size="small"
                checked={asked[field] ?? false}
                onChange={(e) => ask({ [field]: e.target.checked || undefined, offset: undefined })}
              />
            }
            label={word}
          />
        ))}
      </Stack>
      {isFetching && <LinearProgress aria-label={t('Going through the names')} />}
      {failed && !data && (
        <LoadFailed
          title={failed.problems[0]?.message ?? t('The names could not be gone through')}
          error={failed}
          onRetry={refetch}
        />
      )}
      {failed && data && (
        <Typography role="alert" sx={{ color: 'amber', mb: 1 }}>
          {failed.problems[0]?.message ?? failed.message}
        </Typography>
      )}
      {data && (
        <>
          <Stack direction="row" sx={{ justifyContent: 'space-between', flexWrap: 'wrap', gap: 1, mb: 1 }}>
            <Typography role="status">
              {t('{total} of {matching} names', {
                total: formatCount(data.total),
                matching: formatCount(data.matching),
              })}
              {data.extensions.map(({ extension, day, free }) =>
                day && free !== null
                  ? ` · ${t('.{extension}: {free} not there on {day}', { extension, free: formatCount(free), day: formatDay(day) })}`
                  : '',
              )}
            </Typography>
            <Button
              variant="contained"
              disabled={checking || !open?.length}
              onClick={() => {
                if (open) onCheck(open);
              }}>
              {checking ? t('Asking …') : t('Ask about those in view')}
            </Button>
          </Stack>
          {data.rows.length === 0 ? (
            <EmptyState title={data.matching ? t('No name of this shape is left') : t('No name is like this')}>
              {data.matching
                ? t('Try another shape, more letters, or an extension without a zone file.')
                : t('Shape and letters leave nothing together: ask for less, or for a longer shape.')}
            </EmptyState>
          ) : (
            <TableContainer>
              <Table size="small" aria-label={t('Short names')}>
                <TableHead>
                  <TableRow>
                    <TableCell>{t('Name')}</TableCell>
                    {data.extensions.map(({ extension, costs }) => (
                      <TableCell key={extension}>
                        .{extension}{' '}
                        <Typography component="span" variant="caption" color="textSecondary">
                          {costs.first && formatMoney(costs.first.amount, costs.currency)}
                        </Typography>
                      </TableCell>
                    ))}
                    <TableCell />
                  </TableRow>
                </TableHead>
                <TableBody>
                  {data.rows.map((row) => (
                    <TableRow key={row.label}>
                      <TableCell component="th" scope="row">
                        <Box
                          component={Link}
                          className="serif"
                          to={`/projects/${projectId}/names/${row.label}`}
                          sx={{ color: 'inherit', fontSize: '1.1rem' }}>
                          {row.label}
                        </Box>
                      </TableCell>
                      {data.extensions.map(({ extension }) => (
                        <TableCell key={extension}>
                          <Known page={data} row={row} extension={extension} />
                        </TableCell>
                      ))}
                      <TableCell align="right">
                        <Button
                          size="small"
                          onClick={() => onKeep(row.label)}
                          aria-label={t('Keep {label}', { label: row.label })}>
                          {t('Keep')}
                        </Button>
                      </TableCell>
                    </TableRow>
                  ))}
                </TableBody>
              </Table>
            </TableContainer>
          )}
          <Stack direction="row" sx={{ gap: 1, my: 2, alignItems: 'center' }}>
            <Button
              disabled={offset === 0}
              onClick={() => ask({ offset: offset > SHORT_PAGE ? offset - SHORT_PAGE : undefined })}>
              {t('Those before')}
            </Button>
            <Button disabled={offset + SHORT_PAGE >= data.total} onClick={() => ask({ offset: offset + SHORT_PAGE })}>
              {t('Those after')}
            </Button>
            <Typography color="textSecondary">
              {data.total > 0 &&
                t('{from, number} to {to, number}', {
                  from: offset + 1,
                  to: Math.min(offset + SHORT_PAGE, data.total),
                })}
            </Typography>
          </Stack>
        </>
      )}
      <Suspense>
        <Scarcity shape={countedShape(asked.shape ?? '????')} />
        <LengthPrices projectId={projectId} extensions={asked.extensions ?? ''} />
      </Suspense>
      {!data && !failed && <Typography>{t('Going through the names …')}</Typography>}
    </Box>
  );
}
