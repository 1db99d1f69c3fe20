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

export type FileForm = (typeof FORMS)[number][0];

interface Props {
  /** The address of the file in a form. */
  address?: (form: FileForm) => string;
  /** Gets the file in a form, where it has no address. */
  onForm?: (form: FileForm) => void;
  disabled?: boolean;
}

/** Taking data away in an open format. */
export function FileMenu({ address, onForm, disabled = false }: Props) {
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
          <MenuItem
            key={form}
            {...(address && { component: 'a', href: address(form), download: true })}
            onClick={() => {
              setAnchor(null);
              onForm?.(form);
            }}>
            {word}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
