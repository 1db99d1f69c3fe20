import Button from '@mui/material/Button';

import { narrows, SHEET_FIELDS } from '../../shared/lib/question';
import { EmptyState } from '../../shared/ui/EmptyState';
import { useBench } from './bench';
import { t } from '../../shared/texts';

/** Why there are no names, and what helps. */
export function NoRows() {
  const { hasWords, hasRecipes, question, onAsk } = useBench();
  if (!hasRecipes)
    return (
      <EmptyState title={t('All recipes are off')}>
        {t('Switch one on, on the left: names are made by recipes.')}
      </EmptyState>
    );
  if (narrows(question)) {
    return (
      <EmptyState
        title={t('No name passes these filters')}
        action={
          <Button variant="outlined" onClick={() => onAsk(SHEET_FIELDS.unfiltered)}>
            {t('Show all names')}
          </Button>
        }>
        {(question.open_in ?? question.status)
          ? t('Names show as open once they were checked and the registry said so.')
          : t('Try fewer letters, or another of the counts above the sheet.')}
      </EmptyState>
    );
  }
  return hasWords ? (
    <EmptyState title={t('No name keeps these limits')}>
      {t('Allow more letters or words on the left, or take back a word to avoid.')}
    </EmptyState>
  ) : (
    <EmptyState title={t('Add a word on the left')}>
      {t('Two or three are enough to begin with. The names come at once.')}
    </EmptyState>
  );
}
