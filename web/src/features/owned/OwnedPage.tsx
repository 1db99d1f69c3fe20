import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useDeferredValue, useState } from 'react';
import { useSearchParams } from 'react-router';

import { BuyingNav } from '../../shared/basket/BuyingNav';
import { formatCount } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { EmptyState } from '../../shared/ui/EmptyState';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { AddDialog } from './AddDialog';
import { BulkBar } from './BulkBar';
import { MonthsChart } from './MonthsChart';
import { OwnedTable } from './OwnedTable';
import { RenewDialog } from './RenewDialog';
import { type Question, readQuestion, useFacets, useOwned, WHENS, writeQuestion } from './useOwned';

const WHEN_WORDS: Readonly<Record<string, string>> = {
  '': t('any time'),
  past: t('has run out'),
  '30': t('in 30 days'),
  '90': t('in 90 days'),
  '365': t('in a year'),
  unknown: t('not known'),
};
type Field = 'extension' | 'seller' | 'tag';

/** What the list is narrowed by. */
function Filters({ question, onAsk }: { question: Question; onAsk: (part: Partial<Question>) => void }) {
  const { data: facets } = useFacets();
  const select = (field: Field, word: string, facet: readonly { value: string; count: number }[] = [], dot = '') =>
    facet.length > 0 && (
      <TextField
        select
        label={word}
        value={question[field]}
        onChange={(e) => onAsk({ [field]: e.target.value })}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        sx={{ minWidth: 130 }}>
        <MenuItem value="">{t('any')}</MenuItem>
        {facet.map((one) => (
          <MenuItem key={one.value} value={one.value}>
            {dot}
            {one.value} ({formatCount(one.count)})
          </MenuItem>
        ))}
      </TextField>
    );
  return (
    <Stack direction="row" sx={{ gap: 1.2, flexWrap: 'wrap', alignItems: 'center', my: 1.5 }}>
      <TextField
        label={t('Find')}
        value={question.text}
        onChange={(e) => onAsk({ text: e.target.value })}
        sx={{ width: 200 }}
      />
      <TextField
        select
        label={t('Runs out')}
        value={question.when}
        onChange={(e) => onAsk({ when: e.target.value as Question['when'] })}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        sx={{ minWidth: 130 }}>
        {WHENS.map((when) => (
          <MenuItem key={when} value={when}>
            {WHEN_WORDS[when]}
          </MenuItem>
        ))}
      </TextField>
      {select('extension', t('Extension'), facets?.extension, '.')}
      {select('seller', t('At'), facets?.seller_name)}
      {select('tag', t('Tag'), facets?.tag)}
      {(facets?.project.length ?? 0) > 0 && (
        <TextField
          select
          label={t('Project')}
          value={question.project ?? ''}
          onChange={(e) => onAsk({ project: e.target.value === '' ? null : Number(e.target.value) })}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          sx={{ minWidth: 130 }}>
          <MenuItem value="">{t('any')}</MenuItem>
          {facets?.project.map((one) => (
            <MenuItem key={one.id} value={one.id}>
              {one.name} ({formatCount(one.count)})
            </MenuItem>
          ))}
        </TextField>
      )}
      <TextField
        select
        label={t('Renewal')}
        value={question.renewed}
        onChange={(e) => onAsk({ renewed: e.target.value as Question['renewed'] })}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        sx={{ minWidth: 120 }}>
        <MenuItem value="">{t('any')}</MenuItem>
        <MenuItem value="ask">{t('ask me first')}</MenuItem>
        <MenuItem value="itself">{t('by itself')}</MenuItem>
      </TextField>
      <FormControlLabel
        control={<Checkbox size="small" checked={question.differs} onChange={(_, differs) => onAsk({ differs })} />}
        label={t('the registry says otherwise')}
      />
    </Stack>
  );
}

/** The names one owns: found, narrowed, renewed, told apart from what the registry says. */
export function OwnedPage() {
  const [params, setParams] = useSearchParams();
  const question = readQuestion(params);
  const { data, error, refetch, isFetching } = useOwned(useDeferredValue(question));
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [adding, setAdding] = useState(false);
  const [renewing, setRenewing] = useState(false);
  const ask = (part: Partial<Question>) => {
    setParams(writeQuestion({ ...question, page: 0, ...part }), { replace: true });
  };
  if (!data) {
    if (!error) return <LinearProgress aria-label={t('Loading')} />;
    return <LoadFailed title={t('Your names could not be loaded')} error={error} onRetry={refetch} />;
  }
  const last = Math.max(0, Math.ceil(data.total / data.size) - 1);
  const add = (
    <Button variant="contained" onClick={() => setAdding(true)}>
      {t('Add names')}
    </Button>
  );
  return (
    <Box component="main" sx={{ maxWidth: 1180, mx: 'auto', px: 2, py: 3 }}>
      <BuyingNav />
      <Stack direction="row" sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'center' }}>
        <Typography variant="h1">{t('My names')}</Typography>
        {data.every > 0 && add}
        {data.every > 0 && (
          <Button href={`/api/owned/file?${writeQuestion({ ...question, page: 0 }).toString()}`} variant="outlined">
            {t('Export as CSV')}
          </Button>
        )}
      </Stack>
      {data.every === 0 ? (
        <EmptyState title={t('No name is on the list yet')} action={add}>
          {t('What is registered here comes onto it by itself. Add what you own elsewhere: typed, or from a table.')}
        </EmptyState>
      ) : (
        <>
          <MonthsChart />
          <Filters question={question} onAsk={ask} />
          <Typography role="status" color="textSecondary">
            {t('{total} of {every} names', { total: formatCount(data.total), every: formatCount(data.every) })}
            {isFetching && ' …'}
          </Typography>
          {chosen.size > 0 && (
            <BulkBar ids={[...chosen]} onRenew={() => setRenewing(true)} onDone={() => setChosen(new Set())} />
          )}
          {data.total === 0 ? (
            <EmptyState
              title={t('None is like that')}
              action={<Button onClick={() => setParams({}, { replace: true })}>{t('Show all of them')}</Button>}
            />
          ) : (
            <OwnedTable
              rows={data.rows}
              question={question}
              chosen={chosen}
              onSort={(sort) => ask({ sort })}
              onChoose={setChosen}
            />
          )}
          {last > 0 && (
            <Stack direction="row" sx={{ gap: 1, alignItems: 'center', mt: 1 }}>
              <Button size="small" disabled={question.page === 0} onClick={() => ask({ page: question.page - 1 })}>
                {t('Those before')}
              </Button>
              <Typography variant="body2">
                {t('{page} of {pages}', { page: formatCount(question.page + 1), pages: formatCount(last + 1) })}
              </Typography>
              <Button size="small" disabled={question.page >= last} onClick={() => ask({ page: question.page + 1 })}>
                {t('Those after')}
              </Button>
            </Stack>
          )}
        </>
      )}
      {adding && <AddDialog onClose={() => setAdding(false)} />}
      {renewing && <RenewDialog ids={[...chosen]} onClose={() => setRenewing(false)} />}
    </Box>
  );
}
