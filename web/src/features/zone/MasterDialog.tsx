import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useState } from 'react';

import type { ZoneRecord } from '../../shared/api';
import { t } from '../../shared/texts';
import { FileButton } from '../../shared/ui/FileButton';
import { useZoneActs } from './useZone';

interface Props {
  id: number;
  onPut: (records: ZoneRecord[], beside: boolean) => void;
  onClose: () => void;
}

const EXAMPLE = ['$TTL 3600', '@    IN A     192.0.2.10', 'www  IN CNAME @'].join('\n');

/** Records read from a master file, told line by line where something is wrong. */
export function MasterDialog({ id, onPut, onClose }: Props) {
  const narrow = useMediaQuery('(max-width: 600px)');
  const [text, setText] = useState('');
  const { master } = useZoneActs(id);
  const read = master.data;
  const bring = async (file: File) => {
    const found = await file.text();
    setText(found);
    master.mutate(found);
  };
  return (
    <Dialog open onClose={onClose} fullScreen={narrow} maxWidth="md" fullWidth aria-labelledby="master-file">
      <DialogTitle id="master-file">{t('Records from a master file')}</DialogTitle>
      <DialogContent>
        <Stack sx={{ gap: 1.6, pt: 1 }}>
          <TextField
            label={t('The file (RFC 1035)')}
            multiline
            minRows={7}
            maxRows={14}
            value={text}
            placeholder={EXAMPLE}
            onChange={(e) => {
              setText(e.target.value);
              master.reset();
            }}
            slotProps={{ htmlInput: { spellCheck: false }, inputLabel: { shrink: true } }}
          />
          <Stack direction="row" sx={{ gap: 1 }}>
            <FileButton
              label={t('A master file')}
              accept=".zone,.txt,.db,text/dns,text/plain"
              onFile={(file) => void bring(file)}>
              {t('From a file …')}
            </FileButton>
          </Stack>
          {master.error && <Alert severity="error">{master.error.message}</Alert>}
          {read && (
            <Alert severity={read.wrong ? 'warning' : 'success'}>
              {t('{count, plural, =0 {No record} one {One record} other {# records}} can be taken.', {
                count: read.records.length,
              })}{' '}
              {read.left_out > 0 &&
                t('{count, plural, one {One is} other {# are}} left out: name servers say them by themselves.', {
                  count: read.left_out,
                })}
              {read.wrong > 0 && (
                <ul>
                  {read.problems.map((one) => (
                    <li key={one.where + one.message}>
                      {one.where}: {one.message}
                    </li>
                  ))}
                </ul>
              )}
              {read.wrong > read.problems.length && (
                <Typography variant="body2">
                  {t('… and {count, number} more.', { count: read.wrong - read.problems.length })}
                </Typography>
              )}
            </Alert>
          )}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t('Cancel')}</Button>
        {read && read.records.length > 0 ? (
          <>
            <Button onClick={() => onPut(read.records, true)}>{t('Put them beside')}</Button>
            <Button variant="contained" onClick={() => onPut(read.records, false)}>
              {t('Take them in place of all')}
            </Button>
          </>
        ) : (
          <Button variant="contained" disabled={!text.trim() || master.isPending} onClick={() => master.mutate(text)}>
            {t('Read it')}
          </Button>
        )}
      </DialogActions>
    </Dialog>
  );
}
