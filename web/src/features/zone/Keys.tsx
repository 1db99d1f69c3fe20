import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import { asApiError } from '../../shared/api';
import { t } from '../../shared/texts';
import { useKeys, useZoneActs } from './useZone';

const EXAMPLE = '2371 13 2 1F98…';

/** The keys the registry names (DNSSEC), once somebody wants to see them. */
export function Keys({ id }: { id: number }) {
  const [open, setOpen] = useState(false);
  const { data, error } = useKeys(id, open);
  const [typed, setTyped] = useState<string | null>(null);
  const { setKeys } = useZoneActs(id);
  const failed = asApiError(setKeys.error);
  if (!open)
    return (
      <Button size="small" sx={{ px: 0 }} onClick={() => setOpen(true)}>
        {t('Its keys (DNSSEC) …')}
      </Button>
    );
  const there = data?.keys.join('\n') ?? '';
  const text = typed ?? there;
  return (
    <Stack sx={{ gap: 1, mt: 1 }}>
      <Typography variant="body2" color="textSecondary">
        {t(
          'Whoever signs the zone says which keys the registry has to name, as DS records. The name servers here sign nothing: with them, leave it empty.',
        )}
      </Typography>
      {!data && !error && <LinearProgress aria-label={t('Asking the sellers')} />}
      {error && <Alert severity="error">{error.message}</Alert>}
      {data && (
        <>
          <TextField
            label={t('Keys, one a line')}
            multiline
            minRows={2}
            value={text}
            placeholder={EXAMPLE}
            onChange={(e) => setTyped(e.target.value)}
            error={Boolean(failed)}
            helperText={failed?.at('keys', true) ?? failed?.message}
            slotProps={{ inputLabel: { shrink: true }, htmlInput: { spellCheck: false } }}
          />
          <Button
            size="small"
            variant="outlined"
            sx={{ alignSelf: 'start' }}
            disabled={setKeys.isPending || text === there}
            onClick={() => setKeys.mutate(text.split('\n'), { onSuccess: () => setTyped(null) })}>
            {t('Have the registry name these')}
          </Button>
        </>
      )}
    </Stack>
  );
}
