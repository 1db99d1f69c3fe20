import { api, unwrap } from '../api';
import type { SheetQuestion } from './question';

/** The labels of a stretch of the sheet, loaded or not. */
export async function labelsOf(
  projectId: number,
  question: SheetQuestion,
  first: number,
  count: number,
): Promise<string[]> {
  const query = { ...question, offset: first, limit: count };
  return (
    await unwrap(
      api.GET('/api/projects/{project_id}/names/labels', {
        params: { path: { project_id: projectId }, query },
      }),
    )
  ).labels;
}
