import Alert from '@mui/material/Alert';
import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useId, useState } from 'react';

import { asApiError, type Contact, type Country, type Holder } from '../../shared/api';
import { t } from '../../shared/texts';
import { useContactActs, useContactForm } from '../../shared/basket/useContacts';

type Field = Exclude<keyof Holder, 'kind' | 'identifiers'>;

const EMPTY: Holder = {
  kind: 'person',
  name: '',
  organisation: '',
  street: '',
  street2: '',
  city: '',
  region: '',
  postcode: '',
  country: '',
  phone: '',
  email: '',
  identifiers: {},
};
const COMPLETE: Partial<Record<Field, string>> = {
  name: 'name',
  organisation: 'organization',
  street: 'address-line1',
  street2: 'address-line2',
  city: 'address-level2',
  region: 'address-level1',
  postcode: 'postal-code',
  phone: 'tel',
  email: 'email',
};

/** What a field is called where addresses are written in that country's way. */
const labelsIn = (country: Country | undefined, kind: Holder['kind']): Record<Field, string> => ({
  name: kind === 'organisation' ? t('Who is asked there') : t('Name'),
  organisation: t('Organisation'),
  street: t('Street and number'),
  street2: t('More of the address'),
  city: t('Town'),
  region: country?.region ?? t('Region'),
  postcode: country?.postcode ?? t('Postcode'),
  country: t('Country'),
  phone: t('Telephone'),
  email: t('E-mail'),
});

interface Props {
  contact: Contact | null;
  onClose: () => void;
}

/** Somebody a name may be for: what registries ask of them, in the way of their country. */
export function ContactDialog({ contact, onClose }: Props) {
  const form = useContactForm();
  const { save } = useContactActs();
  const narrow = useMediaQuery('(max-width: 600px)');
  const id = useId();
  const [holder, setHolder] = useState<Holder>({ ...EMPTY, ...contact });
  const failed = asApiError(save.error);
  const countries = form.data?.countries ?? [];
  const country = countries.find((one) => one.code === holder.country);
  const labels = labelsIn(country, holder.kind);
  const fields: Field[] = [
    ...(holder.kind === 'organisation' ? (['organisation'] as const) : []),
    ...(['name', 'country', 'street', 'street2', 'city', 'region', 'postcode', 'phone', 'email'] as const),
  ];
  const numbers = form.data?.identifiers ?? [];
  const send = () => {
    save.mutate({ id: contact?.id ?? null, holder }, { onSuccess: onClose });
  };
  return (
    <Dialog open onClose={onClose} fullScreen={narrow} maxWidth="sm" fullWidth aria-labelledby={id}>
      <form
        noValidate
        style={{ display: 'flex', flexDirection: 'column', minHeight: 0, flex: 1 }}
        onSubmit={(e) => {
          e.preventDefault();
          send();
        }}>
        <DialogTitle id={id}>{contact ? t('Change {who}', { who: contact.shown }) : t('Somebody new')}</DialogTitle>
        <DialogContent>
          <Stack sx={{ gap: 1.6, pt: 1 }}>
            <RadioGroup
              row
              aria-label={t('What it is')}
              value={holder.kind}
              onChange={(e) => setHolder({ ...holder, kind: e.target.value as Holder['kind'] })}>
              <FormControlLabel value="person" control={<Radio size="small" />} label={t('a person')} />
              <FormControlLabel value="organisation" control={<Radio size="small" />} label={t('an organisation')} />
            </RadioGroup>
            {fields.map((name) =>
              name === 'country' ? (
                <Autocomplete
                  key={name}
                  options={countries}
                  value={country ?? null}
                  getOptionLabel={(one) => one.name}
                  isOptionEqualToValue={(a, b) => a.code === b.code}
                  onChange={(_, chosen) => setHolder({ ...holder, country: chosen?.code ?? '' })}
                  renderInput={(params) => (
                    <TextField
                      {...params}
                      label={labels.country}
                      error={Boolean(failed?.at('country'))}
                      helperText={failed?.at('country')}
                    />
                  )}
                />
              ) : (
                <TextField
                  key={name}
                  label={labels[name]}
                  value={holder[name]}
                  autoComplete={COMPLETE[name]}
                  type={name === 'email' ? 'email' : name === 'phone' ? 'tel' : 'text'}
                  placeholder={
                    name === 'phone' ? '+353 87 123 4567' : name === 'postcode' ? country?.example : undefined
                  }
                  onChange={(e) => setHolder({ ...holder, [name]: e.target.value })}
                  error={Boolean(failed?.at(name))}
                  helperText={failed?.at(name)}
                />
              ),
            )}
            <details
              open={Boolean(failed?.at('identifiers', true)) || Object.keys(holder.identifiers ?? {}).length > 0}>
              <summary>{t('Numbers some registries ask for')}</summary>
              <Stack sx={{ gap: 1.4, mt: 1.4 }}>
                {numbers.map((one) => (
                  <TextField
                    key={one.code}
                    label={one.name}
                    value={holder.identifiers?.[one.code] ?? ''}
                    placeholder={one.example}
                    onChange={(e) =>
                      setHolder({ ...holder, identifiers: { ...holder.identifiers, [one.code]: e.target.value } })
                    }
                    error={Boolean(failed?.at(`identifiers.${one.code}`))}
                    helperText={failed?.at(`identifiers.${one.code}`)}
                  />
                ))}
              </Stack>
            </details>
            {failed && failed.problems.length === 0 && <Alert severity="error">{failed.message}</Alert>}
            {failed && failed.problems.length > 0 && (
              <Alert severity="error">
                {t('{count, plural, one {One thing} other {# things}} above must be mended first.', {
                  count: failed.problems.length,
                })}
              </Alert>
            )}
            <Typography variant="body2" color="textSecondary">
              {t('Kept encrypted, and read by you alone. A seller is told when a name is ordered for them.')}
            </Typography>
          </Stack>
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>{t('Cancel')}</Button>
          <Button type="submit" variant="contained" disabled={save.isPending}>
            {t('Keep')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
