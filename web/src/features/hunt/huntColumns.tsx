import type { Hunted } from '../../shared/api';
import { measures, offerKind, pastUse } from '../../shared/lib/concepts';
import { formatCount, formatDay, formatLeft, formatMoment, formatMoney } from '../../shared/lib/format';
import { gradeOf, type Grading } from '../../shared/lib/grading';
import { type Column, laidOut } from '../../shared/sheet/layout';
import { t } from '../../shared/texts';

/** What cells of the hunt need beside their row. */
export interface HuntContext {
  grading: Grading;
  currency: string;
  /** Milliseconds. */
  now: number;
}

export type HuntColumn = Column<Hunted, HuntContext>;

const untold = () => <span title={t('The list does not tell')}>–</span>;
const count = (value: number | null) => (value === null ? untold() : formatCount(value));
const muted = (text: string) => (text ? <span className="muted">{text}</span> : untold());

/** The price as it is asked, and in the person's own currency where that is another. */
export function Price({ row, currency }: { row: Hunted; currency: string }) {
  const { offer, cost } = row;
  if (offer.price === null) return untold();
  const asked = formatMoney(offer.price, offer.currency);
  if (cost === null || offer.currency === currency) return <>{asked}</>;
  return <span title={asked}>{t('≈ {cost}', { cost: formatMoney(cost, currency) })}</span>;
}

const DAY = 86_400_000;

/** When a name may become open, as far as the list tells: a moment, a day, or from one day to another. */
export function dropTold({ drops_from: from, drops_to: to }: Hunted['offer']): string {
  if (!from) return '';
  if (!to || to === from) return formatMoment(from);
  const last = new Date(Date.parse(to) - 1).toISOString();
  return Date.parse(to) - Date.parse(from) <= DAY
    ? formatDay(from)
    : t('{from} to {to}', { from: formatDay(from), to: formatDay(last) });
}

/** When it ends or drops: what is left, with the moment in the person's own zone. */
export function When({ row: { offer }, now }: { row: Hunted; now: number }) {
  const at = offer.ends ?? offer.drops_from;
  if (!at) return untold();
  return (
    <time dateTime={at} title={offer.ends ? formatMoment(offer.ends) : dropTold(offer)}>
      {formatLeft(at, now)}
    </time>
  );
}

const plain = (): readonly HuntColumn[] => [
  {
    id: 'grade',
    word: t('Grade'),
    title: t('The weighted whole, 0 to 100'),
    width: 60,
    figure: (row, { grading }) => (row.grade === null ? null : gradeOf(row.scores, grading)),
  },
  {
    id: 'suits',
    word: t('Suits'),
    title: t('How well its words and its past suit the brief, 0 to 100: the order of the list'),
    width: 60,
    figure: (row) => row.suits,
  },
  {
    id: 'kind',
    word: t('How'),
    title: t('How it can be had'),
    width: 98,
    cell: (row) => (
      <span title={offerKind(row.offer.kind)?.means}>{offerKind(row.offer.kind)?.word ?? row.offer.kind}</span>
    ),
  },
  {
    id: 'price',
    word: t('Price'),
    title: t('Asked, or bid so far in an auction'),
    width: 96,
    sort: 'price',
    cell: (row, { currency }) => <Price row={row} currency={currency} />,
  },
  {
    id: 'bids',
    word: t('Bids'),
    title: t('Bids made so far'),
    width: 50,
    sort: 'bids',
    falling: true,
    cell: (row) => (row.offer.kind === 'auction' ? count(row.offer.bids) : ''),
  },
  {
    id: 'ends',
    word: t('Ends, drops'),
    title: t('When the auction ends, or the name may become open'),
    width: 92,
    sort: 'ends',
    cell: (row, { now }) => <When row={row} now={now} />,
  },
  {
    id: 'market',
    word: t('Market'),
    title: t('Whose list tells of it'),
    width: 130,
    cell: (row) => muted(row.offer.market_name),
  },
  {
    id: 'letters',
    word: t('Letters'),
    title: t('Letters, without hyphens'),
    width: 54,
    sort: 'letters',
    cell: (row) => row.letters,
  },
  {
    id: 'words',
    word: t('Words'),
    title: t('Words it is made of'),
    width: 54,
    sort: 'words',
    cell: (row) => row.words || untold(),
  },
  {
    id: 'age',
    word: t('First registered'),
    title: t('When it was registered first'),
    width: 106,
    sort: 'age',
    cell: (row) => (row.offer.first_registered ? formatDay(row.offer.first_registered) : untold()),
  },
  {
    id: 'times',
    word: t('Times'),
    title: t('How often it was registered'),
    width: 52,
    cell: (row) => count(row.offer.times_registered),
  },
  {
    id: 'links',
    word: t('Links'),
    title: t('Links that lead to it'),
    width: 60,
    sort: 'links',
    falling: true,
    cell: (row) => count(row.offer.links),
  },
  {
    id: 'sites',
    word: t('Sites'),
    title: t('Sites those links stand on'),
    width: 56,
    sort: 'sites',
    falling: true,
    cell: (row) => count(row.offer.linking_sites),
  },
  {
    id: 'archived',
    word: t('Copies'),
    title: t('Copies of it in public archives, and what they were about'),
    width: 110,
    cell: (row) =>
      row.offer.archived === null
        ? untold()
        : muted([formatCount(row.offer.archived), row.offer.archived_about].filter(Boolean).join(', ')),
  },
  {
    id: 'used',
    word: t('Used for'),
    title: t('What it was used for before'),
    width: 110,
    cell: (row) =>
      row.offer.risk ? (
        <span className="low" title={row.offer.risk}>
          {pastUse(row.offer.used_for)}
        </span>
      ) : (
        muted(pastUse(row.offer.used_for))
      ),
  },
  {
    id: 'rank',
    word: t('Search rank'),
    title: t('Its place among what is searched for with its words'),
    width: 86,
    sort: 'rank',
    cell: (row) => count(row.offer.rank),
  },
  {
    id: 'click',
    word: t('Click'),
    title: t('What a click costs with its words'),
    width: 70,
    cell: (row) =>
      row.offer.click_price === null || !row.offer.currency
        ? (row.offer.click_price ?? untold())
        : formatMoney(row.offer.click_price, row.offer.currency),
  },
  {
    id: 'also',
    word: t('Also under'),
    title: t('Other extensions it is registered under'),
    width: 110,
    cell: (row) => muted(row.offer.also.map((e) => `.${e}`).join(' ')),
  },
  ...measures().map(({ name, short, asks }): HuntColumn => ({
    id: name,
    word: short,
    title: asks,
    width: 66,
    figure: (row) => row.scores[name] ?? null,
  })),
];

let byId: ReadonlyMap<string, HuntColumn> | null = null;
const columns = (): ReadonlyMap<string, HuntColumn> => (byId ??= new Map(plain().map((column) => [column.id, column])));

export const huntColumn = (id: string): HuntColumn => {
  const found = columns().get(id);
  if (!found) throw new Error(`no column ${id}`);
  return found;
};
export const allHuntColumns = (): string[] => [...columns().keys()];
const NAME_WIDTH = 176;
export const USUAL_COLUMNS = ['grade', 'suits', 'kind', 'price', 'bids', 'ends', 'letters', 'age', 'sites', 'used'];

export const huntLayout = (
  ids: readonly string[],
  pinned: readonly string[],
  widths: Readonly<Record<string, number>>,
) => laidOut(huntColumn, ids, pinned, widths, NAME_WIDTH);
