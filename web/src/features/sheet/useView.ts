import { useCallback, useMemo } from 'react';

import { listOf } from '../../shared/lib/question';
import { measures } from '../../shared/lib/concepts';
import { useAddress } from '../../shared/lib/useAddress';
import { t } from '../../shared/texts';

export const DENSITIES = ['dense', 'usual', 'roomy'] as const;
export type Density = (typeof DENSITIES)[number];
/** How a person reads them. */
export const DENSITY_WORDS: Record<Density, string> = { dense: t('dense'), usual: t('usual'), roomy: t('roomy') };
export const ROW_HEIGHTS: Record<Density, number> = { dense: 26, usual: 33, roomy: 42 };

/** How the sheet looks: its columns in order, their widths in pixels, which of them stay in sight, and the rows. */
export interface View {
  columns: readonly string[];
  widths: Readonly<Record<string, number>>;
  pinned: readonly string[];
  density: Density;
  plot: boolean;
}

const FIELDS = ['cols', 'widths', 'pin', 'rows', 'show'] as const;

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
  'looked',
];
/** Every column there is for a brief. */
export const allColumns = (extensions: readonly string[]): string[] => [
  ...plainColumns(),
  ...extensions.map((e) => `.${e}`),
];

function read(params: URLSearchParams, extensions: readonly string[], liked: Density): View {
  const known = allColumns(extensions);
  const cols = listOf(params.get('cols') ?? '').filter((id) => known.includes(id));
  const widths = listOf(params.get('widths') ?? '')
    .map((pair) => pair.split(':'))
    .map(([id, px]) => [id ?? '', Number(px)] as const);
  return {
    columns: cols.length ? cols : statusColumns(extensions),
    widths: Object.fromEntries(widths.filter(([, px]) => px >= 30 && px <= 900)),
    pinned: listOf(params.get('pin') ?? '').filter((id) => known.includes(id)),
    density: DENSITIES.find((d) => d === params.get('rows')) ?? liked,
    plot: params.get('show') === 'plot',
  };
}

const same = (a: readonly string[], b: readonly string[]): boolean => a.join() === b.join();

function write(view: View, extensions: readonly string[], liked: Density): [string, string][] {
  const widths = Object.entries(view.widths).map(([id, px]) => `${id}:${Math.round(px)}`);
  const fields: [string, string][] = [
    ['cols', same(view.columns, statusColumns(extensions)) ? '' : view.columns.join(',')],
    ['widths', widths.join(',')],
    ['pin', view.pinned.join(',')],
    ['rows', view.density === liked ? '' : view.density],
    ['show', view.plot ? 'plot' : ''],
  ];
  return fields.filter(([, value]) => value !== '');
}

/** How the sheet looks, kept in the address beside the question. */
export function useView(
  extensions: readonly string[],
  liked: Density = 'usual',
): [View, (part: Partial<View>) => void] {
  const [params, turn] = useAddress();
  const mine = extensions.join();
  const view = useMemo(() => read(params, listOf(mine), liked), [params, mine, liked]);
  const change = useCallback(
    (part: Partial<View>) => {
      turn((now) => {
        const next = new URLSearchParams([...now].filter(([name]) => !(FIELDS as readonly string[]).includes(name)));
        for (const [name, value] of write({ ...read(now, listOf(mine), liked), ...part }, listOf(mine), liked))
          next.append(name, value);
        return next;
      });
    },
    [turn, mine, liked],
  );
  return [view, change];
}
