import { type Asked, writeAsked } from '../../shared/lib/asked';
import { FileMenu } from '../../shared/ui/FileMenu';

interface Props {
  projectId: number;
  /** The rows meant; all pasted names when left out. */
  asked?: Asked;
}

/** Full names with statuses, evidence and ages, in open formats. */
export function ExportMenu({ projectId, asked }: Props) {
  const address = (form: string) => {
    const query = new URLSearchParams([
      ['form', form],
      ['what', asked ? 'sheet' : 'pasted'],
      ...(asked ? writeAsked(asked) : []),
    ]);
    return `/api/projects/${projectId}/export?${query.toString()}`;
  };
  return <FileMenu address={address} />;
}
