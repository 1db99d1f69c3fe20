import Button from '@mui/material/Button';
import Popover from '@mui/material/Popover';
import { lazy, Suspense, useState } from 'react';

import type { Project } from '../../shared/api';
import type { View } from '../../shared/sheet/useView';
import { t } from '../../shared/texts';

const ViewChoices = lazy(async () => ({ default: (await import('./ViewChoices')).ViewChoices }));

interface Props {
  project: Project;
  extensions: readonly string[];
  view: View;
  onView: (part: Partial<View>) => void;
}

/** How the sheet looks: columns, rows, and views under a name. */
export function ViewMenu(props: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button
        variant="outlined"
        aria-haspopup="dialog"
        aria-expanded={anchor !== null}
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ flex: 'none', minWidth: 0 }}>
        {t('View')}
      </Button>
      <Popover
        disablePortal
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': t('How the sheet looks') } as object }}>
        <Suspense>
          <ViewChoices {...props} />
        </Suspense>
      </Popover>
    </>
  );
}
