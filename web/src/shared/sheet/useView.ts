import { useCallback, useMemo } from 'react';

import { listOf } from '../lib/question';
import { useAddress } from '../lib/useAddress';
import { t } from '../texts';

export const DENSITIES = ['dense', 'usual', 'roomy'] as const;
export type Density = (typeof DENSITIES)[number];
/** How a person reads them. */
export const DENSITY_WORDS: Record<Density, string> = { dense: t('dense'), usual: t('usual'), roomy: t('roomy') };
export const ROW_HEIGHTS: Record<Density, number> = { dense: 26, usual: 33, roomy: 42 };

/** How a sheet looks: its columns in order, their widths in pixels, which of them stay in sight, and the rows. */
export interface View {
  columns: readonly string[];
  widths: Readonly<Record<string, number>>;
  pinned: readonly string[];
  density: Density;
  plot: boolean;
}

const FIELDS = ['cols', 'widths', 'pin', 'rows', 'show'] as const;

/** The columns there are, and those shown where nobody chose, set apart by commas. */
export interface Usual {
  known: string;
  shown: string;
  density: Density;
}

function read(params: URLSearchParams, usual: Usual): View {
  const known = listOf(usual.known);
  const cols = listOf(params.get('cols') ?? '').filter((id) => known.includes(id));
  const widths = listOf(params.get('widths') ?? '')
    .map((pair) => pair.split(':'))
    .map(([id, px]) => [id ?? '', Number(px)] as const);
  return {
    columns: cols.length ? cols : listOf(usual.shown),
    widths: Object.fromEntries(widths.filter(([, px]) => px >= 30 && px <= 900)),
    pinned: listOf(params.get('pin') ?? '').filter((id) => known.includes(id)),
    density: DENSITIES.find((d) => d === params.get('rows')) ?? usual.density,
    plot: params.get('show') === 'plot',
  };
}

function write(view: View, usual: Usual): [string, string][] {
  const widths = Object.entries(view.widths).map(([id, px]) => `${id}:${Math.round(px)}`);
  const columns = view.columns.join(',');
  const fields: [string, string][] = [
    ['cols', columns === usual.shown ? '' : columns],
    ['widths', widths.join(',')],
    ['pin', view.pinned.join(',')],
    ['rows', view.density === usual.density ? '' : view.density],
    ['show', view.plot ? 'plot' : ''],
  ];
  return fields.filter(([, value]) => value !== '');
}

/** How a sheet looks, kept in the address beside the question. */
export function useSheetView({ known, shown, density }: Usual): [View, (part: Partial<View>) => void] {
  const [params, turn] = useAddress();
  const usual = useMemo(() => ({ known, shown, density }), [known, shown, density]);
  const view = useMemo(() => read(params, usual), [params, usual]);
  const change = useCallback(
    (part: Partial<View>) => {
      turn((now) => {
        const next = new URLSearchParams([...now].filter(([name]) => !(FIELDS as readonly string[]).includes(name)));
        for (const [name, value] of write({ ...read(now, usual), ...part }, usual)) next.append(name, value);
        return next;
      });
    },
    [turn, usual],
  );
  return [view, change];
}
