import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';

import { useCommands } from '../../shared/lib/keymap';
import { Key } from '../../shared/ui/Key';
import { asApiError, type Ranking } from '../../shared/api';
import { useDuels } from './useDuels';
import { useOpenProject } from '../../shared/lib/projectContext';
import { fullName } from '../../shared/lib/fullName';
import { EmptyState } from '../../shared/ui/EmptyState';
import { useShortlist } from './useShortlist';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { rich, t } from '../../shared/texts';

/** Strengths with how sure they are: a dot, and a line as long as it may be wrong. */
function Standings({ ranking }: { ranking: Ranking }) {
  const reach = Math.max(2, ...ranking.standings.map((s) => Math.abs(s.strength) + s.error));
  const across = (value: number) => `${50 + (48 * value) / reach}%`;
  return (
    <Box component="ol" aria-label={t('Ranking')} sx={{ m: 0, p: 0, listStyle: 'none' }}>
      {ranking.standings.map((s, i) => (
        <Box
          component="li"
          key={s.label}
          sx={{
            display: 'grid',
            gridTemplateColumns: '28px minmax(0, 150px) 1fr 84px',
            gap: 1.5,
            alignItems: 'center',
            py: 0.5,
            borderTop: 1,
            borderColor: 'divider',
          }}>
          <Typography color="textSecondary">{i + 1}</Typography>
          <Box className="serif" sx={{ overflowWrap: 'anywhere' }}>
            {s.shown}
          </Box>
          <Box aria-hidden sx={{ position: 'relative', height: 16 }}>
            <Box
              sx={{
                position: 'absolute',
                top: 7,
                height: 2,
                bgcolor: 'wire',
                left: across(s.strength - s.error),
                right: `calc(100% - ${across(s.strength + s.error)})`,
              }}
            />
            <Box
              sx={{
                position: 'absolute',
                top: 3,
                width: 10,
                height: 10,
                ml: '-5px',
                borderRadius: '50%',
                bgcolor: 'secondary.main',
                left: across(s.strength),
              }}
            />
          </Box>
          <Typography
            variant="caption"
            color="textSecondary"
            title={t('{wins} won of {duels}', { wins: s.wins, duels: s.duels })}
            sx={{ textAlign: 'right' }}>
            {ranking.asked ? t('best: {share, number} %', { share: Math.round(100 * s.best) }) : ''}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}

/** Two names at a time: which is better? From the answers a ranking, with how sure it is. */
export function DuelsPage() {
  const project = useOpenProject();
  const { list } = useShortlist(project.id);
  const { duels, answer, back, forget, order } = useDuels(project.id);
  const ranking = duels.data;
  const [one, other] = ranking?.pair ?? [];
  const shown = (label: string) => {
    const kept = list.data?.find((k) => k.label === label);
    return kept ? fullName(kept) : label;
  };
  const { mutate } = answer;
  const { mutate: takeBack } = back;
  const busy = answer.isPending;
  useCommands('duels', (command) => {
    if (busy || !one || !other) return false;
    if (command === 'one') mutate({ winner: one, loser: other });
    else if (command === 'other') mutate({ winner: other, loser: one });
    else if (command === 'neither') mutate({ winner: one, loser: other, tie: true });
    else takeBack();
    return true;
  });
  const error = asApiError(duels.error);
  if (error && !ranking)
    return <LoadFailed title={t('The duels could not be loaded')} error={error} onRetry={duels.refetch} />;
  if (!ranking) return <LinearProgress aria-label={t('Loading the duels')} />;
  if (!one || !other)
    return (
      <EmptyState
        title={t('Two names are needed')}
        action={
          <Button component={Link} to={`/projects/${project.id}`} variant="contained">
            {t('To the bench')}
          </Button>
        }>
        {t('Keep at least two names, then set them against each other here.')}
      </EmptyState>
    );
  const card = (label: string, against: string, key: string) => (
    <Button
      variant="outlined"
      color="inherit"
      disabled={busy}
      onClick={() => mutate({ winner: label, loser: against })}
      sx={{
        flex: 1,
        minWidth: 0,
        py: 5,
        flexDirection: 'column',
        gap: 1,
        bgcolor: 'background.paper',
        borderColor: 'wire',
        '&:hover': { borderColor: 'secondary.main' },
      }}>
      <Box
        className="serif"
        sx={{
          fontSize: { xs: '1.5rem', md: '2.3rem' },
          fontWeight: 500,
          lineHeight: 1.2,
          overflowWrap: 'anywhere',
        }}>
        {shown(label)}
      </Box>
      <kbd>{key}</kbd>
    </Button>
  );
  return (
    <Box component="main" sx={{ maxWidth: 900, mx: 'auto', px: 2, py: 3 }}>
      <Typography variant="h1">{t('Duels')}</Typography>
      <Typography color="textSecondary" sx={{ mb: 2 }} role="status">
        {t('Which is the better name?')}{' '}
        {t('{answers, plural, one {# answer} other {# answers}} so far', { answers: ranking.asked })} ·{' '}
        {ranking.asked
          ? t('the first is the best with {certainty, number} % certainty', {
              certainty: Math.round(100 * ranking.certainty),
            })
          : t('nothing can be said of them yet')}
      </Typography>
      {ranking.enough && (
        <Alert
          severity="success"
          sx={{ mb: 2 }}
          action={
            <Button color="inherit" onClick={() => order.mutate()}>
              {t('Put the shortlist in this order')}
            </Button>
          }>
          {t('Enough has been asked: {shown} is the best, as surely as {certainty, number} %. Go on if you like.', {
            shown: ranking.standings[0]?.shown,
            certainty: Math.round(100 * ranking.certainty),
          })}
        </Alert>
      )}
      <Stack direction="row" role="group" aria-label={t('Which is better?')} sx={{ gap: 2, mb: 1.5 }}>
        {card(one, other, '←')}
        {card(other, one, '→')}
      </Stack>
      <Stack direction="row" sx={{ gap: 1, justifyContent: 'center', mb: 3, flexWrap: 'wrap' }}>
        <Button variant="outlined" disabled={busy} onClick={() => mutate({ winner: one, loser: other, tie: true })}>
          {rich('Neither {key}', { key: <Key place="duels" of="neither" /> })}
        </Button>
        <Button disabled={!ranking.asked || back.isPending} onClick={() => takeBack()}>
          {rich('Take back {key}', { key: <Key place="duels" of="takeBack" /> })}
        </Button>
        {!ranking.enough && (
          <Button disabled={!ranking.asked} onClick={() => order.mutate()}>
            {t('Put the shortlist in this order')}
          </Button>
        )}
        <Button disabled={!ranking.asked} onClick={() => forget.mutate()}>
          {t('Begin anew')}
        </Button>
      </Stack>
      <Standings ranking={ranking} />
    </Box>
  );
}
