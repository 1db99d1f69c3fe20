import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import Typography from '@mui/material/Typography';
import { type ReactNode, useCallback, useEffect, useRef, useState } from 'react';

import type { Project } from '../../shared/api';
import { useAsked } from '../../shared/lib/addressFields';
import { useAddress } from '../../shared/lib/useAddress';
import { t } from '../../shared/texts';
import { EmptyState } from '../../shared/ui/EmptyState';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { BringDialog } from './BringDialog';
import { FigureFiles } from './FigureFiles';
import { GroupsPart } from './GroupsPart';
import { LaddersPart } from './LaddersPart';
import { ViewChoice } from './PhraseFilters';
import { PhraseList } from './PhraseList';
import { isReading, PHRASE_FIELDS, useFigures, usePhraseActs } from './usePhrases';

const STEPS = new Set(['sort', 'view', 'mark', 'group']);
const PARTS = ['phrases', 'groups', 'names'] as const;
type Part = (typeof PARTS)[number];

interface Props {
  project: Project;
  /** How far a check is, and stopping it. */
  checking: ReactNode;
  active: boolean;
}

/** What people look for: phrases with their demand, the phrase that covers the rest, and what they would be as names. */
export function PhrasesPage({ project, checking, active }: Props) {
  const [params, turn] = useAddress();
  const [question, ask] = useAsked(PHRASE_FIELDS, STEPS);
  const part = PARTS.find((one) => one === params.get('part')) ?? 'phrases';
  const to = useCallback(
    (next: Part) => {
      turn(
        (now) => {
          if (next === 'phrases') now.delete('part');
          else now.set('part', next);
          return now;
        },
        { replace: false },
      );
    },
    [turn],
  );
  const figures = useFigures(project.id);
  const acts = usePhraseActs(project.id);
  const [bringing, setBringing] = useState(false);
  // What is shown is asked for anew once a file has been read.
  const reading = isReading(figures.data);
  const wasReading = useRef(reading);
  const { anew } = acts;
  useEffect(() => {
    if (wasReading.current && !reading) void anew();
    wasReading.current = reading;
  });
  if (!figures.data) {
    if (!figures.error) return <LinearProgress aria-label={t('Loading the phrases')} />;
    return <LoadFailed title={t('The phrases could not be loaded')} error={figures.error} onRetry={figures.refetch} />;
  }
  const { files, phrases, chosen, service } = figures.data;
  const bring = (
    <Button variant="contained" onClick={() => setBringing(true)}>
      {t('Bring phrases')}
    </Button>
  );
  return (
    <Box component="main" sx={{ maxWidth: 1240, mx: 'auto', px: { xs: 2, md: 3 }, py: 2.5 }}>
      <Stack direction="row" sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'center', mb: 1 }}>
        <Typography variant="h1">{t('What people look for')}</Typography>
        {phrases > 0 && bring}
        <Box sx={{ flex: 1 }} />
        <ViewChoice figures={figures.data} question={question} onAsk={ask} />
      </Stack>
      {phrases > 0 ? (
        <>
          <Tabs value={part} onChange={(_, next: Part) => to(next)} aria-label={t('What to see')} sx={{ mb: 1.5 }}>
            <Tab value="phrases" label={t('Phrases')} />
            <Tab value="groups" label={t('Groups and the head phrase')} />
            <Tab value="names" label={t('As names ({chosen, number})', { chosen })} />
          </Tabs>
          {part === 'phrases' && (
            <PhraseList projectId={project.id} figures={figures.data} question={question} onAsk={ask} acts={acts} />
          )}
          {part === 'groups' && (
            <GroupsPart
              projectId={project.id}
              question={question}
              onAsk={ask}
              onList={(group, cut) => {
                ask({ group, cut });
                to('phrases');
              }}
              acts={acts}
            />
          )}
          {part === 'names' && (
            <LaddersPart
              projectId={project.id}
              view={question.view ?? ''}
              acts={acts}
              checking={checking}
              active={active}
            />
          )}
        </>
      ) : reading ? (
        <EmptyState title={t('The figures are being read')} />
      ) : (
        <EmptyState title={t('No phrase is here yet')} action={bring}>
          {t(
            'Bring what your tool exports, type phrases, or ask the service of demand: then see which belong together, which one covers the rest, and what each would be as a name.',
          )}
        </EmptyState>
      )}
      <FigureFiles files={files} acts={acts} />
      {bringing && (
        <BringDialog
          acts={acts}
          service={service}
          country={project.brief.owner.country}
          keywords={project.brief.keywords.map((keyword) => keyword.text)}
          onClose={() => setBringing(false)}
        />
      )}
    </Box>
  );
}
