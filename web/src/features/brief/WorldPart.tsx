import Autocomplete from '@mui/material/Autocomplete';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { lazy, type SyntheticEvent, Suspense, useState } from 'react';

import type { SmallQuestion, World } from '../../shared/api';
import { type Chosen, fieldsNow, leftOf, useFields, useWorld, withField, withOwn } from './useWorld';
import { rich, t } from '../../shared/texts';

const WorldDialog = lazy(async () => ({ default: (await import('./WorldDialog')).WorldDialog }));
const OTHERS_SHOWN = 3;

interface AboutProps {
  about: string;
  error: string | undefined;
  onChange: (about: string) => void;
}

/** The sentence: saved when the field is left, or at Enter. */
export function AboutField({ about, error, onChange }: AboutProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const done = () => {
    if (typed !== null && typed.trim() !== about) onChange(typed.trim());
    setTyped(null);
  };
  return (
    <TextField
      fullWidth
      multiline
      size="small"
      label={t('In one sentence')}
      placeholder={t('What is it, and for whom?')}
      value={typed ?? about}
      error={Boolean(error)}
      helperText={error}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => {
        if (e.key === 'Enter') {
          e.preventDefault();
          done();
        }
      }}
    />
  );
}

function Fields({ world, chosen, onChange }: { world: World; chosen: Chosen; onChange: (chosen: Chosen) => void }) {
  const [typed, setTyped] = useState('');
  const found = useFields(typed);
  const near = fieldsNow(world, chosen);
  const on = near.filter((f) => f.on);
  const others = near.filter((f) => !f.on).slice(0, OTHERS_SHOWN);
  return (
    <Stack sx={{ gap: 0.8 }}>
      <Stack direction="row" role="group" aria-label={t('Fields of your world')} sx={{ flexWrap: 'wrap', gap: 0.6 }}>
        {on.map(({ title }) => (
          <Chip
            key={title}
            size="small"
            color="secondary"
            label={title}
            aria-pressed
            onClick={() => onChange(withField(chosen, title, false))}
            title={t('Switch this field off')}
          />
        ))}
        {others.map(({ title }) => (
          <Chip
            key={title}
            size="small"
            variant="outlined"
            label={`+ ${title}`}
            aria-pressed={false}
            onClick={() => onChange(withField(chosen, title, true))}
            title={t('Switch this field on')}
          />
        ))}
      </Stack>
      <Autocomplete
        size="small"
        options={found.data?.titles ?? []}
        value={null}
        inputValue={typed}
        filterOptions={(all) => all}
        blurOnSelect
        noOptionsText={typed.trim().length > 1 ? t('No field speaks of that') : t('Type what it has to do with')}
        onInputChange={(_, text, why) => setTyped(why === 'reset' ? '' : text)}
        onChange={(_, title: string | null) => {
          if (title) onChange(withField(chosen, title, true));
        }}
        renderInput={(params) => <TextField {...params} label={t('Find another field')} />}
      />
    </Stack>
  );
}

function Ask({
  question,
  left,
  onAnswer,
  onPass,
}: {
  question: SmallQuestion;
  left: number;
  onAnswer: (typed: string) => void;
  onPass: () => void;
}) {
  const [typed, setTyped] = useState('');
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    if (typed.trim()) onAnswer(typed);
  };
  return (
    <Stack
      component="form"
      onSubmit={submit}
      aria-label={t('A small question')}
      sx={{ gap: 0.6, p: 1.2, border: 1, borderColor: 'divider', borderRadius: 1 }}>
      <Typography className="serif">{question.asks}</Typography>
      <TextField
        size="small"
        value={typed}
        placeholder={question.example}
        onChange={(e) => setTyped(e.target.value)}
        slotProps={{ htmlInput: { 'aria-label': question.asks, maxLength: 300 } }}
      />
      <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
        <Button type="submit" size="small" disabled={!typed.trim()}>
          {t('Put it in')}
        </Button>
        <Button size="small" color="inherit" onClick={onPass}>
          {t('Not now')}
        </Button>
        <Typography variant="caption" color="textSecondary" sx={{ ml: 'auto' }}>
          {t('{left} left', { left })}
        </Typography>
      </Stack>
    </Stack>
  );
}

interface Props {
  projectId: number;
  chosen: Chosen;
  onChange: (chosen: Chosen) => void;
}

/** The brief's world: its fields, one small question at a time, and the way to its words. */
export function WorldPart({ projectId, chosen, onChange }: Props) {
  const { data: world, isError, refetch } = useWorld(projectId);
  const [passed, setPassed] = useState<ReadonlySet<string>>(new Set());
  const [open, setOpen] = useState(false);
  if (isError)
    return (
      <Typography variant="body2" color="error">
        {rich('Your world could not be read. <button>Try again</button>', {
          button: (chunks) => (
            <Button size="small" onClick={() => void refetch()}>
              {chunks}
            </Button>
          ),
        })}
      </Typography>
    );
  if (!world)
    return (
      <Typography variant="body2" color="textSecondary">
        {t('Looking for your world…')}
      </Typography>
    );
  const left = leftOf(world.questions, chosen, passed);
  const question = left[0];
  const pass = (asks: string) => {
    setPassed(new Set([...passed, asks]));
  };
  return (
    <Stack sx={{ gap: 1 }}>
      {!world.informed && (
        <Typography variant="body2" color="textSecondary">
          {t('Write a sentence or a few words: the fields they speak of are found then.')}
        </Typography>
      )}
      {world.informed && !world.fits && (
        <Typography variant="body2" color="textSecondary">
          {t('No field says quite this. Words near in meaning help out; a few of your own would do more.')}
        </Typography>
      )}
      <Fields world={world} chosen={chosen} onChange={onChange} />
      {question && (
        <Ask
          key={question.asks}
          question={question}
          left={left.length}
          onPass={() => pass(question.asks)}
          onAnswer={(typed) => onChange(withOwn(chosen, question.facet, typed))}
        />
      )}
      <Button size="small" onClick={() => setOpen(true)} sx={{ alignSelf: 'flex-start' }}>
        {t('The words of your world')}
      </Button>
      {open && (
        <Suspense fallback={null}>
          <WorldDialog world={world} chosen={chosen} onChange={onChange} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </Stack>
  );
}
