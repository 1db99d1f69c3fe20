import Button from '@mui/material/Button';
import Divider from '@mui/material/Divider';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';

import { DownIcon } from '../../shared/ui/icons';
import type { SheetQuestion, CheckWish } from '../../shared/lib/question';
import { t } from '../../shared/texts';

export interface Choices {
  /** The rows the sheet shows now, and how many they are. */
  shown?: { question: SheetQuestion; count: number };
  /** The labels in view. */
  page?: readonly string[];
  marked?: readonly string[];
  selected?: string | null;
}

interface Props {
  /** What can be checked, as it is when the menu opens. */
  choices: () => Choices;
  what: 'best' | 'pasted';
  disabled: boolean;
  onStart: (request: CheckWish) => void;
}

// A heading in a menu is an entry that cannot be chosen: nothing else may stand there.
const HEADING = {
  '&.Mui-disabled': { opacity: 1 },
  color: 'text.secondary',
  fontSize: '0.85rem',
  minHeight: 30,
  py: 0.2,
};
const AGES: readonly [string, number][] = [
  [t('an hour'), 60],
  [t('a day'), 1440],
  [t('a week'), 10_080],
];

/** What else can be checked, and how. */
export function CheckMenu({ choices, what, disabled, onStart }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { shown, page = [], marked = [], selected } = anchor ? choices() : {};
  const item = (text: string, request: CheckWish) => (
    <MenuItem
      key={text}
      onClick={() => {
        setAnchor(null);
        onStart(request);
      }}>
      {text}
    </MenuItem>
  );
  const rows: CheckWish = shown ? { shown: shown.question } : { what };
  const which = shown
    ? t('all {count, number} shown', { count: shown.count })
    : what === 'pasted'
      ? t('the list')
      : t('the best');
  return (
    <>
      <Button
        aria-label={t('What else to check')}
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        disabled={disabled}
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ px: 0.5 }}>
        <DownIcon fontSize="small" />
      </Button>
      <Menu disablePortal anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {(shown ?? selected) && (
          <MenuItem disabled sx={HEADING}>
            {t('Check')}
          </MenuItem>
        )}
        {page.length > 0 &&
          item(t('the {page, plural, one {# name} other {# names}} in view', { page: page.length }), {
            what: 'labels',
            labels: [...page],
          })}
        {shown && item(t('all {count, number} names shown', { count: shown.count }), { shown: shown.question })}
        {marked.length > 0 &&
          item(t('the {marked, plural, one {# name} other {# names}} marked', { marked: marked.length }), {
            what: 'labels',
            labels: [...marked],
          })}
        {selected &&
          item(t('{selected} under every extension known', { selected }), {
            what: 'labels',
            labels: [selected],
            everywhere: true,
          })}
        {selected &&
          item(t('{selected} as before buying: registry and seller', { selected }), {
            what: 'labels',
            labels: [selected],
            aim: 'buying',
          })}
        {(shown ?? selected) && <Divider component="li" />}
        <MenuItem disabled sx={HEADING}>
          {t('Ask again, of {which}', { which })}
        </MenuItem>
        {item(t('only what is unsure'), { ...rows, again: 'unsure' })}
        {AGES.map(([word, minutes]) =>
          item(t('what is older than {word}', { word }), { ...rows, older_than_minutes: minutes }),
        )}
        {item('everything', { ...rows, again: 'all' })}
      </Menu>
    </>
  );
}
