import { useCheck } from '../features/check/useCheck';
import { useExtensions } from '../features/extensions/useExtensions';
import { ShortNames } from '../features/hunt/ShortNames';
import { useOpenProject } from '../shared/lib/projectContext';
import { useActs } from '../shared/lib/useActs';
import { useNotify } from '../shared/ui/Notices';

/** Extensions beside the brief's that are worth a look where names are short. */
const BESIDE = ['com', 'net', 'press', 'studio'];

/** Short names of a project, and asking about them. */
export function ShortNamesPage() {
  const project = useOpenProject();
  const controls = useCheck(project.id, project.brief.extensions);
  const { data } = useExtensions();
  const { act } = useActs(project.id);
  const notify = useNotify();
  const known = new Set(data?.extensions.map((e) => e.extension));
  return (
    <ShortNames
      projectId={project.id}
      own={project.brief.extensions}
      offered={BESIDE.filter((e) => known.has(e))}
      checking={controls.active}
      onCheck={(full_names) => {
        controls.start.mutate(
          { what: 'full_names', full_names },
          {
            onError: (e) => {
              notify(e.message);
            },
          },
        );
      }}
      onKeep={(label) => void act('keep', [label])}
    />
  );
}
