import Box from '@mui/material/Box';

import type { SellerKind } from '../../shared/api';
import { SellerFacts } from '../../shared/ui/SellerFacts';
import { t } from '../../shared/texts';

/** Whose lists the costs are from, how old they are, and what changed in them. */
export function SellerList({ sellers }: { sellers: readonly SellerKind[] }) {
  return (
    <Box component="ul" aria-label={t('Sellers')} sx={{ m: 0, pl: 2.5 }}>
      {sellers.map((s) => (
        <Box component="li" key={s.code} sx={{ mb: 0.8 }}>
          <SellerFacts seller={s} />
        </Box>
      ))}
    </Box>
  );
}
