import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';

import type { Zone } from '../../shared/api';
import { t } from '../../shared/texts';

/** Whether the registry sends the world to the name servers that have these records, and what to do where not. */
export function Delegation({ zone, pending, onPoint }: { zone: Zone; pending: boolean; onPoint: () => void }) {
  if (!zone.hosts.length)
    return (
      <Alert severity="info">
        {t('No name servers stand ready here. Records can be kept, and taken elsewhere as a master file.')}
      </Alert>
    );
  const elsewhere = zone.servers.filter((host) => !zone.hosts.includes(host));
  if (zone.servers.length && !elsewhere.length) return null;
  const ours = zone.hosts.join(' ');
  const now = zone.servers.length
    ? t('By the list its name servers are {servers}.', { servers: zone.servers.join(' ') })
    : t('By the list it has the name servers of its seller.');
  return (
    <Alert
      severity="info"
      action={
        zone.can_point && (
          <Button color="inherit" disabled={pending} onClick={onPoint}>
            {t('Point it here')}
          </Button>
        )
      }>
      {now}{' '}
      {zone.can_point
        ? t(
            'The world sees these records once it points to ours: {ours}. Put them into force first, so that nothing goes missing.',
            {
              ours,
            },
          )
        : t('The world sees these records once it points to ours; set them at its seller: {ours}', { ours })}
    </Alert>
  );
}
