import { useAsked } from '../../shared/lib/addressFields';
import { SHEET_FIELDS } from '../../shared/lib/question';

const STEPS: ReadonlySet<string> = new Set([
  'sort',
  'reverse',
  'open_in',
  'open_all',
  'status',
  'mark',
  'recipes',
  'hyphen',
  'digit',
  'added',
]);

/** What is asked of the sheet, and a way to change parts of it. */
export const useQuestion = () => useAsked(SHEET_FIELDS, STEPS);
