import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import type { Project } from '../../shared/api';
import { ColumnChoices, RowChoices } from '../../shared/sheet/ColumnChoices';
import { NamedViews } from '../../shared/sheet/NamedViews';
import type { View } from '../../shared/sheet/useView';
import { t } from '../../shared/texts';
import { columnOf } from './columns';
import { allColumns } from './useView';

interface Props {
  project: Project;
  extensions: readonly string[];
  view: View;
  onView: (part: Partial<View>) => void;
}

/** Columns, rows, and views under a name. */
export function ViewChoices({ project, extensions, view, onView }: Props) {
  return (
    <Stack sx={{ p: 2, gap: 1.5, width: 320 }}>
      <Typography variant="h3" component="h2">
        {t('Columns')}
      </Typography>
      <ColumnChoices all={allColumns(extensions)} columnOf={columnOf} view={view} onView={onView} />
      <RowChoices view={view} onView={onView} />
      <Typography variant="h3" component="h2">
        {t('Views')}
      </Typography>
      <NamedViews project={project} />
    </Stack>
  );
}
