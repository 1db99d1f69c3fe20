import Chip from '@mui/material/Chip';
import Stack from '@mui/material/Stack';

import type { SellerKind } from '../../shared/api';
import { t } from '../../shared/texts';

interface Props {
  sellers: readonly SellerKind[];
  /** Codes of those left out. */
  less: readonly string[];
  onLess: (less: string[]) => void;
}

/** Which sellers are considered; one at least stays. */
export function SellerChoice({ sellers, less, onLess }: Props) {
  const left = sellers.filter((s) => !less.includes(s.code));
  return (
    <Stack
      direction="row"
      role="group"
      aria-label={t('Sellers to consider')}
      sx={{ flexWrap: 'wrap', gap: 0.7, mb: 2, alignItems: 'center' }}>
      {sellers.map(({ code, name }) => {
        const on = !less.includes(code);
        return (
          <Chip
            key={code}
            size="small"
            component="button"
            label={name}
            aria-pressed={on}
            variant={on ? 'filled' : 'outlined'}
            disabled={on && left.length === 1}
            onClick={() => onLess(on ? [...less, code] : less.filter((c) => c !== code))}
          />
        );
      })}
    </Stack>
  );
}
