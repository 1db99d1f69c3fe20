import { CheckRunning } from '../features/check/CheckBar';
import { useCheck } from '../features/check/useCheck';
import { PhrasesPage } from '../features/phrases/PhrasesPage';
import { useOpenProject } from '../shared/lib/projectContext';

/** The phrases of the open project, with its check beside them. */
export function PhrasesRoom() {
  const project = useOpenProject();
  const controls = useCheck(project.id, project.brief.extensions);
  return <PhrasesPage project={project} checking={<CheckRunning controls={controls} />} active={controls.active} />;
}
