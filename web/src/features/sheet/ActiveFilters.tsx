import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Stack from '@mui/material/Stack';

import { type SheetQuestion, type Change, SHEET_FIELDS } from '../../shared/lib/question';
import { activeFilters } from './activeFilters';
import { t } from '../../shared/texts';

/** The filters that are on, each taken away by a press. */
export function ActiveFilters({ question, onAsk }: { question: SheetQuestion; onAsk: (part: Change) => void }) {
  const filters = activeFilters(question);
  if (!filters.length) return null;
  return (
    <Stack
      direction="row"
      component="ul"
      aria-label={t('Filters that are on')}
      sx={{ m: 0, p: 0, listStyle: 'none', flexWrap: 'wrap', gap: 0.5, alignItems: 'center' }}>
      {filters.map(({ key, word, without }) => (
        <li key={key}>
          <Chip
            size="small"
            label={word}
            title={t('Take this filter away')}
            onDelete={() => onAsk(without)}
            onClick={() => onAsk(without)}
          />
        </li>
      ))}
      {filters.length > 1 && (
        <li>
          <Button
            size="small"
            onClick={() => {
              onAsk(SHEET_FIELDS.unfiltered);
            }}>
            {t('Clear all')}
          </Button>
        </li>
      )}
    </Stack>
  );
}
