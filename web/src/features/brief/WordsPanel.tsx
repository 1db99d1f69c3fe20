import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Stack from '@mui/material/Stack';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';

import type { ApiError, Brief, Project, Purpose } from '../../shared/api';
import { concepts } from '../../shared/lib/concepts';
import type { Weights } from '../../shared/lib/grading';
import { UndoIcon } from '../../shared/ui/icons';
import { ChipsField } from '../../shared/ui/ChipsField';
import { Elsewhere } from '../../shared/ui/Elsewhere';
import { briefParts } from './briefParts';
import { DismissedList } from './DismissedList';
import { KeywordList } from './KeywordList';
import { LimitFields } from './LimitFields';
import { RecipeFields } from './RecipeFields';
import type { BriefEditor } from './useBrief';
import { useVocabulary, useOpened } from './useWords';
import { WeightFields } from './WeightFields';
import { AboutField, WorldPart } from './WorldPart';
import { t } from '../../shared/texts';

const STATE = {
  saved: t('saved'),
  waiting: t('changed'),
  saving: t('making names…'),
  partly: t('saved in part'),
  refused: t('not saved'),
} as const;
function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section" aria-label={title}>
      <Typography variant="h3" component="h2" sx={{ mb: 0.8 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

/** The places in a list that have problems, such as 2 in `brief.avoid.2`. */
const marked = (error: ApiError | null, path: string): ReadonlySet<number> =>
  new Set(
    error?.problems
      .filter((p) => p.path.startsWith(`${path}.`))
      .map((p) => Number(p.path.slice(path.length + 1).split('.')[0])),
  );

function Head({ editor }: { editor: BriefEditor }) {
  const { state, undo, canUndo, error, theirs, brief } = editor;
  const refused = state === 'refused' || state === 'partly';
  return (
    // In sight wherever one is in the brief: what is not saved must not go unseen.
    <Stack
      sx={{
        position: 'sticky',
        top: -16,
        mt: -2,
        mx: -2,
        px: 2,
        pt: 1.2,
        pb: 0.4,
        gap: 0.8,
        bgcolor: 'background.default',
        zIndex: 2,
      }}>
      <Stack direction="row" sx={{ alignItems: 'center', justifyContent: 'space-between' }}>
        <Typography variant="overline" role="status" color={refused ? 'error' : 'textSecondary'}>
          {t('Brief · {state}', { state: STATE[state] })}
        </Typography>
        <Tooltip title={t('Undo the last change of the brief')}>
          <span>
            <IconButton
              size="small"
              aria-label={t('Undo the last change of the brief')}
              disabled={!canUndo}
              onClick={undo}>
              <UndoIcon sx={{ fontSize: 18 }} />
            </IconButton>
          </span>
        </Tooltip>
      </Stack>
      {theirs && (
        <Elsewhere
          what={t('This brief')}
          parts={briefParts(brief, theirs.brief)}
          onMine={editor.keepMine}
          onTheirs={editor.takeTheirs}
        />
      )}
      {error && !theirs && state === 'refused' && (
        <Alert
          severity="error"
          action={
            <Button color="inherit" onClick={editor.retry}>
              {t('Retry')}
            </Button>
          }>
          {error.problems.length ? error.problems.map((p) => p.message).join(' ') : error.message}
        </Alert>
      )}
      {state === 'partly' && error && (
        <Alert severity="warning" sx={{ py: 0 }}>
          {t(
            '{problems, plural, one {# entry was} other {# entries were}} not taken, and says why at its place. All else is saved.',
            { problems: error.problems.length },
          )}
        </Alert>
      )}
    </Stack>
  );
}

interface Props {
  project: Project;
  editor: BriefEditor;
  /** Weights while a slider moves; null when it rests. */
  onDraft: (weights: Weights | null) => void;
  /** Opens what is asked of the owner, and proposes extensions. */
  onPropose: () => void;
}

/** The words and the rest of the brief; every change makes the names anew, but for the weights. */
export function WordsPanel({ project, editor, onDraft, onPropose }: Props) {
  const { brief, error, change } = editor;
  const vocabulary = useVocabulary();
  const opened = useOpened(project.id);
  const set = (part: Partial<Brief>) => {
    change({ ...brief, ...part });
  };
  return (
    <Stack
      component="aside"
      aria-label={t('Words and limits')}
      sx={{ gap: 2.4, p: 2, overflowY: 'auto', borderRight: 1, borderColor: 'divider' }}>
      <Head editor={editor} />
      <Section title={t('What it is')}>
        <AboutField about={brief.about} error={error?.at('brief.about')} onChange={(about) => set({ about })} />
      </Section>
      <Section title={t('Words')}>
        <KeywordList
          keywords={brief.keywords}
          opened={opened.data ?? []}
          groups={vocabulary.data?.groups ?? {}}
          error={error}
          onChange={(keywords) => set({ keywords })}
        />
      </Section>
      <Section title={t('Your world')}>
        <WorldPart projectId={project.id} chosen={brief.world} onChange={(world) => set({ world })} />
      </Section>
      <Section title={t('The name should be')}>
        <ToggleButtonGroup
          exclusive
          fullWidth
          size="small"
          value={brief.purpose}
          aria-label={t('Purpose')}
          onChange={(_, purpose: Purpose | null) => {
            if (purpose) set({ purpose, weights: {} });
          }}>
          {concepts().purposes.map(({ name: value, word: label, help }) => (
            <ToggleButton
              key={value}
              value={value}
              title={help}
              sx={{ py: 0.4, px: 0.5, textTransform: 'none', lineHeight: 1.3, fontSize: '0.8rem' }}>
              {label}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Section>
      <Section title={t('What counts')}>
        <WeightFields brief={brief} onDraft={onDraft} onChange={(weights) => set({ weights })} />
      </Section>
      <Section title={t('Extensions')}>
        <ChipsField
          label={t('In your order')}
          show={(e) => `.${e}`}
          options={vocabulary.data?.extensions ?? []}
          value={brief.extensions}
          onChange={(extensions) => set({ extensions })}
          error={error?.at('brief.extensions', true)}
          marked={marked(error, 'brief.extensions')}
        />
        <Button size="small" sx={{ mt: 0.5 }} onClick={onPropose}>
          {t('Owner, budget, and which suit')}
        </Button>
      </Section>
      <Section title={t('Limits')}>
        <LimitFields limits={brief.limits} error={error} onChange={(limits) => set({ limits })} />
      </Section>
      <Section title={t('Recipes')}>
        <RecipeFields
          making={brief.making}
          considered={project.considered}
          error={error}
          onChange={(making) => set({ making })}
        />
      </Section>
      <Section title={t('Places')}>
        <ChipsField
          label={t('Towns, regions, streets')}
          value={brief.places}
          onChange={(places) => set({ places })}
          error={error?.at('brief.places', true)}
          marked={marked(error, 'brief.places')}
        />
      </Section>
      <Section title={t('Words to avoid')}>
        <ChipsField
          label={t('Never in a name')}
          value={brief.avoid}
          onChange={(avoid) => set({ avoid })}
          error={error?.at('brief.avoid', true)}
          marked={marked(error, 'brief.avoid')}
        />
      </Section>
      <DismissedList projectId={project.id} />
    </Stack>
  );
}
