import Badge from '@mui/material/Badge';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Popover from '@mui/material/Popover';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useCallback, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';

import type { Hunted, Project } from '../../shared/api';
import { formatCount } from '../../shared/lib/format';
import { gradingOf } from '../../shared/lib/grading';
import { usePreferences } from '../../shared/lib/preferences';
import { useOpenProject } from '../../shared/lib/projectContext';
import { useActs } from '../../shared/lib/useActs';
import { useNow } from '../../shared/lib/useNow';
import { ColumnChoices, RowChoices } from '../../shared/sheet/ColumnChoices';
import { NamedViews } from '../../shared/sheet/NamedViews';
import { useLastView } from '../../shared/sheet/useViews';
import { useSheetView } from '../../shared/sheet/useView';
import { t } from '../../shared/texts';
import { WatchAllButton } from '../../shared/watching/WatchButton';
import { allHuntColumns, huntColumn, USUAL_COLUMNS } from './huntColumns';
import { HuntedPanel } from './HuntedPanel';
import { HuntFilters } from './HuntFilters';
import { HUNT_FIELDS, useHuntQuestion } from './huntQuestion';
import { HuntSheet, keyOf } from './HuntSheet';
import { MarketList } from './MarketList';
import { useFirstHunt, useHuntCounts, useMarkets, useNewLists } from './useHunt';

const NARROW = '(max-width: 1099.95px)';
const WIDE_GRID = { gridTemplateColumns: '252px minmax(0, 1fr) 286px', height: '100%' };

/** Columns and rows of the hunt's sheet, in a panel of their own. */
function Looks({ project, view, onView }: Parameters<typeof RowChoices>[0] & { project: Project }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button
        variant="outlined"
        aria-haspopup="dialog"
        aria-expanded={anchor !== null}
        onClick={(e) => setAnchor(e.currentTarget)}>
        {t('View')}
      </Button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}>
        <Stack sx={{ p: 2, gap: 1.5, width: 320 }}>
          <Typography variant="h3" component="h2">
            {t('Columns')}
          </Typography>
          <ColumnChoices all={allHuntColumns()} columnOf={huntColumn} view={view} onView={onView} />
          <RowChoices view={view} onView={onView} />
          <Typography variant="h3" component="h2">
            {t('Views')}
          </Typography>
          <NamedViews project={project} place="hunt" />
        </Stack>
      </Popover>
    </>
  );
}

/** The hunt as it was looked at last, or as its address says. */
export function HuntPage() {
  const project = useOpenProject();
  const settled = useLastView(project, 'hunt');
  return settled ? <Hunt project={project} /> : <LinearProgress aria-label={t('Loading')} />;
}

/** Names others hold or let go that suit the brief. */
function Hunt({ project }: { project: Project }) {
  const [question, ask] = useHuntQuestion();
  const { preferences } = usePreferences();
  const [view, setView] = useSheetView({
    known: allHuntColumns().join(),
    shown: USUAL_COLUMNS.join(),
    density: preferences?.density ?? 'usual',
  });
  const narrow = useMediaQuery(NARROW);
  const [pane, setPane] = useState<'sheet' | 'filters' | 'name'>('sheet');
  const first = useFirstHunt(project.id, question);
  const counts = useHuntCounts(project.id, question);
  const markets = useMarkets();
  useNewLists(project.id, markets.data);
  const { act } = useActs(project.id);
  const navigate = useNavigate();
  const now = useNow();
  const grading = useMemo(() => gradingOf(project.brief, null), [project.brief]);
  const currency = first.data?.currency ?? '';
  const context = useMemo(() => ({ grading, currency, now }), [grading, currency, now]);
  const [picked, setPicked] = useState<Hunted | null>(null);
  // What is shown of the chosen one is what the list says of it now.
  const chosen = useMemo(
    () => picked && (first.data?.rows.find((row) => keyOf(row) === keyOf(picked)) ?? picked),
    [picked, first.data],
  );
  const onKeep = useCallback(
    (row: Hunted) => {
      setPicked((one) => (one && one.label === row.label ? { ...one, kept: !row.kept } : one));
      void act(row.kept ? 'unkeep' : 'keep', [row.label]);
    },
    [act],
  );
  const onOpen = useCallback(
    (row: Hunted) => {
      void navigate(`/projects/${project.id}/names/${row.label}.${row.extension}`);
    },
    [navigate, project.id],
  );
  const filters = (
    <HuntFilters
      question={question}
      onAsk={ask}
      counts={counts.data}
      total={first.data?.total}
      markets={markets.data?.markets ?? []}
      currency={currency}
    />
  );
  const named = chosen ? (
    <HuntedPanel row={chosen} projectId={project.id} context={context} onKeep={onKeep} />
  ) : (
    <Typography color="textSecondary">{t('Choose a name to see what is told of it.')}</Typography>
  );
  const panes = [
    ['filters', t('Filters')],
    ['sheet', t('Offers')],
    ['name', t('The name')],
  ] as const;
  const side = { p: 2, pt: 1.5, overflowY: 'auto', minHeight: 0 };
  return (
    <Box
      component="main"
      sx={{
        display: 'grid',
        ...(narrow ? { gridTemplateRows: 'auto minmax(280px, 1fr)', height: '100%' } : WIDE_GRID),
        '& > *': { minHeight: 0 },
      }}>
      {narrow && (
        <Stack direction="row" role="group" aria-label={t('What is in view')} sx={{ gap: 1, p: 1 }}>
          {panes.map(([name, word]) => (
            <Button
              key={name}
              variant={pane === name ? 'contained' : 'outlined'}
              aria-pressed={pane === name}
              onClick={() => setPane(name)}>
              {word}
            </Button>
          ))}
        </Stack>
      )}
      {(!narrow || pane === 'filters') && (
        <Box component="aside" aria-label={t('Filters')} sx={{ ...side, borderRight: 1, borderColor: 'divider' }}>
          {filters}
        </Box>
      )}
      {(!narrow || pane === 'sheet') && (
        <Stack sx={{ minWidth: 0, minHeight: 0 }}>
          <Stack
            direction="row"
            sx={{ px: 2, py: 1.2, gap: 2, alignItems: 'baseline', justifyContent: 'space-between', flexWrap: 'wrap' }}>
            <Box sx={{ flex: '1 1 180px', minWidth: 0 }}>
              <Typography variant="h2" component="h1">
                {t('Hunt')}
              </Typography>
              <Typography color="textSecondary">
                {first.data
                  ? t('{total} names others hold or let go, graded as yours are', {
                      total: formatCount(first.data.total),
                    })
                  : t('Names others hold or let go')}
              </Typography>
            </Box>
            <Box>
              <WatchAllButton
                projectId={project.id}
                word={t('Watch this search')}
                wish={{ kind: 'hunt', question: Object.fromEntries(HUNT_FIELDS.write(question)) }}
              />
            </Box>
            <Button component={Link} to={`/projects/${project.id}/short`}>
              {t('Short names')}
            </Button>
            <Badge badgeContent={narrow ? HUNT_FIELDS.filtersOf(question) : 0} color="secondary">
              <Looks project={project} view={view} onView={setView} />
            </Badge>
          </Stack>
          <HuntSheet
            projectId={project.id}
            question={question}
            onAsk={ask}
            view={view}
            onView={setView}
            context={context}
            chosen={chosen}
            onChoose={setPicked}
            onKeep={onKeep}
            onOpen={onOpen}
            none={markets.data?.markets.length === 0}
            coming={markets.data?.coming ?? false}
          />
          <Box sx={{ px: 2, py: 1, borderTop: 1, borderColor: 'divider', maxHeight: '45%', overflowY: 'auto' }}>
            <MarketList />
          </Box>
        </Stack>
      )}
      {(!narrow || pane === 'name') && (
        <Box component="aside" aria-label={t('The name')} sx={{ ...side, borderLeft: 1, borderColor: 'divider' }}>
          {named}
        </Box>
      )}
    </Box>
  );
}
