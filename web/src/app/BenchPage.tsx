import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import useMediaQuery from '@mui/material/useMediaQuery';
import { lazy, Suspense, useCallback, useMemo, useState } from 'react';

import { useBrief } from '../features/brief/useBrief';
import { WordsPanel } from '../features/brief/WordsPanel';
import { useQuestion } from '../features/sheet/useQuestion';
import { useView } from '../features/sheet/useView';
import { useLastView } from '../shared/sheet/useViews';
import { gradingOf, type Weights } from '../shared/lib/grading';
import { usePreferences } from '../shared/lib/preferences';
import { useOpenProject } from '../shared/lib/projectContext';
import { NamesPart } from './NamesPart';
import { type Pane, PaneSwitch } from './PaneSwitch';
import { t } from '../shared/texts';

// Loaded when it is asked for: the bench can be used before.
const FiltersPanel = lazy(async () => ({
  default: (await import('../features/sheet/FiltersPanel')).FiltersPanel,
}));
const ProposalDialog = lazy(async () => ({
  default: (await import('../features/extensions/ProposalDialog')).ProposalDialog,
}));
const Tour = lazy(async () => ({ default: (await import('../features/tour/Tour')).Tour }));

// Below this width (a telephone, or a page at 200 %) one part is in view at a time.
const NARROW = '(max-width: 1099.95px)';
const WIDE_GRID = {
  gridTemplateColumns: '252px minmax(0, 1fr) 298px',
  gridTemplateRows: 'auto minmax(0, 1fr)',
  gridTemplateAreas: t('"words head reasons" "words rows reasons"'),
  height: '100%',
};
// However short the window, some rows are in view; what is above them scrolls away.
const NARROW_GRID = {
  gridTemplateColumns: 'minmax(0, 1fr)',
  gridTemplateRows: 'max-content max-content minmax(280px, 1fr)',
  gridTemplateAreas: '"panes" "head" "body"',
  height: '100%',
};

/** The bench: the words, the sheet of names by extensions, and the reasons of the chosen name. */
export function BenchPage() {
  const project = useOpenProject();
  const { extensions } = project.brief;
  const editor = useBrief(project);
  const { brief, change } = editor;
  const [draft, setDraft] = useState<Weights | null>(null);
  const grading = useMemo(() => gradingOf(brief, draft), [draft, brief]);
  const [question, ask] = useQuestion();
  const { preferences } = usePreferences();
  const [view, setView] = useView(extensions, preferences?.density);
  const settled = useLastView(project);
  const [proposing, setProposing] = useState(false);
  const [filtering, setFiltering] = useState(false);
  const narrow = useMediaQuery(NARROW);
  const [pane, setPane] = useState<Pane>('names');
  const shown = narrow ? pane : null;
  const onFiltering = useCallback((on: boolean) => {
    setFiltering(on);
    setPane(on ? 'words' : 'names');
  }, []);
  const onFallback = useCallback(
    (fallback: string[]) => {
      change({ ...brief, fallback });
    },
    [brief, change],
  );
  return (
    <Box component="main" sx={{ display: 'grid', ...(narrow ? NARROW_GRID : WIDE_GRID), '& > *': { minHeight: 0 } }}>
      <Typography component="h1" sx={{ position: 'absolute', clipPath: 'inset(50%)' }}>
        {t('Bench of {name}', { name: project.name })}
      </Typography>
      {shown && <PaneSwitch pane={shown} filtering={filtering} onPane={setPane} />}
      <Box
        sx={{
          gridArea: narrow ? 'body' : 'words',
          display: shown && shown !== 'words' ? 'none' : 'grid',
          minHeight: 0,
        }}>
        {filtering ? (
          <Box
            component="aside"
            aria-label={t('Filters')}
            sx={{ p: 2, pt: 1, overflowY: 'auto', borderRight: 1, borderColor: 'divider' }}>
            <Button size="small" onClick={() => setFiltering(false)}>
              {t('Back to the words')}
            </Button>
            {narrow && (
              <Button size="small" onClick={() => setPane('names')}>
                {t('See the names')}
              </Button>
            )}
            <Suspense>
              <FiltersPanel projectId={project.id} question={question} onAsk={ask} extensions={extensions} />
            </Suspense>
          </Box>
        ) : (
          <WordsPanel project={project} editor={editor} onDraft={setDraft} onPropose={() => setProposing(true)} />
        )}
      </Box>
      {proposing && (
        <Suspense>
          <ProposalDialog
            owner={brief.owner}
            onClose={() => setProposing(false)}
            onTake={(owner, chosen) => {
              setProposing(false);
              change({ ...brief, owner, ...(chosen && { extensions: chosen }) });
            }}
          />
        </Suspense>
      )}
      {settled && (
        <NamesPart
          project={project}
          grading={grading}
          question={question}
          onAsk={ask}
          view={view}
          onView={setView}
          filtering={filtering}
          onFiltering={onFiltering}
          pane={shown}
          onPane={setPane}
          fallback={brief.fallback}
          onFallback={onFallback}
        />
      )}
      <Suspense>{preferences?.toured === false && <Tour />}</Suspense>
    </Box>
  );
}
