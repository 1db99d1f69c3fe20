import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Typography from '@mui/material/Typography';

import type { PhraseLine } from '../../shared/api';
import { formatCount, shareOf } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { competitionOf, MonthBars, monthNames, priceOf, searchesOf } from './figures';
import type { Question } from './usePhrases';

type Sort = NonNullable<Question['sort']>;

const HEADS: readonly (readonly [Sort, string, string])[] = [
  ['phrase', t('Phrase'), ''],
  [
    'demand',
    t('Searches a month'),
    t('Of all that is gathered under it, by the source chosen; of a range the lower end counts'),
  ],
  ['season', t('Season'), t('The last twelve months')],
  ['competition', t('Contested'), t('0 for nobody, 100 for everybody')],
  ['price', t('A click'), t('What a click is paid')],
  ['covers', t('Would cover'), t('The share of all demand it would cover as the subject of a site')],
];

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
  return (
    <Box sx={{ overflowX: 'auto' }}>
      <Box
        component="table"
        aria-label={t('Phrases')}
        sx={{
          width: '100%',
          minWidth: 700,
          borderCollapse: 'collapse',
          '& td, & th': { py: 0.3, pr: 1.5, textAlign: 'left' },
          '& th': { fontSize: '0.8125rem', fontWeight: 600 },
          '& tbody tr': { borderTop: 1, borderColor: 'divider' },
          '& .num': { textAlign: 'right', fontVariantNumeric: 'tabular-nums', whiteSpace: 'nowrap' },
        }}>
        <thead>
          <tr>
            <th>
              <Checkbox
                size="small"
                checked={all}
                onChange={(_, on) =>
                  onChoose(
                    lines.map((line) => line.phrase),
                    on,
                  )
                }
                slotProps={{ input: { 'aria-label': t('Choose all of the page') } }}
              />
            </th>
            {HEADS.map(([sort, word, title]) => {
              const on = (question.sort ?? 'demand') === sort;
              return (
                <th
                  key={sort}
                  scope="col"
                  className={sort === 'phrase' || sort === 'season' ? '' : 'num'}
                  aria-sort={on ? (question.reverse ? 'ascending' : 'descending') : undefined}>
                  <Button
                    size="small"
                    color="inherit"
                    title={title}
                    sx={{ px: 0, minWidth: 0, fontWeight: on ? 700 : 600 }}
                    onClick={() => onSort({ sort, reverse: on && !question.reverse })}>
                    {word} {on && (question.reverse ? '↑' : '↓')}
                  </Button>
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <Box
              component="tr"
              key={line.phrase}
              sx={open === line.phrase ? { bgcolor: 'action.selected' } : undefined}>
              <td>
                <Checkbox
                  size="small"
                  checked={line.chosen}
                  onChange={(_, on) => onChoose([line.phrase], on)}
                  slotProps={{ input: { 'aria-label': t('Choose {phrase}', { phrase: line.phrase }) } }}
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
                    {monthNames(line.figure.last_month)[line.season.peak]?.split(' ')[0]} ×
                    {line.season.times.toFixed(1)}
                  </Typography>
                )}
              </td>
              <td className="num">{competitionOf(line.figure)}</td>
              <td className="num">{priceOf(line.figure)}</td>
              <td className="num">{line.cover === null ? '–' : shareOf(line.cover)}</td>
            </Box>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}
