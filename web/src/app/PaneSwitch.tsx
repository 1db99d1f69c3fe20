import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { t } from '../shared/texts';

export type Pane = 'words' | 'names' | 'reasons';

interface Props {
  pane: Pane;
  /** The filters stand in place of the words. */
  filtering: boolean;
  onPane: (pane: Pane) => void;
}

/** Which part of the bench is in view, where there is room for one. */
export function PaneSwitch({ pane, filtering, onPane }: Props) {
  return (
    <ToggleButtonGroup
      exclusive
      fullWidth
      size="small"
      value={pane}
      aria-label={t('Part of the bench')}
      onChange={(_, next: Pane | null) => {
        if (next) onPane(next);
      }}
      sx={{ gridArea: 'panes', px: 1, pt: 0.8 }}>
      <ToggleButton value="words" sx={{ py: 0.4, textTransform: 'none' }}>
        {filtering ? t('Filters') : t('Words')}
      </ToggleButton>
      <ToggleButton value="names" sx={{ py: 0.4, textTransform: 'none' }}>
        {t('Names')}
      </ToggleButton>
      <ToggleButton value="reasons" sx={{ py: 0.4, textTransform: 'none' }}>
        {t('Reasons')}
      </ToggleButton>
    </ToggleButtonGroup>
  );
}
