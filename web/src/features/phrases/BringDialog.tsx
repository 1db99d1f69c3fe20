import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type ReactNode, useState } from 'react';

import { type ApiError, asApiError, type LookedAt } from '../../shared/api';
import { t } from '../../shared/texts';
import { FileButton } from '../../shared/ui/FileButton';
import { useNotify } from '../../shared/ui/Notices';
import { type About, type PhraseActs } from './usePhrases';

type Column = LookedAt['columns'][number];
type Way = 'table' | 'typed' | 'service';

const KINDS: readonly (readonly [Column['kind'], string])[] = [
  ['', t('passed over')],
  ['phrase', t('the phrase')],
  ['searches', t('searches a month')],
  ['low', t('searches, at least')],
  ['high', t('searches, at most')],
  ['month', t('searches in one month')],
  ['series', t('twelve months in one cell')],
  ['competition', t('competition, 0 to 1')],
  ['price', t('price of a click')],
  ['currency', t('currency')],
  ['language', t('language')],
  ['country', t('country')],
];

interface Props {
  acts: PhraseActs;
  /** There is a service of demand to be asked. */
  service: boolean;
  /** What country the project is meant for. */
  country: string;
  /** The keywords of the brief, to begin with. */
  keywords: readonly string[];
  onClose: () => void;
}

/** What is wrong, each at its place. */
function Wrong({ error }: { error: ApiError }) {
  return (
    <Alert severity="error" sx={{ mt: 1 }}>
      {error.problems.length > 0
        ? error.problems.slice(0, 8).map((p) => <div key={`${p.path}${p.message}`}>{`${p.path}: ${p.message}`}</div>)
        : error.message}
    </Alert>
  );
}

/** How a table is understood: its first lines under what each column holds, to be put right. */
function Understood({
  looked,
  columns,
  onColumns,
}: {
  looked: LookedAt;
  columns: readonly Column[];
  onColumns: (next: Column[]) => void;
}) {
  return (
    <Box sx={{ my: 1.5 }}>
      <Typography variant="body2" color="textSecondary">
        {looked.heading_line
          ? t('{encoding}, the heading in line {line, number}.', {
              encoding: looked.encoding,
              line: looked.heading_line,
            })
          : t('{encoding}, without a heading.', { encoding: looked.encoding })}{' '}
        {looked.habit
          ? t('The columns are as you said of such a table before.')
          : t('Look whether each column holds what it says here; what you put right is remembered.')}
      </Typography>
      <Box sx={{ overflowX: 'auto', mt: 1 }}>
        <Box
          component="table"
          aria-label={t('The first lines')}
          sx={{
            borderCollapse: 'collapse',
            '& td, & th': { px: 0.8, py: 0.3, textAlign: 'left', whiteSpace: 'nowrap' },
          }}>
          <thead>
            <tr>
              {columns.map((column, i) => (
                <th key={`${looked.heading[i] ?? ''}${String(i)}`} scope="col">
                  <TextField
                    select
                    variant="standard"
                    value={column.kind}
                    onChange={(e) =>
                      onColumns(
                        columns.map((c, at) => (at === i ? { ...c, kind: e.target.value as Column['kind'] } : c)),
                      )
                    }
                    slotProps={{
                      select: { displayEmpty: true },
                      htmlInput: {
                        'aria-label': t('What column {n, number} holds', { n: i + 1 }),
                      },
                    }}
                    sx={{ minWidth: 120 }}>
                    {KINDS.map(([kind, word]) => (
                      <MenuItem key={kind} value={kind} disabled={kind === 'month' && !column.month}>
                        {kind === 'month' && column.month ? t('searches in {month}', { month: column.month }) : word}
                      </MenuItem>
                    ))}
                  </TextField>
                </th>
              ))}
            </tr>
            <tr>
              {columns.map((_, i) => (
                <Box component="td" key={`head ${String(i)}`} sx={{ fontWeight: 600, color: 'text.secondary' }}>
                  {looked.heading[i] ?? ''}
                </Box>
              ))}
            </tr>
          </thead>
          <tbody>
            {looked.rows.map((row, n) => (
              <Box component="tr" key={`row ${String(n)}`} sx={{ borderTop: 1, borderColor: 'divider' }}>
                {columns.map((_, i) => (
                  <td key={`cell ${String(i)}`}>{row[i] ?? ''}</td>
                ))}
              </Box>
            ))}
          </tbody>
        </Box>
      </Box>
    </Box>
  );
}

const NOTHING: About = { source: '', country: '', language: '', currency: '', dated: '', columns: '' };

/** A table from a file or pasted: looked at, put right where it is misread, and brought. */
function TablePart({
  acts,
  country,
  onClose,
  cancel,
}: Pick<Props, 'acts' | 'country' | 'onClose'> & { cancel: ReactNode }) {
  const { look, bring } = acts;
  const [file, setFile] = useState<{ content: Blob; name: string } | null>(null);
  const [pasted, setPasted] = useState('');
  const [columns, setColumns] = useState<readonly Column[]>([]);
  const [about, setAbout] = useState<About>({ ...NOTHING, country });
  const see = (content: Blob, name: string) => {
    setFile({ content, name });
    bring.reset();
    look.mutate(content, { onSuccess: (looked) => setColumns(looked.columns) });
    if (!about.source && name) setAbout((now) => ({ ...now, source: name.replace(/\.[a-z]+$/i, '').slice(0, 60) }));
  };
  const failed = asApiError(look.error ?? bring.error);
  const field = (name: 'source' | 'country' | 'language' | 'currency', label: string, width: number, most: number) => (
    <TextField
      size="small"
      label={label}
      value={about[name]}
      onChange={(e) => setAbout({ ...about, [name]: e.target.value.slice(0, most) })}
      error={Boolean(failed?.at(name))}
      helperText={failed?.at(name)}
      sx={{ width }}
    />
  );
  const ready = file !== null && look.data !== undefined && columns.some((c) => c.kind === 'phrase');
  return (
    <>
      <DialogContent>
        <Typography color="textSecondary" sx={{ mb: 1.5 }}>
          {t(
            'A table of phrases with how often they are looked for, as your tool exports it: CSV or tabs, in any usual encoding, up to 200,000 lines.',
          )}
        </Typography>
        <Stack direction="row" sx={{ gap: 1.5, alignItems: 'flex-start', flexWrap: 'wrap' }}>
          <FileButton
            size="medium"
            label={t('A table of phrases')}
            accept=".csv,.tsv,.txt,text/csv,text/tab-separated-values,text/plain"
            onFile={(chosen) => see(chosen, chosen.name)}>
            {t('Choose a file …')}
          </FileButton>
          <TextField
            multiline
            minRows={1}
            maxRows={5}
            size="small"
            label={t('or paste it here')}
            value={pasted}
            onChange={(e) => setPasted(e.target.value)}
            sx={{ flex: 1, minWidth: 220 }}
          />
          <Button
            variant="outlined"
            disabled={!pasted.trim() || look.isPending}
            onClick={() => see(new Blob([pasted]), '')}>
            {t('Look at it')}
          </Button>
        </Stack>
        {file && look.data && (
          <>
            {file.name && (
              <Typography sx={{ mt: 1.5 }}>
                <strong>{file.name}</strong>
              </Typography>
            )}
            <Understood looked={look.data} columns={columns} onColumns={setColumns} />
            <Stack direction="row" sx={{ gap: 1.2, flexWrap: 'wrap', mt: 2 }}>
              {field('source', t('Where the figures are from'), 240, 60)}
              {field('country', t('Country'), 100, 2)}
              {field('language', t('Language'), 110, 10)}
              {field('currency', t('Currency of prices'), 150, 3)}
              <TextField
                size="small"
                type="date"
                label={t('As of')}
                value={about.dated}
                onChange={(e) => setAbout({ ...about, dated: e.target.value })}
                error={Boolean(failed?.at('dated'))}
                helperText={failed?.at('dated') ?? t('today, when left empty')}
                slotProps={{ inputLabel: { shrink: true } }}
              />
            </Stack>
            <Typography variant="caption" color="textSecondary">
              {t('Country, language and currency count for lines that do not say them.')}
            </Typography>
          </>
        )}
        {failed && <Wrong error={failed} />}
      </DialogContent>
      <DialogActions>
        {cancel}
        <Button
          variant="contained"
          disabled={!ready || bring.isPending || !about.source.trim()}
          onClick={() => {
            if (!file) return;
            const said = columns.map(({ kind, month }) => (kind === 'month' ? `month:${month}` : kind)).join(',');
            bring.mutate(
              { file: file.content, name: file.name, about: { ...about, columns: said } },
              { onSuccess: onClose },
            );
          }}>
          {t('Bring the figures')}
        </Button>
      </DialogActions>
    </>
  );
}

/** Phrases typed, a line each; with figures of the service where it is asked. */
function TypedPart({
  acts,
  country,
  keywords,
  service,
  onClose,
  cancel,
}: Omit<Props, 'service'> & { service: boolean; cancel: ReactNode }) {
  const [text, setText] = useState(service ? keywords.join('\n') : '');
  const [where, setWhere] = useState({ country, language: '' });
  const notify = useNotify();
  const { type, ask } = acts;
  const lines = text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
  const failed = asApiError(service ? ask.error : type.error);
  const go = () => {
    if (!service) {
      type.mutate(text, {
        onSuccess: ({ new: fresh, problems }) => {
          notify(
            [t('{fresh, plural, =0 {No new phrase} one {# new phrase} other {# new phrases}}.', { fresh })]
              .concat(problems.map((p) => `${p.path}: ${p.message}`))
              .join(' '),
          );
          onClose();
        },
      });
      return;
    }
    ask.mutate(
      { phrases: lines.slice(0, 500), ...where, companions: false },
      {
        onSuccess: ({ taken, unknown, source, why }) => {
          notify(
            why
              ? t('The service did not answer all: {why}. {taken, plural, one {# figure} other {# figures}} taken.', {
                  why,
                  taken,
                })
              : t('{source}: {taken, plural, one {# phrase} other {# phrases}}, {unknown, number} of them unknown.', {
                  source,
                  taken,
                  unknown,
                }),
          );
          if (!why) onClose();
        },
      },
    );
  };
  return (
    <>
      <DialogContent>
        <Typography color="textSecondary" sx={{ mb: 1.5 }}>
          {service
            ? t('The service of demand is asked how often each of these is looked for, up to 500 at once.')
            : t('Phrases without figures, a line each. Figures can be brought, or asked for, later.')}
        </Typography>
        <TextField
          fullWidth
          multiline
          minRows={5}
          maxRows={14}
          label={t('Phrases, a line each')}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        {service && (
          <Stack direction="row" sx={{ gap: 1.2, mt: 1.5 }}>
            <TextField
              size="small"
              label={t('Country')}
              value={where.country}
              onChange={(e) => setWhere({ ...where, country: e.target.value.slice(0, 2).toUpperCase() })}
              sx={{ width: 100 }}
            />
            <TextField
              size="small"
              label={t('Language')}
              value={where.language}
              onChange={(e) => setWhere({ ...where, language: e.target.value.slice(0, 10) })}
              sx={{ width: 110 }}
            />
          </Stack>
        )}
        {failed && <Wrong error={failed} />}
      </DialogContent>
      <DialogActions>
        {cancel}
        <Button variant="contained" disabled={!lines.length || type.isPending || ask.isPending} onClick={go}>
          {service ? t('Ask for figures') : t('Add the phrases')}
        </Button>
      </DialogActions>
    </>
  );
}

/** Bringing figures: from a table, typed, or asked of a service. */
export function BringDialog(props: Props) {
  const { service, onClose } = props;
  const [way, setWay] = useState<Way>('table');
  const cancel = <Button onClick={onClose}>{t('Cancel')}</Button>;
  return (
    <Dialog open fullWidth maxWidth="md" onClose={onClose} aria-labelledby="bring-title">
      <DialogTitle id="bring-title">{t('Bring phrases')}</DialogTitle>
      <Tabs value={way} onChange={(_, next: Way) => setWay(next)} sx={{ px: 3 }}>
        <Tab value="table" label={t('A table')} />
        <Tab value="typed" label={t('Typed')} />
        {service && <Tab value="service" label={t('Ask a service')} />}
      </Tabs>
      {way === 'table' && <TablePart {...props} cancel={cancel} />}
      {way !== 'table' && <TypedPart key={way} {...props} service={way === 'service'} cancel={cancel} />}
    </Dialog>
  );
}
