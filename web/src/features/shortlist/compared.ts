import type { Judged } from '../../shared/api';
import { formatMoney } from '../../shared/lib/format';
import { thousandths } from '../../shared/lib/money';
import { measures, statusOf } from '../../shared/lib/concepts';
import { shownStatus } from '../../shared/ui/status';
import { t } from '../../shared/texts';

/** One line of the comparison: what is compared, a value for each name, and which of them are best. */
export interface Line {
  key: string;
  word: string;
  kind: 'figure' | 'status' | 'text';
  values: readonly (string | number | null)[];
  /** Places of the best values; empty where all are the same, or where there is no better and worse. */
  best: readonly number[];
  differs: boolean;
}

const SPANS = [
  ['first', t('First year')],
  ['later', t('Each later year')],
  ['whole', t('All the years it is kept')],
] as const;

/** How much a status lets one hope; what is gone, and what nobody asked, are alike. */
const hope = (status: string): number =>
  -Math.min(statusOf(status)?.worth ?? Infinity, statusOf('unasked')?.worth ?? Infinity);

function line(
  key: string,
  word: string,
  kind: Line['kind'],
  values: Line['values'],
  worth?: readonly (number | null)[],
): Line {
  const differs = new Set(values.map(String)).size > 1;
  const known = worth?.filter((w): w is number => w !== null) ?? [];
  const top = Math.max(...known);
  const best =
    differs && known.length > 1 && known.some((w) => w < top)
      ? (worth ?? []).flatMap((w, i) => (w === top ? [i] : []))
      : [];
  return { key, word, kind, values, best, differs };
}

const round = (value: number | null | undefined): number | null => (value == null ? null : Math.round(value));

/** Everything that is compared between names, line by line. */
export function compare(names: readonly Judged[], extensions: readonly string[]): Line[] {
  const grades = names.map((n) => round(n.grade));
  const letters = names.map((n) => n.shown.replaceAll('-', '').length);
  const lines = [
    line('grade', t('Grade'), 'figure', grades, grades),
    line(
      'letters',
      t('Letters'),
      'figure',
      letters,
      letters.map((n) => -n),
    ),
  ];
  for (const { name, word } of measures()) {
    const scores = names.map((n) => round(n.measures.find((m) => m.name === name)?.score));
    lines.push(line(name, word, 'figure', scores, scores));
  }
  for (const extension of extensions) {
    const statuses = names.map((n) => shownStatus(n.cells.find((c) => c.extension === extension)));
    lines.push(line(`.${extension}`, `.${extension}`, 'status', statuses, statuses.map(hope)));
  }
  for (const [span, word] of SPANS) {
    const costs = names.map((n) => ({ cost: n.costs.least[span], currency: n.costs.least.currency }));
    if (costs.some(({ cost }) => cost))
      lines.push(
        line(
          span,
          word,
          'text',
          costs.map(({ cost, currency }) => cost && `${formatMoney(cost.amount, currency)}, .${cost.extension}`),
          costs.map(({ cost }) => cost && -thousandths(cost.amount)),
        ),
      );
  }
  const looked = names.map((n) => n.looked_for[0]?.demand ?? null);
  if (looked.some((demand) => demand !== null))
    lines.push(line('demand', t('Searches a month'), 'figure', looked, looked));
  const right = names.map((n) => Math.round(100 * (1 - n.misspellings.reduce((sum, m) => sum + m.share, 0))));
  lines.push(line('right', t('Written right, of 100 who hear it'), 'figure', right, right));
  lines.push(
    line(
      'misspelt',
      t('Most likely misspelling'),
      'text',
      names.map((n) => n.misspellings[0]?.label ?? t('none')),
    ),
  );
  const warned = names.map((n) => n.warnings.length);
  lines.push(
    line(
      'warnings',
      t('Warnings'),
      'text',
      names.map((n) => n.warnings.map((w) => w.text).join(' ') || t('none')),
      warned.map((n) => -n),
    ),
  );
  const heavy = names.map((n) => n.vetted.filter((v) => !v.accepted && ['stop', 'think'].includes(v.weight)));
  if (names.some((n) => n.vetted.length))
    lines.push(
      line(
        'vetting',
        t('Vetting'),
        'text',
        names.map((n, i) =>
          n.vetted.length ? heavy[i]?.map((v) => v.text).join(' ') || t('nothing weighty') : t('not vetted'),
        ),
        names.map((n, i) =>
          // One to stop at is worse than any number to think about.
          n.vetted.length ? -(heavy[i] ?? []).reduce((sum, v) => sum + (v.weight === 'stop' ? 100 : 1), 0) : null,
        ),
      ),
    );
  lines.push(
    line(
      'parts',
      t('Made of'),
      'text',
      names.map(
        (n) =>
          n.parts
            .filter((p) => p.kind !== 'hyphen')
            .map((p) => p.text)
            .join(' + ') || n.shown,
      ),
    ),
  );
  lines.push(
    line(
      'note',
      t('Note'),
      'text',
      names.map((n) => n.note),
    ),
  );
  lines.push(
    line(
      'tags',
      t('Tags'),
      'text',
      names.map((n) => n.tags.join(', ')),
    ),
  );
  return lines;
}
