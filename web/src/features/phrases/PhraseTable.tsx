import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';

import type { PhraseLine } from '../../shared/api';
import { formatCount, shareOf } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { type Head, PickBox, PickTable } from '../../shared/ui/PickTable';
import { competitionOf, MonthBars, monthNames, priceOf, searchesOf } from './figures';
import type { Question } from './usePhrases';

type Sort = NonNullable<Question['sort']>;

const HEADS: readonly Head<Sort>[] = [
  { sort: 'phrase', word: t('Phrase') },
  {
    sort: 'demand',
    word: t('Searches a month'),
    title: t('Of all that is gathered under it, by the source chosen; of a range the lower end counts'),
    figure: true,
  },
  { sort: 'season', word: t('Season'), title: t('The last twelve months') },
  { sort: 'competition', word: t('Contested'), title: t('0 for nobody, 100 for everybody'), figure: true },
  { sort: 'price', word: t('A click'), title: t('What a click is paid'), figure: true },
  {
    sort: 'covers',
    word: t('Would cover'),
    title: t('The share of all demand it would cover as the subject of a site'),
    figure: true,
  },
];
/** Where the lowest stands first, unless turned round. */
const RISING: ReadonlySet<Sort> = new Set(['phrase', 'competition', 'price', 'words']);

interface Props {
  lines: readonly PhraseLine[];
  question: Question;
  open: string | null;
  onSort: (part: { sort: Sort; reverse: boolean }) => void;
  onOpen: (phrase: string) => void;
  onChoose: (phrases: string[], on: boolean) => void;
}

/** What a head's demand comes to: a range as it is, else the sum. */
function Searches({ line: { figure, demand, variants } }: { line: PhraseLine }) {
  if (demand === null) return <span title={t('Nobody said; that is not 0')}>–</span>;
  const whole = variants > 1 && demand !== figure.low ? formatCount(demand) : searchesOf(figure);
  return <span>{whole}</span>;
}

/** The phrases of a page, each a head with what is gathered under it. */
export function PhraseTable({ lines, question, open, onSort, onOpen, onChoose }: Props) {
  const all = lines.length > 0 && lines.every((line) => line.chosen);
  const by = question.sort ?? 'demand';
  return (
    <PickTable
      label={t('Phrases')}
      minWidth={700}
      heads={HEADS}
      sorted={{ by, down: RISING.has(by) === (question.reverse ?? false) }}
      all={all}
      onAll={(on) =>
        onChoose(
          lines.map((line) => line.phrase),
          on,
        )
      }
      onSort={(sort) => onSort({ sort, reverse: sort === by && !question.reverse })}>
      {lines.map((line) => (
        <Box component="tr" key={line.phrase} sx={open === line.phrase ? { bgcolor: 'action.selected' } : undefined}>
          <td>
            <PickBox
              label={t('Choose {phrase}', { phrase: line.phrase })}
              on={line.chosen}
              onChange={(on) => onChoose([line.phrase], on)}
            />
          </td>
          <td>
            <Button
              color="inherit"
              className="serif"
              aria-expanded={open === line.phrase}
              onClick={() => onOpen(line.phrase)}
              sx={{
                px: 0,
                minWidth: 0,
                fontSize: '1rem',
                textAlign: 'left',
                overflowWrap: 'anywhere',
                lineHeight: 1.3,
              }}>
              {line.phrase}
            </Button>{' '}
            {line.variants > 1 && (
              <Typography component="span" variant="caption" color="textSecondary" noWrap>
                {t('+{more, number} gathered', { more: line.variants - 1 })}
              </Typography>
            )}
          </td>
          <td className="num">
            <Searches line={line} />
          </td>
          <td style={{ whiteSpace: 'nowrap' }}>
            <MonthBars figure={line.figure} />
            {line.season && (
              <Typography component="span" variant="caption" color="textSecondary" noWrap sx={{ ml: 0.6 }}>
                {monthNames(line.figure.last_month)[line.season.peak]?.split(' ')[0]} ×{line.season.times.toFixed(1)}
              </Typography>
            )}
          </td>
          <td className="num">{competitionOf(line.figure)}</td>
          <td className="num">{priceOf(line.figure)}</td>
          <td className="num">{line.cover === null ? '–' : shareOf(line.cover)}</td>
        </Box>
      ))}
    </PickTable>
  );
}
