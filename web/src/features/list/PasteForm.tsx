import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import type { ApiError, Pasted } from '../../shared/api';
import { ChipsField } from '../../shared/ui/ChipsField';
import { LARGEST_FILE } from './useList';
import { FileButton } from '../../shared/ui/FileButton';
import { t } from '../../shared/texts';

interface Props {
  extensions: readonly string[];
  known: readonly string[];
  busy: boolean;
  error: ApiError | null;
  report: Pasted | null;
  onTake: (text: string, extensions: string[]) => void;
}

/** What was taken and what was not, sentence by sentence. */
function sentences(report: Pasted): string {
  const taken = [
    t('{n, plural, one {# name} other {# names}}', { n: report.names }),
    t('{n, plural, one {# full name} other {# full names}}', { n: report.full_names }),
    ...(report.merged ? [t('{n, plural, one {# repeat} other {# repeats}} put together', { n: report.merged })] : []),
  ];
  const left = [
    report.names_left_out > 0 &&
      t('{n, plural, one {# name} other {# names}} beyond the first 5,000 were left out.', {
        n: report.names_left_out,
      }),
    report.passed_over > 0 &&
      t('{n, plural, one {# cell of other columns was} other {# cells of other columns were}} passed over.', {
        n: report.passed_over,
      }),
    report.left_out > 0 &&
      t('{n, plural, one {# line} other {# lines}} beyond the first 5,000 were left out.', { n: report.left_out }),
  ];
  return [`${taken.join(', ')}.`, ...left.filter(Boolean)].join(' ');
}

function Report({ report }: { report: Pasted }) {
  return (
    <Alert
      severity={report.bad_count || report.left_out || report.names_left_out ? 'warning' : 'success'}
      role="status"
      sx={{ py: 0.5 }}>
      {sentences(report)}
      {report.bad_count > 0 && (
        <>
          {' '}
          {t('{n, plural, one {# piece} other {# pieces}} passed over:', { n: report.bad_count })}
          <Box
            component="ul"
            aria-label={t('Passed over')}
            sx={{ m: 0, pl: 2, maxHeight: 150, overflowY: 'auto' }}
            tabIndex={0}>
            {report.bad.map((bad) => (
              <li key={`${bad.line}${bad.text}`}>
                {t('Line {line, number}, “{bad}”: {reason}', { line: bad.line, bad: bad.text, reason: bad.reason })}
              </li>
            ))}
          </Box>
        </>
      )}
    </Alert>
  );
}

/** Names pasted, typed or from a file, and what became of each line. */
export function PasteForm({ extensions, known, busy, error, report, onTake }: Props) {
  const [text, setText] = useState('');
  const [chosen, setChosen] = useState([...extensions]);
  const [refused, setRefused] = useState('');
  const read = async (given: File | undefined) => {
    if (!given) return;
    if (given.size > LARGEST_FILE) {
      setRefused(t('{name} is larger than 1.5 MB. Take a part of it.', { name: given.name }));
      return;
    }
    setRefused('');
    setText(await given.text());
  };
  return (
    <Stack
      component="form"
      sx={{ gap: 1.5 }}
      onSubmit={(e) => {
        e.preventDefault();
        onTake(text, chosen);
      }}>
      <TextField
        label={t('Names or full names')}
        multiline
        minRows={9}
        maxRows={14}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onDrop={(e) => {
          if (e.dataTransfer.files.length) {
            e.preventDefault();
            void read(e.dataTransfer.files[0]);
          }
        }}
        placeholder={t('inkpost\npaperwren.com\nhttps://www.quietsky.org')}
        helperText={t('Lines, commas, tabs or a CSV column; up to 5,000 lines and 5,000 names.')}
        error={Boolean(refused)}
        slotProps={{ htmlInput: { spellCheck: false, 'aria-label': t('Names or full names') } }}
      />
      <ChipsField
        label={t('For names without an extension')}
        show={(e) => `.${e}`}
        options={known}
        value={chosen}
        onChange={setChosen}
        error={error?.at('extensions', true)}
      />
      <Stack direction="row" sx={{ gap: 1 }}>
        <Button type="submit" variant="contained" disabled={busy || !text.trim()}>
          {t('Take and check')}
        </Button>
        <FileButton
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          label={t('File of names')}
          onFile={(chosen) => void read(chosen)}>
          {t('From a file')}
        </FileButton>
      </Stack>
      {refused && <Alert severity="error">{refused}</Alert>}
      {error && (
        <Alert severity="error">
          {error.problems.length === 0 ? (
            error.message
          ) : (
            <Box component="ul" sx={{ m: 0, pl: 2, maxHeight: 150, overflowY: 'auto' }}>
              {error.problems.map((p) => (
                <li key={p.path + p.message}>
                  {p.path.startsWith('line') ? `${p.path[0]?.toUpperCase()}${p.path.slice(1)}: ` : ''}
                  {p.message}
                </li>
              ))}
            </Box>
          )}
        </Alert>
      )}
      {report && !error && <Report report={report} />}
      {!report && !error && (
        <Typography variant="caption" color="textSecondary">
          {t(
            'What is pasted takes the place of the list before. Nothing is registered, and nobody but the registries is told.',
          )}
        </Typography>
      )}
    </Stack>
  );
}
