import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';

import { t } from '../texts';

interface Props {
  years: number;
  most: number;
  onYears: (years: number) => void;
}

/** For how many years. */
export const YearsField = ({ years, most, onYears }: Props) => (
  <TextField
    select
    label={t('Years')}
    value={years}
    onChange={(e) => onYears(Number(e.target.value))}
    sx={{ width: 90 }}>
    {Array.from({ length: most }, (_, i) => i + 1).map((n) => (
      <MenuItem key={n} value={n}>
        {n}
      </MenuItem>
    ))}
  </TextField>
);
