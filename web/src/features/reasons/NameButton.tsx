import Box from '@mui/material/Box';
import type { ReactNode } from 'react';

import { t } from '../../shared/texts';

interface Props {
  label: string;
  onSelect: (label: string) => void;
  /** What stands for the name. */
  children: ReactNode;
  /** Looks that are its own. */
  looks?: Readonly<Record<string, unknown>>;
}

/** A name that shows why, written as a name and not as a button. */
export function NameButton({ label, onSelect, children, looks }: Props) {
  return (
    <Box
      component="button"
      type="button"
      title={t('See why: {label}', { label })}
      onClick={() => onSelect(label)}
      sx={{
        border: 0,
        p: 0,
        bgcolor: 'transparent',
        color: 'text.primary',
        font: 'inherit',
        cursor: 'pointer',
        textAlign: 'left',
        overflowWrap: 'anywhere',
        ...looks,
      }}>
      {children}
    </Box>
  );
}
