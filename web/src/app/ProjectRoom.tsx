import LinearProgress from '@mui/material/LinearProgress';
import type { ReactNode } from 'react';
import { Outlet, useParams } from 'react-router';

import { useProject } from '../features/brief/useBrief';
import { asApiError } from '../shared/api';
import { ProjectContext } from '../shared/lib/projectContext';
import { LoadFailed } from '../shared/ui/LoadFailed';
import { t } from '../shared/texts';

/** Loads the project of the address, for every page below it. */
export function ProjectRoom({ missing }: { missing: ReactNode }) {
  const id = Number(useParams().id);
  const project = useProject(Number.isInteger(id) ? id : 0);
  const error = asApiError(project.error);
  if (error?.status === 404) return missing;
  if (error && !project.data) {
    return <LoadFailed title={t('The project could not be loaded')} error={error} onRetry={project.refetch} />;
  }
  if (!project.data) return <LinearProgress aria-label={t('Loading the project')} />;
  return (
    <ProjectContext value={project.data}>
      <Outlet key={project.data.id} />
    </ProjectContext>
  );
}
