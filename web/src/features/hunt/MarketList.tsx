import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import { asApiError, type Markets } from '../../shared/api';
import { formatCount } from '../../shared/lib/format';
import { Age } from '../../shared/ui/Age';
import { FileButton } from '../../shared/ui/FileButton';
import { rich, t } from '../../shared/texts';
import { useBringOffers, useMarkets } from './useHunt';

type ListFile = Markets['files'][number];

const STEPS: Record<string, string> = {
  unpacking: t('is unpacked'),
  reading: t('is read'),
  comparing: t('is compared with the one before'),
  storing: t('is stored'),
};

function told(file: ListFile): string {
  if (file.state === 'waiting') return t('waits to be read');
  if (file.state === 'reading') return STEPS[file.step] ?? t('is read');
  if (file.state === 'failed') return t('could not be used; the list before it stays in force');
  const { new: fresh, changed, gone } = file;
  return t(
    '{taken, plural, one {# name} other {# names}}: {fresh, number} new, {changed, number} changed, {gone, number} gone',
    {
      taken: file.taken,
      fresh,
      changed,
      gone,
    },
  );
}

/** The last lists that came, and bringing one, for administrators. */
function Files({ files }: { files: readonly ListFile[] }) {
  const bring = useBringOffers();
  const [code, setCode] = useState('');
  const failed = asApiError(bring.error);
  return (
    <>
      <Stack direction="row" sx={{ gap: 1, my: 1.5, flexWrap: 'wrap', alignItems: 'center' }}>
        <TextField
          size="small"
          label={t('Short name of the market')}
          value={code}
          onChange={(e) =>
            setCode(
              e.target.value
                .toLowerCase()
                .replace(/[^a-z0-9-]/g, '')
                .slice(0, 40),
            )
          }
          sx={{ width: 230 }}
        />
        <FileButton
          label={t('A list of offers or drops: CSV or JSON lines, packed by gzip or not')}
          accept=".csv,.jsonl,.ndjson,.gz,text/csv"
          disabled={bring.isPending || !code}
          onFile={(file) => bring.mutate({ file, code, name: code })}>
          {t('Bring its list …')}
        </FileButton>
      </Stack>
      {failed && (
        <Alert severity="error">
          {failed.problems.length
            ? failed.problems.slice(0, 8).map((p) => <div key={`${p.path}${p.code}`}>{p.message}</div>)
            : failed.message}
        </Alert>
      )}
      <Box component="ul" aria-label={t('Lists that came')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {files.map((file) => (
          <Box
            component="li"
            key={`${file.market}${file.brought_at}`}
            sx={{ py: 0.5, borderTop: 1, borderColor: 'divider' }}>
            <strong>{file.market}</strong>{' '}
            <Typography component="span" variant="body2" color="textSecondary">
              {told(file)}
              {file.wrong > 0 &&
                `; ${t('something was wrong in {wrong, plural, one {# place} other {# places}}', { wrong: file.wrong })}`}
              {rich(', {age}', { age: <Age at={file.brought_at} /> })}
            </Typography>
            {file.problems.length > 0 && (
              <details>
                <summary>{t('What was wrong')}</summary>
                <ul>
                  {file.problems.map((problem, i) => (
                    <li key={i}>{`${problem.path}: ${problem.message}`}</li>
                  ))}
                </ul>
              </details>
            )}
          </Box>
        ))}
      </Box>
    </>
  );
}

/** Whose lists the hunt goes through, how old they are, and what is wrong with them. */
export function MarketList() {
  const { data } = useMarkets();
  if (!data) return null;
  return (
    <Box component="details">
      <summary>
        {t('{count, plural, =0 {No market tells of names yet} one {From # market} other {From # markets}}', {
          count: data.markets.length,
        })}
      </summary>
      <Box component="ul" aria-label={t('Markets')} sx={{ listStyle: 'none', m: 0, p: 0, mt: 1 }}>
        {data.markets.map((market) => (
          <Box component="li" key={market.code} sx={{ py: 0.3 }}>
            {market.name}{' '}
            <Typography component="span" variant="body2" color="textSecondary">
              {t('{names} names', { names: formatCount(market.names) })}
              {market.told_at && rich(', {age}', { age: <Age at={market.told_at} /> })}
            </Typography>
            {market.trouble && (
              <Typography variant="body2" sx={{ color: 'amber' }}>
                {market.trouble}
              </Typography>
            )}
          </Box>
        ))}
      </Box>
      {data.may_edit && <Files files={data.files} />}
    </Box>
  );
}
