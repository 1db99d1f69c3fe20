import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import type { Contact } from '../../shared/api';
import { formatCountry } from '../../shared/lib/format';
import { BuyingNav } from '../../shared/basket/BuyingNav';
import { t } from '../../shared/texts';
import { EmptyState } from '../../shared/ui/EmptyState';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { ContactDialog } from './ContactDialog';
import { SetRow } from './SetRow';
import { useContactActs, useContacts } from '../../shared/basket/useContacts';

/** Asks before somebody is deleted: there is no way back. */
function DropDialog({ contact, onClose }: { contact: Contact; onClose: () => void }) {
  const { drop } = useContactActs();
  return (
    <Dialog open onClose={onClose} aria-labelledby="drop-contact">
      <DialogTitle id="drop-contact">{t('Delete {who}?', { who: contact.shown })}</DialogTitle>
      <DialogContent>
        {t(
          'All that is kept of them here is deleted for good, with the sets in which they hold names. Receipts keep whom they are written out to; sellers keep what they were told when a name was ordered.',
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{t('Cancel')}</Button>
        <Button color="error" onClick={() => drop.mutate(contact.id, { onSuccess: onClose })}>
          {t('Delete for good')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}

const where = (one: Contact): string =>
  [one.street, one.street2, `${one.postcode} ${one.city}`.trim(), one.region, one.country && formatCountry(one.country)]
    .filter(Boolean)
    .join(', ');

/** Whom names are for: people and organisations, and who of them holds a name. */
export function ContactsPage() {
  const { data, error, refetch } = useContacts();
  const { saveSet } = useContactActs();
  const [open, setOpen] = useState<Contact | 'new' | null>(null);
  const [going, setGoing] = useState<Contact | null>(null);
  if (!data) {
    if (!error) return <LinearProgress aria-label={t('Loading')} />;
    return <LoadFailed title={t('Contacts could not be loaded')} error={error} onRetry={refetch} />;
  }
  const [first] = data.contacts;
  const add = (
    <Button variant="contained" onClick={() => setOpen('new')}>
      {t('Add somebody')}
    </Button>
  );
  const freeName = (): string => {
    const taken = data.sets.map((one) => one.name);
    let n = data.sets.length + 1;
    while (taken.includes(t('Set {n, number}', { n }))) n += 1;
    return t('Set {n, number}', { n });
  };
  return (
    <Box component="main" sx={{ maxWidth: 1120, mx: 'auto', px: 2, py: 3 }}>
      <BuyingNav />
      <Typography variant="h1">{t('Contacts')}</Typography>
      <Typography color="textSecondary" sx={{ maxWidth: 640 }}>
        {t('Whom names are registered for. Kept encrypted, shown to nobody else, deleted when you say so.')}
      </Typography>
      {data.everybody && (
        <Alert severity="warning" sx={{ mt: 1.5, maxWidth: 640 }}>
          {t('Anybody can enter the demo workspace and read this. Write only what is made up.')}
        </Alert>
      )}
      {first ? (
        <>
          <Box component="ul" aria-label={t('Contacts')} sx={{ listStyle: 'none', m: 0, p: 0, mt: 2 }}>
            {data.contacts.map((one) => (
              <Box component="li" key={one.id} sx={{ py: 1.2, borderBottom: 1, borderColor: 'divider' }}>
                <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}>
                  <Box sx={{ flex: 1, minWidth: 240, overflowWrap: 'anywhere' }}>
                    <Typography sx={{ fontWeight: 600 }}>{one.shown}</Typography>
                    {one.readable ? (
                      <>
                        <Typography variant="body2">{where(one)}</Typography>
                        <Typography variant="body2" color="textSecondary">
                          {[one.kind === 'organisation' && one.name, one.phone, one.email].filter(Boolean).join(' · ')}
                        </Typography>
                      </>
                    ) : (
                      <Alert severity="error">
                        {t('This cannot be opened with the keys of this installation any more.')}
                      </Alert>
                    )}
                  </Box>
                  <Stack direction="row">
                    <Button onClick={() => setOpen(one)} aria-label={t('Change {who}', { who: one.shown })}>
                      {t('Change')}
                    </Button>
                    <Button onClick={() => setGoing(one)} aria-label={t('Delete {who}', { who: one.shown })}>
                      {t('Delete')}
                    </Button>
                  </Stack>
                </Stack>
              </Box>
            ))}
          </Box>
          <Box sx={{ mt: 2 }}>{add}</Box>
          <Typography variant="h2" sx={{ mt: 4 }}>
            {t('Sets')}
          </Typography>
          <Typography color="textSecondary" sx={{ maxWidth: 640 }}>
            {t('Who holds a name, and who is asked about it. In the basket each name is for one set.')}
          </Typography>
          <Box component="ul" aria-label={t('Sets')} sx={{ listStyle: 'none', m: 0, p: 0, mt: 1 }}>
            {data.sets.map((one) => (
              <SetRow key={`${one.id} ${one.name}`} kept={one} contacts={data.contacts} />
            ))}
          </Box>
          <Button
            sx={{ mt: 1 }}
            variant="outlined"
            onClick={() => saveSet.mutate({ id: null, part: { name: freeName(), registrant: first.id } })}>
            {t('Another set')}
          </Button>
        </>
      ) : (
        <EmptyState title={t('Nobody is kept yet')} action={add}>
          {t('Registries ask whom a name is for: somebody with an address, a telephone and an e-mail.')}
        </EmptyState>
      )}
      {open && <ContactDialog contact={open === 'new' ? null : open} onClose={() => setOpen(null)} />}
      {going && <DropDialog contact={going} onClose={() => setGoing(null)} />}
    </Box>
  );
}
