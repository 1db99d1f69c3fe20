import Button from '@mui/material/Button';
import Divider from '@mui/material/Divider';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';

import { formatCount, plural } from '../../shared/lib/format';
import { DownIcon } from '../../shared/ui/icons';
import type { Asked, CheckWish } from '../../shared/lib/asked';

export interface Choices {
  /** The rows the sheet shows now, and how many they are. */
  shown?: { asked: Asked; count: number };
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
  ['an hour', 60],
  ['a day', 1440],
  ['a week', 10_080],
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
  const rows: CheckWish = shown ? { shown: shown.asked } : { what };
  const which = shown ? `all ${formatCount(shown.count)} shown` : what === 'pasted' ? 'the list' : 'the best';
  return (
    <>
      <Button
        aria-label="What else to check"
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
            Check
          </MenuItem>
        )}
        {page.length > 0 && item(`the ${plural(page.length, 'name')} in view`, { what: 'labels', labels: [...page] })}
        {shown && item(`all ${formatCount(shown.count)} names shown`, { shown: shown.asked })}
        {marked.length > 0 &&
          item(`the ${plural(marked.length, 'name')} marked`, { what: 'labels', labels: [...marked] })}
        {selected &&
          item(`${selected} under every extension known`, {
            what: 'labels',
            labels: [selected],
            everywhere: true,
          })}
        {selected &&
          item(`${selected} as before buying: registry and seller`, {
            what: 'labels',
            labels: [selected],
            purpose: 'buying',
          })}
        {(shown ?? selected) && <Divider component="li" />}
        <MenuItem disabled sx={HEADING}>
          Ask again, of {which}
        </MenuItem>
        {item('only what is unsure', { ...rows, again: 'unsure' })}
        {AGES.map(([word, minutes]) => item(`what is older than ${word}`, { ...rows, older_than_minutes: minutes }))}
        {item('everything', { ...rows, again: 'all' })}
      </Menu>
    </>
  );
}
