import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import { asApiError, type Registers as All } from '../../shared/api';
import { rich, t } from '../../shared/texts';
import { Age } from '../../shared/ui/Age';
import { FileButton } from '../../shared/ui/FileButton';
import { useRegisterActs, useRegisters } from './useRegisters';

function Told({ file }: { file: All['files'][number] }) {
  const done = t('{done, plural, one {# mark} other {# marks}} taken', { done: file.done });
  return (
    <Box component="li" sx={{ py: 0.5, borderTop: 1, borderColor: 'divider' }}>
      <Typography component="span" sx={{ fontWeight: 600 }}>
        {file.name}
      </Typography>{' '}
      <Typography component="span" variant="body2" color="textSecondary">
        {file.state === 'waiting' && t('waits to be read')}
        {file.state === 'reading' && t('is being read: {done}', { done })}
        {file.state === 'done' && done}
        {file.state === 'failed' && t('could not be read')}
        {file.wrong > 0 && `, ${t('{wrong, plural, one {# place} other {# places}} left out', { wrong: file.wrong })}`}
        {rich(', brought {age}', { age: <Age at={file.brought_at} /> })}
      </Typography>
      {file.problems.length > 0 && (
        <details>
          <summary>{t('What was wrong')}</summary>
          <ul>
            {file.problems.map((problem) => (
              <li key={`${problem.path}${problem.code}`}>{`${problem.path}: ${problem.message}`}</li>
            ))}
          </ul>
        </details>
      )}
    </Box>
  );
}

/** Registers of marks and the catalogue of platforms, for administrators. */
export function Registers() {
  const { data } = useRegisters();
  const { marks, platforms } = useRegisterActs();
  const [office, setOffice] = useState('');
  if (!data?.may_edit) return null;
  const failed = asApiError(marks.error ?? platforms.error);
  return (
    <Box component="details" sx={{ mt: 4 }}>
      <summary>{t('Registers and platforms everybody’s names are vetted by')}</summary>
      <Stack direction="row" sx={{ gap: 1, my: 1.5, flexWrap: 'wrap', alignItems: 'center' }}>
        <TextField
          size="small"
          label={t('Office, where the file names none')}
          value={office}
          onChange={(e) => setOffice(e.target.value.slice(0, 60))}
          sx={{ width: 260 }}
        />
        <FileButton
          label={t('A register of marks: CSV, or XML after WIPO ST.96')}
          accept=".csv,.xml,text/csv,application/xml"
          disabled={marks.isPending}
          onFile={(file) => marks.mutate({ file, office })}>
          {t('Bring a register of marks …')}
        </FileButton>
        <FileButton
          label={t('A catalogue of platforms: CSV')}
          accept=".csv,text/csv"
          disabled={platforms.isPending}
          onFile={(file) => platforms.mutate(file)}>
          {t('Bring a catalogue of platforms …')}
        </FileButton>
        <Button size="small" href="/api/platforms" download>
          {t('The catalogue as CSV')}
        </Button>
      </Stack>
      {platforms.isSuccess && <Alert severity="success">{t('The catalogue of platforms is in force.')}</Alert>}
      {failed && (
        <Alert severity="error">
          {failed.problems.length
            ? failed.problems.slice(0, 8).map((p) => <div key={`${p.path}${p.code}`}>{`${p.path}: ${p.message}`}</div>)
            : failed.message}
        </Alert>
      )}
      <Box component="ul" aria-label={t('Registers brought')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {data.files.map((file) => (
          <Told key={`${file.name}${file.brought_at}`} file={file} />
        ))}
      </Box>
    </Box>
  );
}
