import { type SheetQuestion, SHEET_FIELDS } from '../../shared/lib/question';
import { FileMenu } from '../../shared/ui/FileMenu';

interface Props {
  projectId: number;
  /** The rows meant; all pasted names when left out. */
  question?: SheetQuestion;
}

/** Full names with statuses, evidence and ages, in open formats. */
export function ExportMenu({ projectId, question }: Props) {
  const address = (form: string) => {
    const query = new URLSearchParams([
      ['form', form],
      ['what', question ? 'sheet' : 'pasted'],
      ...(question ? SHEET_FIELDS.write(question) : []),
    ]);
    return `/api/projects/${projectId}/export?${query.toString()}`;
  };
  return <FileMenu address={address} />;
}
