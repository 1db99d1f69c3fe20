import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';

import type { ApiError, Limits } from '../../shared/api';
import { t } from '../../shared/texts';

const FIELDS: readonly { name: keyof Limits; label: string }[] = [
  { name: 'letters_min', label: t('Letters from') },
  { name: 'letters_max', label: t('to') },
  { name: 'words', label: t('Words') },
  { name: 'hyphens', label: t('Hyphens') },
  { name: 'digits', label: t('Digits') },
];

interface Props {
  limits: Limits;
  onChange: (limits: Limits) => void;
  error: ApiError | null;
}

/** What a name may have at most. An emptied field is sent as it is, and refused with a reason. */
export function LimitFields({ limits, onChange, error }: Props) {
  const problems = FIELDS.map(({ name }) => error?.at(`brief.limits.${name}`)).filter(Boolean);
  return (
    <Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, 1fr) ', gap: 1 }}>
        <Box sx={{ gridColumn: 'span 2', display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
          {FIELDS.slice(0, 2).map((field) => (
            <LimitField key={field.name} {...field} limits={limits} onChange={onChange} error={error} />
          ))}
        </Box>
        <Box sx={{ gridColumn: 'span 2', display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1 }}>
          {FIELDS.slice(2).map((field) => (
            <LimitField key={field.name} {...field} limits={limits} onChange={onChange} error={error} />
          ))}
        </Box>
      </Box>
      {problems.map((problem) => (
        <Typography key={problem} role="alert" variant="caption" color="error" sx={{ display: 'block', mt: 0.5 }}>
          {problem}
        </Typography>
      ))}
    </Box>
  );
}

function LimitField({ name, label, limits, onChange, error }: Props & { name: keyof Limits; label: string }) {
  const value = limits[name];
  return (
    <TextField
      label={label}
      type="number"
      value={Number.isNaN(value) ? '' : value}
      error={Boolean(error?.at(`brief.limits.${name}`))}
      onChange={(e) => {
        onChange({
          ...limits,
          [name]: e.target.value === '' ? Number.NaN : Math.trunc(Number(e.target.value)),
        });
      }}
      slotProps={{ htmlInput: { min: 0, max: 63 } }}
    />
  );
}
