import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { BarChart } from '@mui/x-charts/BarChart';
import { useEffect, useRef } from 'react';

import { asApiError, type OnePhrase } from '../../shared/api';
import { formatCount, formatDay } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { useNotify } from '../../shared/ui/Notices';
import { useInks } from '../../shared/ui/useInks';
import { competitionOf, monthNames, priceOf, searchesOf, viewWord } from './figures';
import { useBriefActs } from './useBriefActs';
import { type PhraseActs, useOnePhrase } from './usePhrases';

type Way = OnePhrase['gathered'][number]['way'];
const WAYS: Readonly<Record<Way, string>> = {
  head: t('the head'),
  order: t('in another order'),
  number: t('in another number'),
  spelling: t('in another spelling'),
  apart: t('closed up, with a hyphen, or apart'),
  slip: t('a slip of the finger'),
};

interface Props {
  projectId: number;
  phrase: string;
  view: string;
  service: boolean;
  acts: PhraseActs;
  onOpen: (phrase: string) => void;
  onClose: () => void;
}

/** Everything about a phrase: its year, what is gathered under it, who says what, and phrases near it. */
export function PhraseDetails({ projectId, phrase, view, service, acts, onOpen, onClose }: Props) {
  const { data, error } = useOnePhrase(projectId, phrase, view);
  const notify = useNotify();
  const inks = useInks();
  const brief = useBriefActs(projectId, acts);
  const failed = asApiError(error);
  const [, country = '', language = ''] = view.split('|');
  const tell = (e: Error) => notify(e.message);
  // In a narrow window it stands above the table, out of sight of who pressed.
  const panel = useRef<HTMLElement>(null);
  useEffect(() => {
    panel.current?.scrollIntoView({ block: 'nearest' });
  }, [phrase]);
  return (
    <Box
      component="aside"
      ref={panel}
      aria-label={t('About the phrase')}
      sx={{ p: 2, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'flex-start' }}>
        <Typography variant="h2" className="serif" sx={{ overflowWrap: 'anywhere' }}>
          {data?.line.phrase ?? phrase}
        </Typography>
        <IconButton size="small" aria-label={t('Close')} onClick={onClose}>
          ×
        </IconButton>
      </Stack>
      {failed && <Typography color="error">{failed.message}</Typography>}
      {!data && !failed && <LinearProgress aria-label={t('Loading')} />}
      {data && (
        <>
          <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', my: 1 }}>
            <Button
              size="small"
              variant="outlined"
              onClick={() =>
                acts.choose.mutate({ phrases: [data.line.phrase], on: !data.line.chosen }, { onError: tell })
              }>
              {data.line.chosen ? t('Take off the chosen') : t('Choose')}
            </Button>
            <Button size="small" onClick={() => brief.head(data.line.phrase)}>
              {t('Make it the head phrase')}
            </Button>
            <Button
              size="small"
              onClick={() => {
                const phrases = [data.line.phrase];
                acts.aside.mutate(
                  { phrases, on: true },
                  {
                    onSuccess: () => {
                      notify(t('“{phrase}” is put aside.', { phrase: data.line.phrase }), () =>
                        acts.aside.mutate({ phrases, on: false }),
                      );
                      onClose();
                    },
                    onError: tell,
                  },
                );
              }}>
              {t('Put aside')}
            </Button>
          </Stack>
          {data.line.figure.months.length > 0 && (
            <BarChart
              height={150}
              skipAnimation
              hideLegend
              margin={{ left: 0, right: 8, top: 12, bottom: 0 }}
              xAxis={[{ data: monthNames(data.line.figure.last_month), scaleType: 'band' }]}
              yAxis={[{ width: 48, min: 0, valueFormatter: (n: number) => formatCount(n) }]}
              series={[
                {
                  data: [...data.line.figure.months],
                  color: inks[1] ?? '#000',
                  valueFormatter: (n) => (n === null ? t('unknown') : t('{n, number} searches', { n })),
                },
              ]}
            />
          )}
          {data.figures.length > 0 && (
            <>
              <Typography variant="h3" component="h3">
                {t('Who says what')}
              </Typography>
              <Box component="ul" sx={{ m: 0, pl: 2 }}>
                {data.figures.map(({ view: key, figure }) => (
                  <li key={key}>
                    {viewWord(key)}: {searchesOf(figure)}
                    {figure.competition !== null && `, ${t('contested {share}', { share: competitionOf(figure) })}`}
                    {figure.price !== null && `, ${t('a click {money}', { money: priceOf(figure) })}`}
                    {figure.dated && `, ${formatDay(figure.dated)}`}
                  </li>
                ))}
              </Box>
            </>
          )}
          {data.gathered.length > 1 && (
            <>
              <Typography variant="h3" component="h3" sx={{ mt: 1.5 }}>
                {t('Gathered under it')}
              </Typography>
              <Box component="ul" aria-label={t('Gathered under it')} sx={{ m: 0, pl: 0, listStyle: 'none' }}>
                {data.gathered.slice(1).map((one) => (
                  <li key={one.phrase}>
                    {one.phrase}{' '}
                    <Typography component="span" variant="caption" color="textSecondary">
                      {WAYS[one.way]}, {searchesOf(one.figure)}
                    </Typography>{' '}
                    <Button
                      size="small"
                      aria-label={t('Set {phrase} apart', { phrase: one.phrase })}
                      onClick={() =>
                        acts.apart.mutate(
                          { phrases: [one.phrase], on: true },
                          {
                            onSuccess: () =>
                              notify(t('“{phrase}” stands by itself.', { phrase: one.phrase }), () =>
                                acts.apart.mutate({ phrases: [one.phrase], on: false }),
                              ),
                            onError: tell,
                          },
                        )
                      }>
                      {t('Set apart')}
                    </Button>
                  </li>
                ))}
              </Box>
            </>
          )}
          <Typography variant="h3" component="h3" sx={{ mt: 1.5 }}>
            {t('Companions')}
          </Typography>
          {data.companions.length === 0 && (
            <Typography color="textSecondary">{t('None of your phrases is near it.')}</Typography>
          )}
          <Box component="ul" aria-label={t('Companions')} sx={{ m: 0, pl: 0, listStyle: 'none' }}>
            {data.companions.map(({ line }) => (
              <li key={line.phrase}>
                <Button size="small" color="inherit" sx={{ px: 0 }} onClick={() => onOpen(line.phrase)}>
                  {line.phrase}
                </Button>{' '}
                <Typography component="span" variant="caption" color="textSecondary">
                  {line.demand === null ? t('unknown') : formatCount(line.demand)}
                </Typography>
              </li>
            ))}
          </Box>
          {service && (
            <Button
              size="small"
              disabled={acts.ask.isPending}
              onClick={() =>
                acts.ask.mutate(
                  { phrases: [data.line.phrase], country, language, companions: true },
                  {
                    onSuccess: ({ taken, why }) =>
                      notify(
                        why
                          ? t('The service did not answer: {why}.', { why })
                          : t('{taken, plural, one {# phrase goes} other {# phrases go}} with it.', { taken }),
                      ),
                    onError: tell,
                  },
                )
              }>
              {t('Ask the service for more')}
            </Button>
          )}
        </>
      )}
    </Box>
  );
}
