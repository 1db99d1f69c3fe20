import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';

import { CheckNote, CheckRunning } from '../features/check/CheckBar';
import { useCheck } from '../features/check/useCheck';
import { ShortlistPage } from '../features/shortlist/ShortlistPage';
import { useShortlist } from '../features/shortlist/useShortlist';
import { BasketButton } from '../shared/basket/BasketButton';
import { withOwn } from '../shared/lib/fullName';
import { useOpenProject } from '../shared/lib/projectContext';
import { t } from '../shared/texts';
import { WatchAllButton } from '../shared/watching/WatchButton';

/** The shortlist, and asking about all that is on it as one should before paying. */
export function ShortlistRoom() {
  const project = useOpenProject();
  const { extensions } = project.brief;
  const kept = useShortlist(project.id).list.data ?? [];
  const controls = useCheck(project.id, extensions);
  const { active, start } = controls;
  const full_names = kept.flatMap((k) => withOwn(extensions, k.extension).map((e) => `${k.label}.${e}`));
  const checking = active ? (
    <CheckRunning controls={controls} />
  ) : (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
      <Button
        variant="outlined"
        disabled={start.isPending}
        title={t('Ask registries and a seller about every name here, with its own extension too')}
        onClick={() => start.mutate({ what: 'full_names', full_names, aim: 'buying', again: 'all' })}>
        {t('Ask as before buying')}
      </Button>
      <BasketButton
        projectId={project.id}
        word={t('All into the basket')}
        names={kept.map((k) => `${k.label}.${k.extension || (extensions[0] ?? 'com')}`)}
      />
      <WatchAllButton
        projectId={project.id}
        variant="outlined"
        word={t('Watch all')}
        wish={{
          kind: 'name',
          names: kept.map((k) => `${k.label}.${k.extension || (extensions[0] ?? 'com')}`),
        }}
      />
      {(start.isSuccess || start.isError) && <CheckNote controls={controls} />}
    </Stack>
  );
  return <ShortlistPage checking={checking} />;
}
