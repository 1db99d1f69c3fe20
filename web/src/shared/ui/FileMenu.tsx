import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import { t } from '../texts';

const FORMS = [
  ['csv', t('CSV, for any spreadsheet')],
  ['xlsx', t('XLSX, a workbook')],
  ['json', t('JSON, for programs')],
] as const;

interface Props {
  /** The address of the file in a form. */
  address: (form: string) => string;
  disabled?: boolean;
}

/** Taking data away in an open format. */
export function FileMenu({ address, disabled = false }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button
        size="small"
        variant="outlined"
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        disabled={disabled}
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ flex: 'none' }}>
        {t('Export')}
      </Button>
      <Menu disablePortal anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {FORMS.map(([form, word]) => (
          <MenuItem key={form} component="a" href={address(form)} download onClick={() => setAnchor(null)}>
            {word}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
