import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Stack from '@mui/material/Stack';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import {
  lazy,
  memo,
  type RefObject,
  Suspense,
  useCallback,
  useDeferredValue,
  useEffect,
  useRef,
  useState,
} from 'react';
import { Link, useLocation, useNavigate } from 'react-router';

import { CheckBar, CheckNote } from '../features/check/CheckBar';
import type { Choices } from '../features/check/CheckMenu';
import { ExportMenu } from '../features/check/ExportMenu';
import { type CheckControls, useCheck } from '../features/check/useCheck';
import { ReasonsPanel, type View as ReasonsView } from '../features/reasons/ReasonsPanel';
import { ActiveFilters } from '../features/sheet/ActiveFilters';
import { Funnel } from '../features/sheet/Funnel';
import { useFunnel } from '../features/sheet/useFunnel';
import { MoreButton } from '../features/sheet/MoreButton';
import { type Bench, BenchProvider } from '../features/sheet/bench';
import { Sheet } from '../features/sheet/Sheet';
import { SheetToolbar } from '../features/sheet/SheetToolbar';
import type { View } from '../shared/sheet/useView';
import type { Project } from '../shared/api';
import type { Doing } from '../shared/lib/acts';
import type { Ask, SheetQuestion, CheckWish } from '../shared/lib/question';
import { concepts } from '../shared/lib/concepts';
import { useCommands } from '../shared/lib/keymap';
import type { Grading } from '../shared/lib/grading';
import { type Before, useActs } from '../shared/lib/useActs';
import { MOST_COMPARED } from '../shared/lib/useName';
import { RedoIcon, UndoIcon } from '../shared/ui/icons';
import { useNotify } from '../shared/ui/Notices';
import type { Pane } from './PaneSwitch';
import { t } from '../shared/texts';

const Plot = lazy(async () => ({ default: (await import('../features/sheet/Plot')).Plot }));
const ShortcutsDialog = lazy(async () => ({ default: (await import('./ShortcutsDialog')).ShortcutsDialog }));

interface Props {
  project: Project;
  grading: Grading;
  question: SheetQuestion;
  onAsk: Ask;
  view: View;
  onView: (part: Partial<View>) => void;
  filtering: boolean;
  onFiltering: (on: boolean) => void;
  /** The only part in view, where the window is narrow; null where all are. */
  pane: Pane | null;
  onPane: (pane: Pane) => void;
  /** The fallback order of the brief, and changing it. */
  fallback: readonly string[];
  onFallback: (order: string[]) => void;
}

/** Everything right of the words. A cursor that moves draws anew only the rows and the reasons. */
export const NamesPart = memo(function NamesPart(props: Props) {
  const { project, question, onAsk, view, onView, filtering, onFiltering, pane } = props;
  const { extensions } = project.brief;
  const filter = useRef<HTMLInputElement>(null);
  const [help, setHelp] = useState(false);
  const { undo, redo } = useActs(project.id);
  const navigate = useNavigate();
  const { search } = useLocation();
  const controls = useCheck(project.id, extensions);
  const listed = useFunnel(project.id).data?.listed;
  // What the check menu offers is looked up when it opens.
  const choicesRef = useRef<Choices>({});
  const getChoices = useCallback(() => choicesRef.current, []);
  const getChosen = useCallback(() => choicesRef.current.selected, []);
  useCommands('bench', (command) => {
    if (command === 'undo') void undo();
    else if (command === 'redo') void redo();
    else if (command === 'find') filter.current?.focus();
    else if (command === 'help') setHelp(true);
    else if (command === 'filters') onFiltering(!filtering);
    else void navigate(`/projects/${project.id}/read${search}`, { state: { from: getChoices().selected } });
    return true;
  });
  return (
    <>
      <Stack
        sx={{
          gridArea: 'head',
          display: pane && pane !== 'names' ? 'none' : 'flex',
          gap: pane ? 0.6 : 1.2,
          px: 1.5,
          pt: pane ? 0.6 : 1.2,
          minWidth: 0,
        }}>
        {!pane && <Funnel projectId={project.id} question={question} onChange={onAsk} />}
        <Stack
          direction="row"
          sx={{ columnGap: 1.5, rowGap: 0.6, alignItems: 'center', minHeight: 42, flexWrap: 'wrap' }}>
          <SheetToolbar
            project={project}
            question={question}
            onAsk={onAsk}
            extensions={extensions}
            filterRef={filter}
            view={view}
            onView={onView}
            filtering={filtering}
            onFiltering={onFiltering}
            compact={pane !== null}>
            <Funnel projectId={project.id} question={question} onChange={onAsk} wraps />
            <Reading project={project} question={question} search={search} getChosen={getChosen} />
          </SheetToolbar>
          <Box sx={{ flex: '1 1 auto', display: 'flex', minWidth: controls.active ? 220 : 'min-content' }}>
            <CheckBar controls={controls} names={listed ?? 0} choices={getChoices} noteElsewhere />
          </Box>
        </Stack>
        <ActiveFilters question={question} onAsk={onAsk} />
      </Stack>
      <Rows {...props} controls={controls} choicesRef={choicesRef} search={search} />
      <Suspense>{help && <ShortcutsDialog open onClose={() => setHelp(false)} />}</Suspense>
    </>
  );
});

/** To the names one at a time, from the one chosen on, and the sheet as a file. */
function Reading({
  project,
  question,
  search,
  getChosen,
}: {
  project: Project;
  question: SheetQuestion;
  search: string;
  getChosen: () => string | null | undefined;
}) {
  const navigate = useNavigate();
  const address = `/projects/${project.id}/read${search}`;
  return (
    <>
      <Button
        component={Link}
        to={address}
        onClick={(e) => {
          e.preventDefault();
          void navigate(address, { state: { from: getChosen() } });
        }}
        title={t('One name at a time, large (r)')}
        sx={{ ml: 1, flex: 'none' }}>
        {t('Read one by one')}
      </Button>
      <Box sx={{ flex: 1, textAlign: 'right' }}>
        <ExportMenu projectId={project.id} question={question} />
      </Box>
    </>
  );
}

interface RowsProps extends Props {
  controls: CheckControls;
  choicesRef: RefObject<Choices>;
  search: string;
}

/** The rows with the name chosen and the names marked, what stands beneath them, and the reasons. */
function Rows({
  project,
  grading,
  question,
  onAsk,
  view,
  onView,
  fallback,
  onFallback,
  controls,
  choicesRef,
  search,
  pane,
  onPane,
}: RowsProps) {
  const { extensions, keywords, making, name } = project.brief;
  const notify = useNotify();
  const navigate = useNavigate();
  const acts = useActs(project.id);
  const { act, undo, redo } = acts;
  const [selected, setSelected] = useState<string | null>(null);
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [reasonsView, setReasonsView] = useState<ReasonsView>('reasons');
  // The reasons may come a moment after the cursor.
  const shown = useDeferredValue(selected);
  const onAct = useCallback(
    (doing: Doing, labels: readonly string[], before?: readonly Before[]) => {
      void act(doing, labels, before);
    },
    [act],
  );
  const onKeep = useCallback(
    (label: string, kept: boolean) => {
      onAct(kept ? 'keep' : 'unkeep', [label]);
    },
    [onAct],
  );
  const { mutate: check } = controls.start;
  const begin = useCallback(
    (request: CheckWish) => {
      check(request, {
        onError: (error) => {
          notify(error.message);
        },
      });
    },
    [check, notify],
  );
  const onCheck = useCallback(
    (labels: string[]) => {
      begin({ what: 'labels', labels, again: labels.length === 1 ? 'all' : 'stale' });
    },
    [begin],
  );
  const onCheckCell = useCallback(
    (label: string, extension: string) => {
      begin({ what: 'labels', labels: [label], extensions: [extension], again: 'all' });
    },
    [begin],
  );
  const onRows = useCallback(
    (labels: readonly string[], total: number) => {
      choicesRef.current = { ...choicesRef.current, page: labels, shown: { question, count: total } };
    },
    [choicesRef, question],
  );
  useEffect(() => {
    choicesRef.current = { ...choicesRef.current, marked: [...marked], selected };
  }, [choicesRef, marked, selected]);
  const bench: Bench = {
    projectId: project.id,
    hasWords: keywords.length > 0 || name !== '',
    hasRecipes: making.off.length < concepts().recipes.length,
    question,
    onAsk,
    view,
    onView,
    grading,
    selected,
    onSelect: setSelected,
    marked,
    onMark: setMarked,
    onAct,
    onCheck,
    onCheckCell,
    onRows,
    onVary: () => {
      setReasonsView('near');
      onPane('reasons');
    },
    onOpen: (label) => {
      void navigate(`/projects/${project.id}/names/${label}`);
    },
    onCompare: (labels) => {
      if (labels.length > MOST_COMPARED)
        notify(
          t('Six can stand side by side: these are the first of the {labels, number} marked.', {
            labels: labels.length,
          }),
        );
      void navigate(`/projects/${project.id}/compare?names=${labels.slice(0, MOST_COMPARED).join(',')}`);
    },
  };
  return (
    <>
      <Stack
        component="section"
        aria-label={t('Names')}
        sx={{
          gridArea: pane ? 'body' : 'rows',
          display: pane && pane !== 'names' ? 'none' : 'flex',
          gap: pane ? 0.4 : 1.2,
          px: pane ? 0.5 : 1.5,
          pt: pane ? 0.6 : 1.2,
          minWidth: 0,
        }}>
        {view.plot ? (
          <Suspense>
            <Plot
              projectId={project.id}
              question={question}
              grading={grading}
              selected={selected}
              onSelect={setSelected}
              onAct={onAct}
            />
          </Suspense>
        ) : (
          <BenchProvider value={bench}>
            <Sheet />
          </BenchProvider>
        )}
        <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between', pb: 0.5, minWidth: 0 }}>
          <Box
            sx={{
              flex: 1,
              minWidth: 0,
              ...(pane && { overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }),
            }}>
            {marked.size > 0 && (
              <Typography variant="caption" color="textSecondary" role="status" sx={{ mr: 1 }}>
                {t('{marked, number} marked', { marked: marked.size })}
              </Typography>
            )}
            {pane && selected ? (
              <Box component="span" className="serif" sx={{ fontSize: '1.05rem' }}>
                {selected}
              </Box>
            ) : (
              <CheckNote controls={controls} />
            )}
          </Box>
          {pane && selected && (
            <Button variant="outlined" sx={{ flex: 'none', mx: 0.5 }} onClick={() => onPane('reasons')}>
              {t('Why')}
            </Button>
          )}
          <Tooltip title={t('Undo (u)')}>
            <span>
              <IconButton
                size="small"
                aria-label={t('Undo the last act')}
                disabled={!acts.canUndo}
                onClick={() => void undo()}>
                <UndoIcon sx={{ fontSize: 18 }} />
              </IconButton>
            </span>
          </Tooltip>
          <Tooltip title={t('Redo (shift and u)')}>
            <span>
              <IconButton
                size="small"
                aria-label={t('Do the undone act again')}
                disabled={!acts.canRedo}
                onClick={() => void redo()}>
                <RedoIcon sx={{ fontSize: 18 }} />
              </IconButton>
            </span>
          </Tooltip>
          <MoreButton project={project} />
          {!pane && <Reading project={project} question={question} search={search} getChosen={() => selected} />}
        </Stack>
      </Stack>
      <Box
        sx={{
          gridArea: pane ? 'body' : 'reasons',
          display: pane && pane !== 'reasons' ? 'none' : 'grid',
          minHeight: 0,
        }}>
        <ReasonsPanel
          projectId={project.id}
          label={shown}
          extensions={extensions}
          checking={controls.active}
          onKeep={onKeep}
          onCheck={onCheck}
          onBegin={begin}
          onSelect={setSelected}
          view={reasonsView}
          onView={setReasonsView}
          fallback={fallback}
          onFallback={onFallback}
        />
      </Box>
    </>
  );
}
