import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import LinearProgress from '@mui/material/LinearProgress';
import Slider from '@mui/material/Slider';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';

import { asApiError, type Coverage, type PhraseGroup, type PhraseGroups } from '../../shared/api';
import { formatCount, shareOf } from '../../shared/lib/format';
import { useDebounced } from '../../shared/lib/useDebounced';
import { t } from '../../shared/texts';
import { EmptyState } from '../../shared/ui/EmptyState';
import { FileMenu } from '../../shared/ui/FileMenu';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { useNotify } from '../../shared/ui/Notices';
import { useBriefActs } from './useBriefActs';
import { type PhraseActs, type Question, useGroups } from './usePhrases';

/** Why a phrase covers so much, in a sentence. */
export function coverInWords(cover: Coverage): string {
  const parts = [t('{share} are its own', { share: shareOf(cover.own_share) })];
  if (cover.within)
    parts.push(
      t('{count, plural, one {# phrase has} other {# phrases have}} all its words: {share}', {
        count: cover.within,
        share: shareOf(cover.within_share),
      }),
    );
  if (cover.near)
    parts.push(
      t('{count, plural, one {# is} other {# are}} near in meaning: {share}', {
        count: cover.near,
        share: shareOf(cover.near_share),
      }),
    );
  return `${parts.join('; ')}.`;
}

interface Props {
  projectId: number;
  question: Question;
  onAsk: (part: { [K in keyof Question]?: Question[K] | undefined }) => void;
  onList: (group: string, cut: number) => void;
  acts: PhraseActs;
}

/** How much of all demand a share is, as a band. */
const Band = ({ share, strong = false }: { share: number; strong?: boolean }) => (
  <Box
    aria-hidden
    sx={{
      height: strong ? 10 : 5,
      bgcolor: 'action.hover',
      borderRadius: 1,
      overflow: 'hidden',
      flex: { xs: '1 0 100%', sm: 1 },
    }}>
    <Box
      sx={{
        width: `${Math.max(0.4, 100 * share)}%`,
        height: '100%',
        bgcolor: strong ? 'secondary.main' : 'warning.main',
      }}
    />
  </Box>
);

function GroupBand({
  group,
  cut,
  acts,
  onHead,
  onList,
}: {
  group: PhraseGroup;
  cut: number;
  acts: PhraseActs;
  onHead: (phrase: string) => void;
  onList: Props['onList'];
}) {
  const [open, setOpen] = useState(false);
  const notify = useNotify();
  const choose = (phrases: string[], on: boolean) =>
    acts.choose.mutate({ phrases, on }, { onError: (e) => notify(asApiError(e)?.problems[0]?.message ?? e.message) });
  return (
    <Box component="li" sx={{ py: 1, borderTop: 1, borderColor: 'divider' }}>
      <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Button
          color="inherit"
          className="serif"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
          sx={{
            px: 0,
            fontSize: '1.1rem',
            textAlign: 'left',
            lineHeight: 1.2,
            width: { xs: '100%', sm: 260 },
            justifyContent: 'flex-start',
          }}>
          {group.head}
        </Button>
        <Band share={group.share} strong />
        <Typography variant="body2" sx={{ minWidth: 210, fontVariantNumeric: 'tabular-nums' }}>
          {t('{demand, number} searches, {share} of all', { demand: group.demand, share: shareOf(group.share) })}
        </Typography>
        <Typography variant="body2" color="textSecondary" sx={{ minWidth: 100 }}>
          {t('{count, plural, one {# phrase} other {# phrases}}', { count: group.count })}
        </Typography>
      </Stack>
      {group.count > 1 && (
        <Typography variant="caption" color="textSecondary">
          {t('Covers {share} of the group.', { share: shareOf(group.cover.share) })} {coverInWords(group.cover)}
          {group.unknown > 0 && ` ${t('Of {unknown, number} nothing is known.', { unknown: group.unknown })}`}
        </Typography>
      )}
      {open && (
        <Box sx={{ pl: { sm: 2 }, mt: 0.5 }}>
          <Box sx={{ overflowX: 'auto' }}>
            <Box
              component="table"
              aria-label={t('The group of {phrase}', { phrase: group.head })}
              sx={{
                borderCollapse: 'collapse',
                '& td, & th': { pr: 2, py: 0.2, textAlign: 'left' },
                '& .num': { textAlign: 'right' },
              }}>
              <thead>
                <tr>
                  <td />
                  <th scope="col">{t('Phrase')}</th>
                  <th scope="col" className="num">
                    {t('Searches')}
                  </th>
                  <th scope="col" className="num">
                    {t('Covers of the group')}
                  </th>
                  <th scope="col" className="num">
                    {t('of all')}
                  </th>
                </tr>
              </thead>
              <tbody>
                {group.lines.map(({ line, in_group, of_all }) => (
                  <tr key={line.phrase}>
                    <td>
                      <Checkbox
                        size="small"
                        checked={line.chosen}
                        onChange={(_, on) => choose([line.phrase], on)}
                        slotProps={{ input: { 'aria-label': t('Choose {phrase}', { phrase: line.phrase }) } }}
                      />
                    </td>
                    <td>{line.phrase}</td>
                    <td className="num">{line.demand === null ? '–' : formatCount(line.demand)}</td>
                    <td className="num">{shareOf(in_group)}</td>
                    <td className="num">{shareOf(of_all)}</td>
                  </tr>
                ))}
              </tbody>
            </Box>
          </Box>
          <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', mt: 0.5 }}>
            <Button size="small" variant="outlined" onClick={() => onHead(group.head)}>
              {t('Make “{phrase}” the head phrase', { phrase: group.head })}
            </Button>
            <Button
              size="small"
              onClick={() =>
                choose(
                  group.lines.map(({ line }) => line.phrase),
                  true,
                )
              }>
              {t('Choose those shown')}
            </Button>
            {group.count > group.lines.length && (
              <Button size="small" onClick={() => onList(group.head, cut)}>
                {t('All {count, number} of the group', { count: group.count })}
              </Button>
            )}
          </Stack>
        </Box>
      )}
    </Box>
  );
}

/** The phrase that covers the rest, and others that could. */
function Candidates({ groups, onHead }: { groups: PhraseGroups; onHead: (phrase: string) => void }) {
  const [first, ...others] = groups.candidates;
  if (!first || groups.grouped < 2 || !groups.demand) return null;
  return (
    <Box
      component="section"
      aria-label={t('The phrase that covers the rest')}
      sx={{ p: 2, my: 2, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
      <Typography color="textSecondary">{t('The phrase that covers the rest')}</Typography>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'baseline', flexWrap: 'wrap' }}>
        <Typography className="serif" sx={{ fontSize: '1.7rem', lineHeight: 1.2 }}>
          {first.line.phrase}
        </Typography>
        <Typography sx={{ fontWeight: 600 }}>
          {t('{share} of all {demand, number} searches', { share: shareOf(first.cover.share), demand: groups.demand })}
        </Typography>
        <Button size="small" variant="outlined" onClick={() => onHead(first.line.phrase)}>
          {t('Make it the head phrase')}
        </Button>
      </Stack>
      <Typography variant="body2" color="textSecondary">
        {coverInWords(first.cover)}
      </Typography>
      {others.length > 0 && (
        <Box component="details" sx={{ mt: 1 }}>
          <summary>{t('Others that could carry a site')}</summary>
          <Box component="ul" sx={{ m: 0, pl: 0, listStyle: 'none' }}>
            {others.map(({ line, cover }) => (
              <Stack
                component="li"
                key={line.phrase}
                direction="row"
                sx={{ gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
                <Button
                  size="small"
                  color="inherit"
                  sx={{ px: 0, minWidth: 180, justifyContent: 'flex-start' }}
                  onClick={() => onHead(line.phrase)}>
                  {line.phrase}
                </Button>
                <Typography variant="caption" color="textSecondary">
                  {shareOf(cover.share)}: {coverInWords(cover)}
                </Typography>
              </Stack>
            ))}
          </Box>
        </Box>
      )}
    </Box>
  );
}

/** Phrases that belong together, as bands by how much they are looked for; the cut is the person's. */
export function GroupsPart({ projectId, question, onAsk, onList, acts }: Props) {
  const view = question.view ?? '';
  const [moved, setMoved] = useState<number | undefined>(question.cut);
  const cut = useDebounced(moved, 150);
  const { data, error, refetch, isFetching } = useGroups(projectId, view, cut);
  const brief = useBriefActs(projectId, acts);
  if (!data) {
    if (!error) return <LinearProgress aria-label={t('Grouping the phrases')} />;
    return <LoadFailed title={t('The phrases could not be grouped')} error={error} onRetry={refetch} />;
  }
  if (!data.grouped) return <EmptyState title={t('No phrase is there to be grouped')} />;
  return (
    <Box>
      <Candidates groups={data} onHead={brief.head} />
      <Stack direction="row" sx={{ gap: 2.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Box sx={{ width: 260 }}>
          <Typography id="cut-label" variant="body2">
            {t('How far apart phrases of a group may lie')}
          </Typography>
          <Slider
            size="small"
            min={0}
            max={1}
            step={0.02}
            value={moved ?? data.cut}
            aria-labelledby="cut-label"
            valueLabelDisplay="auto"
            valueLabelFormat={(value) => value.toFixed(2)}
            onChange={(_, value) => setMoved(value)}
            onChangeCommitted={(_, value) => onAsk({ cut: value })}
          />
        </Box>
        {moved !== undefined && Math.abs(moved - data.usual_cut) > 0.005 && (
          <Button
            size="small"
            onClick={() => {
              setMoved(undefined);
              onAsk({ cut: undefined });
            }}>
            {t('As proposed')}
          </Button>
        )}
        <Typography role="status" color="textSecondary">
          {t('{count, plural, one {# group} other {# groups}} of {grouped, number} phrases', {
            count: data.count,
            grouped: data.grouped,
          })}
          {data.heads > data.grouped && `, ${t('those looked for most of {heads, number}', { heads: data.heads })}`}
          {isFetching && ' …'}
        </Typography>
        <FileMenu
          address={(form) =>
            `/api/projects/${projectId}/phrases/file?what=groups&form=${form}&${new URLSearchParams({ view, cut: String(data.cut) }).toString()}`
          }
        />
      </Stack>
      <Box component="ul" aria-label={t('Groups')} sx={{ m: 0, p: 0, mt: 1, listStyle: 'none' }}>
        {data.groups.map((group) => (
          <GroupBand key={group.head} group={group} cut={data.cut} acts={acts} onHead={brief.head} onList={onList} />
        ))}
      </Box>
      {data.count > data.groups.length && (
        <Typography color="textSecondary">
          {t('The {shown, number} groups looked for most are shown.', { shown: data.groups.length })}
        </Typography>
      )}
    </Box>
  );
}
