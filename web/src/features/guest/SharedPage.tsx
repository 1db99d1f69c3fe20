import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { type SyntheticEvent, useState } from 'react';
import { useParams } from 'react-router';

import { asApiError, type Shared, type SharedName } from '../../shared/api';
import { findingKind } from '../../shared/lib/concepts';
import { WeightMark } from '../../shared/ui/WeightMark';
import { formatDay } from '../../shared/lib/format';
import { Age } from '../../shared/ui/Age';
import { EmptyState } from '../../shared/ui/EmptyState';
import { SeamedName } from '../../shared/ui/SeamedName';
import { HearTest, RecallTest } from './tests';
import { type Under, useShared } from './useShared';
import { t } from '../../shared/texts';

function Join({ page, under }: { page: Shared; under: Under }) {
  const [name, setName] = useState('');
  const failed = asApiError(under.join.error);
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    under.join.mutate(name);
  };
  return (
    <Stack component="form" noValidate onSubmit={submit} sx={{ gap: 2, maxWidth: 440, mx: 'auto', mt: 6 }}>
      <Typography variant="h1">{page.title}</Typography>
      <Typography>
        {t(
          'You are asked what you think of {names, plural, one {# name} other {# names}}. It takes a few minutes; you need no account.',
          { names: page.names.length },
        )}
      </Typography>
      {failed && <Alert severity="error">{failed.message}</Alert>}
      <TextField
        label={t('Your first name, if you like')}
        value={name}
        onChange={(e) => setName(e.target.value.slice(0, 40))}
        helperText={t('It stands beside your comments. Nothing else about you is kept.')}
        slotProps={{ htmlInput: { autoComplete: 'given-name' } }}
      />
      <Button type="submit" size="large" variant="contained" disabled={under.join.isPending}>
        {t('Begin')}
      </Button>
      <Typography variant="caption" color="textSecondary">
        {t('Open until {endsAt}.', { endsAt: formatDay(page.ends_at) })}
      </Typography>
    </Stack>
  );
}

function Remark({ name, under }: { name: SharedName; under: Under }) {
  const [text, setText] = useState('');
  const failed = under.comment.variables?.label === name.label ? asApiError(under.comment.error) : null;
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    under.comment.mutate(
      { label: name.label, text },
      {
        onSuccess: () => {
          setText('');
        },
      },
    );
  };
  return (
    <Stack component="form" noValidate direction="row" onSubmit={submit} sx={{ gap: 1, alignItems: 'flex-start' }}>
      <TextField
        fullWidth
        multiline
        maxRows={3}
        label={t('What you think of {shown}', { shown: name.shown })}
        value={text}
        onChange={(e) => setText(e.target.value)}
        error={Boolean(failed)}
        helperText={failed ? (failed.at('text') ?? failed.message) : undefined}
      />
      <Button
        type="submit"
        variant="outlined"
        disabled={!text.trim() || under.comment.isPending}
        sx={{ minHeight: 38 }}>
        {t('Say it')}
      </Button>
    </Stack>
  );
}

const VOTES = [
  [1, t('For')],
  [0, t('No matter')],
  [-1, t('Against')],
] as const;

function Name({ name, page, under }: { name: SharedName; page: Shared; under: Under }) {
  const [open, setOpen] = useState(false);
  return (
    <Box component="li" sx={{ bgcolor: 'background.paper', border: 1, borderColor: 'divider', borderRadius: 1, p: 2 }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
        <Typography component="h2" sx={{ fontSize: '1.6rem', lineHeight: 1.2, overflowWrap: 'anywhere' }}>
          <SeamedName label={name.label} shown={name.shown} starts={name.starts} extension={name.extension} />
        </Typography>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={name.vote}
          aria-label={t('Vote on {shown}', { shown: name.shown })}
          onChange={(_, value: -1 | 0 | 1 | null) => {
            if (value !== null) under.vote.mutate({ label: name.label, value });
          }}>
          {VOTES.map(([value, word]) => (
            <ToggleButton key={value} value={value} sx={{ px: 1.5, textTransform: 'none' }}>
              {word}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Stack>
      {name.vetted.length > 0 && (
        <Box component="details" sx={{ mt: 0.5 }}>
          <summary>{t('What was found of it')}</summary>
          <Stack component="ul" sx={{ m: 0, mt: 0.5, p: 0, listStyle: 'none', gap: 0.4, fontSize: '0.9rem' }}>
            {name.vetted.map((one) => (
              <li key={one.kind}>
                <WeightMark weight={one.weight} /> {findingKind(one.kind)?.word}: {one.text}
              </li>
            ))}
          </Stack>
        </Box>
      )}
      {name.comments.map((c) => (
        <Typography key={c.id} variant="body2" sx={{ mt: 0.5 }}>
          “{c.text}”{' '}
          <Typography component="span" variant="caption" color="textSecondary">
            {c.first_name || t('someone')}, <Age at={c.said_at} />
          </Typography>
          {page.mine.includes(c.id) && <Button onClick={() => under.takeBack.mutate(c.id)}>{t('Take back')}</Button>}
        </Typography>
      ))}
      {open ? (
        <Box sx={{ mt: 1.5 }}>
          <Remark name={name} under={under} />
        </Box>
      ) : (
        <Button onClick={() => setOpen(true)} aria-label={t('Comment on {shown}', { shown: name.shown })}>
          {t('Comment')}
        </Button>
      )}
    </Box>
  );
}

/** Names somebody wants to know others' minds about, for people without an account. */
export function SharedPage() {
  const token = useParams().token ?? '';
  const under = useShared(token);
  const [test, setTest] = useState<'hear' | 'recall' | null>(null);
  const [list, setList] = useState(false);
  const { data: page, error } = under.page;
  const failed = asApiError(error);
  const lost = asApiError(under.vote.error);
  let inside;
  if (failed && !page)
    inside = (
      <EmptyState
        alert
        title={failed.code === 'share_closed' ? t('This link is closed') : t('There is nothing at this address')}>
        {failed.status === 404 ? t('Look whether the link is whole.') : failed.message}
      </EmptyState>
    );
  else if (!page) inside = <LinearProgress aria-label={t('Loading')} />;
  else if (!page.joined) inside = <Join page={page} under={under} />;
  else {
    const testing = { hear: !page.heard.length, recall: !page.recalled && page.names.length > 2 };
    inside = (
      <>
        <Typography variant="h1" sx={{ mb: 1 }}>
          {page.title}
        </Typography>
        {lost && (
          <Alert severity="error" sx={{ mb: 2 }}>
            {t('Your vote did not arrive: {message}', { message: lost.message })}
          </Alert>
        )}
        {test === 'hear' && <HearTest page={page} under={under} onDone={() => setTest(null)} />}
        {test === 'recall' && <RecallTest page={page} under={under} onDone={() => setTest(null)} />}
        {test === null && !list && (testing.hear || testing.recall) && (
          <Box sx={{ mb: 3 }}>
            <Typography sx={{ mb: 1 }}>
              {t(
                'Two small tests help most when they come before you see the names. Take them if you have two minutes.',
              )}
            </Typography>
            <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
              {testing.recall && (
                <Button variant="outlined" onClick={() => setTest('recall')}>
                  {t('See and remember')}
                </Button>
              )}
              {testing.hear && (
                <Button variant="outlined" onClick={() => setTest('hear')}>
                  {t('Hear and write')}
                </Button>
              )}
              <Button variant="contained" onClick={() => setList(true)}>
                {t('To the names')}
              </Button>
            </Stack>
          </Box>
        )}
        {test === null && (list || (!testing.hear && !testing.recall)) && (
          <Stack component="ul" aria-label={t('Names')} sx={{ listStyle: 'none', m: 0, p: 0, gap: 1.5 }}>
            {page.names.map((name) => (
              <Name key={name.label} name={name} page={page} under={under} />
            ))}
          </Stack>
        )}
      </>
    );
  }
  return (
    <Box sx={{ height: '100%', overflowY: 'auto' }}>
      <Box component="header" sx={{ px: 2, py: 1, borderBottom: 2, borderColor: 'wire', bgcolor: 'background.paper' }}>
        <Typography className="serif" sx={{ fontSize: '1.22rem', fontWeight: 600, color: 'primary.main' }}>
          {t('Vine Tag')}
        </Typography>
      </Box>
      <Box component="main" sx={{ maxWidth: 720, mx: 'auto', px: 2, py: 3 }}>
        {inside}
      </Box>
    </Box>
  );
}
