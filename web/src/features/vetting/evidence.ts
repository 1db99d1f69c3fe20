import type { EvidenceOfFinding } from '../../shared/api';
import { formatCount, formatDay, formatMoney, shareOf } from '../../shared/lib/format';
import { mistypedBy } from '../../shared/lib/mistyped';
import { wordOf } from '../../shared/ui/status';
import { t } from '../../shared/texts';

type Row = EvidenceOfFinding;
export interface Column {
  key: string;
  word: string;
  /** As it is shown; what is there as text, where nothing is said. */
  show?: (row: Row) => string;
  figure?: boolean;
}

const text = (value: unknown): string => (typeof value === 'string' || typeof value === 'number' ? String(value) : '');
/** What a file says is no date is shown as it came. */
const day = (value: string): string => (Number.isNaN(Date.parse(value)) ? value : formatDay(value));
const number = (value: unknown): number => (typeof value === 'number' ? value : 0);
/** A small share is told of a thousand, or of ten thousand. */
const fewOf = (part: number): string => {
  if (part >= 0.01) return shareOf(part);
  const of = part >= 0.001 ? 1_000 : 10_000;
  const few = Math.round(part * of);
  return few < 1 ? t('under 1 in {of, number}', { of }) : t('{few, number} in {of, number}', { few, of });
};
const status = (row: Row) => (row.status === 'unknown' ? t('not known') : wordOf(text(row.status)));
export const SAYS: Record<string, string> = {
  free: t('free'),
  taken: t('taken'),
  barred: t('not allowed'),
  unknown: t('not known'),
};
const FIELD: Record<string, string> = { yours: t('yours'), another: t('another'), unknown: t('not known') };
const MARKS: Record<string, string> = {
  registered: t('registered'),
  pending: t('pending'),
  opposed: t('opposed'),
  expired: t('expired'),
  cancelled: t('cancelled'),
  unknown: t('not known'),
};

/** What speaks for the findings of each kind, column by column. */
export const COLUMNS: Record<string, readonly Column[]> = {
  marks: [
    { key: 'word', word: t('Mark') },
    { key: 'how', word: t('How it is alike') },
    { key: 'said', word: t('Said') },
    { key: 'likeness', word: t('Likeness'), show: (r) => shareOf(number(r.likeness)), figure: true },
    { key: 'owner', word: t('Owner') },
    { key: 'goods', word: t('For'), show: (r) => `${text(r.goods)} (${text(r.classes) || t('not told')})` },
    { key: 'status', word: t('State'), show: (r) => MARKS[text(r.status)] ?? text(r.status) },
    { key: 'registered', word: t('Registered'), show: (r) => day(text(r.registered)) },
    { key: 'office', word: t('Register'), show: (r) => `${text(r.office)}, ${text(r.number)}` },
  ],
  prior_use: [
    { key: 'title', word: t('Found') },
    { key: 'where', word: t('Where') },
    { key: 'says', word: t('What it is'), show: (r) => PRIOR[text(r.says)] ?? text(r.says) },
    { key: 'field', word: t('Field'), show: (r) => FIELD[text(r.field)] ?? text(r.why) },
    { key: 'asked', word: t('Asked for') },
    {
      key: 'results',
      word: t('Of'),
      show: (r) => (r.results == null ? '' : formatCount(number(r.results))),
      figure: true,
    },
  ],
  mistyped: [
    { key: 'full_name', word: t('Typed') },
    { key: 'kind', word: t('Why'), show: (r) => mistypedBy(text(r.kind)) },
    { key: 'status', word: t('Who is there'), show: status },
    { key: 'holder', word: t('Holder') },
    { key: 'share', word: t('How many'), show: (r) => fewOf(number(r.share)), figure: true },
  ],
  elsewhere: [
    { key: 'language', word: t('Language') },
    { key: 'part', word: t('Letters') },
    { key: 'says', word: t('What it is'), show: (r) => (r.says === 'read as' ? t('read as') : text(r.says)) },
    { key: 'said', word: t('Said') },
    { key: 'market', word: t('Your market'), show: (r) => (r.market ? t('yes') : t('no')) },
  ],
  protection: [
    { key: 'full_name', word: t('Name') },
    { key: 'share', word: t('Catches'), show: (r) => fewOf(number(r.share)), figure: true },
    { key: 'yearly', word: t('A year'), show: (r) => formatMoney(text(r.yearly), text(r.currency)), figure: true },
    { key: 'held', word: t('In the bundle'), show: (r) => (r.held ? t('yes') : t('no')) },
  ],
};
const PRIOR: Record<string, string> = {
  'goes by the name': t('goes by the name'),
  'speaks of it': t('speaks of it'),
  'no answer': t('no answer'),
  'correction by our model': t('what correctors would make of it'),
};

/** What stands in a cell. */
export const shown = (column: Column, row: Row): string => (column.show ? column.show(row) : text(row[column.key]));

/** The platforms with the handles asked about, for a grid: a row a platform, a column a handle. */
export function handleGrid(rows: readonly Row[]): { handles: string[]; platforms: Map<string, Map<string, Row>> } {
  const handles = [...new Set(rows.map((r) => text(r.handle)))];
  const platforms = new Map<string, Map<string, Row>>();
  for (const row of rows) {
    const of = platforms.get(text(row.platform)) ?? new Map<string, Row>();
    of.set(text(row.handle), row);
    platforms.set(text(row.platform), of);
  }
  return { handles, platforms };
}

/** What a platform says of a handle. */
export const saysOf = (row: Row | undefined): string =>
  row ? (SAYS[text(row.says)] ?? text(row.says)) : t('not asked');
export const whyOf = (row: Row | undefined): string => text(row?.why);
