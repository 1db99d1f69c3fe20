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

import type { Brought } from '../../shared/api';
import { t } from '../../shared/texts';
import { FileButton } from '../../shared/ui/FileButton';
import { useOwnedActs } from './useOwned';

const SHOWN = 12;
const EXAMPLE = ['inkpost.example', 'paperbarn.example'].join('\n');

/** What came of a list that was brought, line by line where something was wrong. */
function Result({ brought }: { brought: Brought }) {
  return (
    <Stack sx={{ gap: 1 }}>
      <Alert severity={brought.new + brought.changed ? 'success' : 'warning'}>
        {t(
          '{new, plural, one {One name is} other {# names are}} new on the list, {changed, number} were there already.',
          {
            new: brought.new,
            changed: brought.changed,
          },
        )}
      </Alert>
      {brought.wrong > 0 && (
        <Alert severity="warning">
          {t('{wrong, plural, one {One thing was} other {# things were}} wrong and left out; all else was taken.', {
            wrong: brought.wrong,
          })}
          <ul>
            {brought.problems.slice(0, SHOWN).map((one) => (
              <li key={one.where + one.message}>
                {one.where}: {one.message}
              </li>
            ))}
          </ul>
        </Alert>
      )}
    </Stack>
  );
}

/** Names put on the list: typed, or from a table. */
export function AddDialog({ onClose }: { onClose: () => void }) {
  const { add } = useOwnedActs();
  const narrow = useMediaQuery('(max-width: 600px)');
  const [text, setText] = useState('');
  const bring = async (file: File) => {
    add.mutate({ text: await file.text(), table: true });
  };
  return (
    <Dialog open onClose={onClose} fullScreen={narrow} maxWidth="sm" fullWidth aria-labelledby="add-owned">
      <DialogTitle id="add-owned">{t('Names you own')}</DialogTitle>
      <DialogContent>
        <Stack sx={{ gap: 1.6, pt: 1 }}>
          <TextField
            label={t('Full names, one a line')}
            multiline
            minRows={5}
            maxRows={14}
            value={text}
            placeholder={EXAMPLE}
            onChange={(e) => setText(e.target.value)}
          />
          <Typography variant="body2" color="textSecondary">
            {t('What else there is to know of each is read from its registry.')}
          </Typography>
          <Stack direction="row" sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
            <FileButton
              label={t('A table of names')}
              accept=".csv,.tsv,.txt,text/csv"
              onFile={(file) => void bring(file)}>
              {t('From a table (CSV) …')}
            </FileButton>
            <Typography variant="body2" color="textSecondary">
              {t(
                'With a heading: full name, seller, registered, expires, renewal, locked, privacy, name servers, tags.',
              )}
            </Typography>
          </Stack>
          {add.error && <Alert severity="error">{add.error.message}</Alert>}
          {add.data && <Result brought={add.data} />}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{add.data ? t('Done') : t('Cancel')}</Button>
        <Button
          variant="contained"
          disabled={add.isPending || !text.trim()}
          onClick={() => add.mutate({ text, table: false }, { onSuccess: () => setText('') })}>
          {t('Put on the list')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
