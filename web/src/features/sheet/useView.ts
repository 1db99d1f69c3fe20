import { measures } from '../../shared/lib/concepts';
import { type Density, useSheetView, type View } from '../../shared/sheet/useView';

export const statusColumns = (extensions: readonly string[]): string[] => [
  'grade',
  'letters',
  ...extensions.map((e) => `.${e}`),
];
export const figureColumns = (): readonly string[] => ['grade', 'letters', ...measures().map((m) => m.name)];
const plainColumns = () => [
  'grade',
  'letters',
  'syllables',
  'words',
  ...measures().map((m) => m.name),
  'recipes',
  'added',
  'price',
  'later',
  'whole',
  'demand',
  'looked',
];
/** Every column there is for a brief. */
export const allColumns = (extensions: readonly string[]): string[] => [
  ...plainColumns(),
  ...extensions.map((e) => `.${e}`),
];

/** How the sheet looks, kept in the address beside the question. */
export const useView = (
  extensions: readonly string[],
  liked: Density = 'usual',
): [View, (part: Partial<View>) => void] =>
  useSheetView({
    known: allColumns(extensions).join(),
    shown: statusColumns(extensions).join(),
    density: liked,
  });
