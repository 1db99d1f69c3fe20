import { keepPreviousData, useQuery } from '@tanstack/react-query';

import type { Page, Row } from '../../shared/api';
import type { SheetQuestion } from '../../shared/lib/question';
import { pageQuery } from '../../shared/lib/queries';
import { type RowAt as AnyRowAt, useRows as useAnyRows } from '../../shared/sheet/useRows';

/** The first page of the sheet, which also says how many rows there are. */
export const useFirstPage = (projectId: number, question: SheetQuestion) =>
  useQuery({ ...pageQuery(projectId, question, 0), placeholderData: keepPreviousData });

/** The row at a place, if it has come. */
export type RowAt = AnyRowAt<Row>;

/** A way to get at the rows from place `first` to `last`, and those just before and after. */
export const useRows = (
  projectId: number,
  question: SheetQuestion,
  top: Page | undefined,
  first: number,
  last: number,
): RowAt => useAnyRows((page: number) => pageQuery(projectId, question, page), top, first, last);
