import { keepPreviousData, useQuery } from '@tanstack/react-query';

import type { Row } from '../../shared/api';
import type { SheetQuestion } from '../../shared/lib/question';
import { pageQuery } from '../../shared/lib/queries';
import type { RowAt as AnyRowAt } from '../../shared/sheet/useRows';

/** The first page of the sheet, which also says how many rows there are. */
export const useFirstPage = (projectId: number, question: SheetQuestion) =>
  useQuery({ ...pageQuery(projectId, question, 0), placeholderData: keepPreviousData });

/** The row at a place, if it has come. */
export type RowAt = AnyRowAt<Row>;
