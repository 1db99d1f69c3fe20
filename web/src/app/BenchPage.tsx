import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';

import { useBrief } from '../features/brief/useBrief';
import { useCatalogue } from '../features/brief/useWords';
import { WordsPanel } from '../features/brief/WordsPanel';
import { CheckBar } from '../features/check/CheckBar';
import { useCheck } from '../features/check/useCheck';
import { ReasonsPanel, type View } from '../features/reasons/ReasonsPanel';
import { Funnel } from '../features/sheet/Funnel';
import { Plot } from '../features/sheet/Plot';
import { Sheet } from '../features/sheet/Sheet';
import { MoreButton } from '../features/sheet/MoreButton';
import { SheetToolbar } from '../features/sheet/SheetToolbar';
import { useDismiss } from '../features/sheet/useDismiss';
import { useQuestion, useShown } from '../features/sheet/useQuestion';
import { api, keys, unwrap } from '../shared/api';
import { type Weights, weightsOf } from '../shared/lib/grading';
import { useOpenProject } from '../shared/lib/projectContext';
import { useKeep } from '../shared/lib/useKeep';
import { useWeighing } from '../shared/lib/useWeighing';
import { useNotify } from '../shared/ui/Notices';
import { ShortcutsDialog } from './ShortcutsDialog';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/** The bench: the words, the sheet of names by extensions, and the reasons of the chosen name. */
export function BenchPage() {
  const project = useOpenProject();
  const { extensions, keywords, making, name } = project.brief;
  const recipes = useCatalogue().data?.recipes.length ?? Infinity;
  const editor = useBrief(project);
  const [draft, setDraft] = useState<Weights | null>(null);
  const weighing = useWeighing().data;
  const grading = useMemo(() => weighing ? { weights: draft ?? weightsOf(editor.brief, weighing), exponent: weighing.exponent } : null, [draft, editor.brief, weighing]);
  const [asked, ask] = useQuestion();
  const [shown, show] = useShown();
  const [selected, setSelected] = useState<string | null>(null);
  const [help, setHelp] = useState(false);
  const filter = useRef<HTMLInputElement>(null);
  const notify = useNotify();
  const { mutate: keep } = useKeep(project.id);
  const controls = useCheck(project.id, extensions);
  const listed = useQuery({
    queryKey: keys.funnel(project.id),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/funnel', { params: { path: { project_id: project.id } } })),
  }).data?.listed;
  const onKeep = useCallback((label: string, kept: boolean) => { keep({ label, kept }); }, [keep]);
  const dismiss = useDismiss(project.id);
  const [view, setView] = useState<View>('reasons');
  const onCheck = (labels: string[]) => {
    controls.start.mutate({ labels, again: labels.length === 1 }, { onError: (error) => { notify(error.message); } });
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === '/') filter.current?.focus();
      else if (event.key === '?') setHelp(true);
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => { window.removeEventListener('keydown', onKey); };
  }, []);
  return (
    <Box component="main" sx={{ height: '100%', display: 'grid', gridTemplateColumns: { xs: '1fr', md: '252px minmax(0, 1fr) 298px' }, '& > *': { minHeight: 0 } }}>
      <Typography component="h1" sx={{ position: 'absolute', clipPath: 'inset(50%)' }}>Bench of {project.name}</Typography>
      <WordsPanel project={project} editor={editor} onDraft={setDraft} />
      <Stack component="section" aria-label="Names" sx={{ gap: 1.2, px: 1.5, pt: 1.2, minWidth: 0 }}>
        <Funnel projectId={project.id} asked={asked} onChange={ask} />
        <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center', minHeight: 42 }}>
          <SheetToolbar asked={asked} onAsk={ask} extensions={extensions} filterRef={filter} shown={shown} onShow={show} />
          <CheckBar controls={controls} names={listed ?? 0} />
        </Stack>
        {shown === 'plot' ? <Plot projectId={project.id} asked={asked} grading={grading} selected={selected} onSelect={setSelected} onKeep={onKeep} /> : <Sheet projectId={project.id} extensions={extensions} beside={shown} grading={grading} hasWords={keywords.length > 0 || name !== ''} hasRecipes={making.off.length < recipes} asked={asked} onAsk={ask} selected={selected} onSelect={setSelected} onKeep={onKeep} onCheck={onCheck} onDismiss={(label) => { dismiss.mutate(label); }} onVary={() => { setView('near'); }} />}
        <MoreButton projectId={project.id} />
      </Stack>
      <ReasonsPanel projectId={project.id} label={selected} extensions={extensions} checking={controls.active} onKeep={onKeep} onCheck={onCheck} onSelect={setSelected} view={view} onView={setView} />
      <ShortcutsDialog open={help} onClose={() => { setHelp(false); }} />
    </Box>
  );
}
