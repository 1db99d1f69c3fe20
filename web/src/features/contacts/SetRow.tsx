import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import { asApiError, type Contact, type ContactSet } from '../../shared/api';
import { t } from '../../shared/texts';
import { type SetPart, useContactActs } from '../../shared/basket/useContacts';

const ROLES = [
  ['registrant', t('holds the name')],
  ['admin', t('asked about it')],
  ['tech', t('asked about servers')],
  ['billing', t('asked about money')],
] as const;

interface Props {
  kept: ContactSet;
  contacts: readonly Contact[];
}

/** Who holds a name, and who is asked about what. */
export function SetRow({ kept, contacts }: Props) {
  const { saveSet, dropSet } = useContactActs();
  const [name, setName] = useState(kept.name);
  const failed = asApiError(saveSet.error);
  const change = (part: SetPart) => saveSet.mutate({ id: kept.id, part });
  return (
    <Box component="li" sx={{ py: 1.5, borderBottom: 1, borderColor: 'divider' }}>
      <Stack direction="row" sx={{ gap: 1.2, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <TextField
          label={t('Called')}
          value={name}
          onChange={(e) => setName(e.target.value)}
          onBlur={() => name !== kept.name && change({ name })}
          error={Boolean(failed?.at('name'))}
          helperText={failed?.at('name')}
          sx={{ width: 200 }}
        />
        {ROLES.map(([role, word]) => (
          <TextField
            key={role}
            select
            label={word}
            value={kept[role] ?? ''}
            onChange={(e) => change({ [role]: e.target.value === '' ? null : Number(e.target.value) })}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
            sx={{ width: 190 }}>
            {role !== 'registrant' && <MenuItem value="">{t('whoever holds it')}</MenuItem>}
            {contacts.map((one) => (
              <MenuItem key={one.id} value={one.id}>
                {one.shown}
              </MenuItem>
            ))}
          </TextField>
        ))}
      </Stack>
      <Stack direction="row" sx={{ gap: 1, alignItems: 'center', mt: 0.8 }}>
        {kept.usual ? (
          <Typography variant="body2">{t('Taken where nothing else is said')}</Typography>
        ) : (
          <Button size="small" onClick={() => change({ usual: true })}>
            {t('Take it where nothing else is said')}
          </Button>
        )}
        <Button
          size="small"
          onClick={() => dropSet.mutate(kept.id)}
          aria-label={t('Delete the set {name}', { name: kept.name })}>
          {t('Delete the set')}
        </Button>
      </Stack>
    </Box>
  );
}
