import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import { asApiError, type Problem, type SellerKind } from '../../shared/api';
import { FileButton } from '../../shared/ui/FileButton';
import { t } from '../../shared/texts';
import type { ListKind, useSellerActs } from './useSellers';

const EXAMPLES: Record<ListKind, string> = {
  prices: 'extension,action,price\ncom,register,9.90\ncom,renew,14.90\ncom,move,9.90',
  coupons: 'code,takes,value,ends\nAUTUMN,percent,15,2026-12-31',
};
const SHOWN = 12;
/** More than that is not shown to be edited; it is sent all the same. */
const EDITABLE = 200_000;

function Problems({ problems }: { problems: readonly Problem[] }) {
  return (
    <Box component="ul" aria-label={t('What is wrong')} sx={{ m: 0, pl: 2 }}>
      {problems.slice(0, SHOWN).map((p) => (
        <li key={`${p.path}${p.code}`}>{t('{where}: {what}', { where: p.path, what: p.message })}</li>
      ))}
      {problems.length > SHOWN && <li>{t('and {n, number} more', { n: problems.length - SHOWN })}</li>}
    </Box>
  );
}

interface Props {
  seller: SellerKind;
  kind: ListKind;
  acts: ReturnType<typeof useSellerActs>;
  onClose: () => void;
}

/** Brings in a seller's price list or coupons, typed, pasted or as a file; all of it, or what is good of it. */
export function ListDialog({ seller, kind, acts, onClose }: Props) {
  const { putList } = acts;
  const [text, setText] = useState('');
  const [name, setName] = useState('');
  const error = asApiError(putList.error);
  const long = text.length > EDITABLE;
  const send = (take: 'good' | 'whole') => putList.mutate({ code: seller.code, kind, text, take });
  const close = () => {
    putList.reset();
    onClose();
  };
  return (
    <Dialog open onClose={close} fullWidth maxWidth="md" aria-labelledby="list-title">
      <DialogTitle id="list-title" variant="h2">
        {kind === 'prices'
          ? t('A price list of {name}', { name: seller.name })
          : t('Coupons of {name}', { name: seller.name })}
      </DialogTitle>
      <DialogContent>
        <Stack sx={{ gap: 1.2 }}>
          <Typography color="textSecondary">
            {kind === 'prices'
              ? t(
                  'CSV with a heading: extension, action (register, renew, move, restore, privacy, fee) and price, in {currency}; more columns for terms, promotions and days. It takes the place of the list in force; earlier ones are kept.',
                  { currency: seller.currency },
                )
              : t(
                  'CSV with a heading: code, takes (percent, amount, price) and value; more columns for what it is for and how long. They take the place of those there are.',
                )}{' '}
            {!seller.own &&
              !seller.by_hand &&
              t('The seller is kept by hand from then on, until its own lists are followed again.')}
          </Typography>
          <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
            <FileButton
              accept=".csv,text/csv,text/plain"
              label={t('A list as a file')}
              onFile={(chosen) => {
                setName(chosen.name);
                putList.reset();
                void chosen.text().then(setText);
              }}>
              {t('Choose a file')}
            </FileButton>
            <Button
              disabled={acts.getList.isPending}
              onClick={() =>
                acts.getList.mutate(
                  { code: seller.code, kind },
                  {
                    onSuccess: (list) => {
                      putList.reset();
                      setName(list ? t('the list in force') : t('There is none yet.'));
                      if (list) setText(list);
                    },
                  },
                )
              }>
              {t('Begin with the list in force')}
            </Button>
            <Typography color="textSecondary">{name}</Typography>
          </Stack>
          {long ? (
            <Typography>
              {t('A long list, {n, number} characters: it is sent as it is.', { n: text.length })}
            </Typography>
          ) : (
            <TextField
              multiline
              minRows={8}
              maxRows={16}
              label={t('The list')}
              placeholder={EXAMPLES[kind]}
              value={text}
              onChange={(e) => {
                setText(e.target.value);
                putList.reset();
              }}
              slotProps={{
                htmlInput: { spellCheck: false, style: { fontFamily: 'monospace' } },
                inputLabel: { shrink: true },
              }}
            />
          )}
          {putList.isPending && <Typography role="status">{t('It is being read …')}</Typography>}
          {putList.data && (
            <Alert severity={putList.data.problems.length ? 'warning' : 'success'}>
              {t('{lines, plural, one {One line was} other {# lines were}} taken.', { lines: putList.data.lines })}{' '}
              {putList.data.problems.length > 0 && t('These were left out:')}
              <Problems problems={putList.data.problems} />
            </Alert>
          )}
          {error && (
            <Alert severity="error">
              {error.problems.length > 0 ? t('Nothing was taken.') : error.message}
              <Problems problems={error.problems} />
            </Alert>
          )}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={close}>{putList.data ? t('Done') : t('Cancel')}</Button>
        {error && error.problems.length > 0 && (
          <Button variant="outlined" onClick={() => send('good')}>
            {t('Take what is good')}
          </Button>
        )}
        {!putList.data && (
          <Button variant="contained" disabled={!text.trim() || putList.isPending} onClick={() => send('whole')}>
            {t('Take it')}
          </Button>
        )}
      </DialogActions>
    </Dialog>
  );
}
