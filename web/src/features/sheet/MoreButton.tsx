import Button from '@mui/material/Button';

import type { Project } from '../../shared/api';
import { useMore } from './useMore';
import { t } from '../../shared/texts';

/** Lists more names. The rest of a list just made comes by itself. */
export function MoreButton({ project }: { project: Project }) {
  const { more, making } = useMore(project);
  return (
    <Button onClick={() => more()} disabled={making} sx={{ alignSelf: 'center', my: 0.3 }}>
      {making ? t('Making names…') : t('More names')}
    </Button>
  );
}
