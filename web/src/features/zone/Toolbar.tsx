import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import Tooltip from '@mui/material/Tooltip';
import { useState } from 'react';

import type { ReadySet, Zone, ZoneRecord } from '../../shared/api';
import { formatMoment } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { RedoIcon, UndoIcon } from '../../shared/ui/icons';
import { MasterDialog } from './MasterDialog';
import { ReadyDialog } from './ReadyDialog';

interface Props {
  zone: Zone;
  records: ZoneRecord[];
  canUndo: boolean;
  canRedo: boolean;
  onUndo: () => void;
  onRedo: () => void;
  onAdd: () => void;
  onTake: (records: ZoneRecord[], gone?: ZoneRecord[]) => void;
  onBeside: (records: ZoneRecord[]) => void;
}

/** Where records come from, and where they go. */
export function Toolbar({ zone, records, onTake, onBeside, ...does }: Props) {
  const [set, setSet] = useState<ReadySet | null>(null);
  const [reading, setReading] = useState(false);
  const [menu, setMenu] = useState<{ of: 'ready' | 'past'; at: HTMLElement } | null>(null);
  const close = () => setMenu(null);
  return (
    <Stack
      role="toolbar"
      aria-label={t('With the records')}
      direction="row"
      sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
      <Button
        variant="contained"
        color="secondary"
        size="small"
        aria-haspopup="menu"
        onClick={(e) => setMenu({ of: 'ready', at: e.currentTarget })}>
        {t('I want …')}
      </Button>
      <Button variant="outlined" size="small" onClick={does.onAdd}>
        {t('Add a record')}
      </Button>
      <Button variant="outlined" size="small" onClick={() => setReading(true)}>
        {t('Read a master file …')}
      </Button>
      <Button variant="outlined" size="small" href={`/api/owned/${String(zone.id)}/zone/file`}>
        {t('As a master file')}
      </Button>
      {zone.past.length > 0 && (
        <Button size="small" aria-haspopup="menu" onClick={(e) => setMenu({ of: 'past', at: e.currentTarget })}>
          {t('What was in force before …')}
        </Button>
      )}
      <Tooltip title={t('Undo (ctrl and z)')}>
        <span>
          <IconButton size="small" disabled={!does.canUndo} aria-label={t('Undo')} onClick={does.onUndo}>
            <UndoIcon />
          </IconButton>
        </span>
      </Tooltip>
      <Tooltip title={t('Redo (ctrl and y)')}>
        <span>
          <IconButton size="small" disabled={!does.canRedo} aria-label={t('Redo')} onClick={does.onRedo}>
            <RedoIcon />
          </IconButton>
        </span>
      </Tooltip>
      <Menu open={menu !== null} anchorEl={menu?.at ?? null} onClose={close}>
        {menu?.of === 'ready' &&
          zone.ready.map((one) => (
            <MenuItem
              key={one.code}
              onClick={() => {
                close();
                setSet(one);
              }}>
              {one.title}
            </MenuItem>
          ))}
        {menu?.of === 'past' &&
          zone.past.map((one) => (
            <MenuItem
              key={one.at}
              onClick={() => {
                close();
                onTake(one.records);
              }}>
              {t('{at}: {count, plural, =0 {no record} one {one record} other {# records}}', {
                at: formatMoment(one.at),
                count: one.records.length,
              })}
            </MenuItem>
          ))}
      </Menu>
      {set && (
        <ReadyDialog
          id={zone.id}
          set={set}
          records={records}
          onClose={() => setSet(null)}
          onPut={(next, gone) => {
            setSet(null);
            onTake(next, gone);
          }}
        />
      )}
      {reading && (
        <MasterDialog
          id={zone.id}
          onClose={() => setReading(false)}
          onPut={(next, beside) => {
            setReading(false);
            if (beside) onBeside(next);
            else onTake(next);
          }}
        />
      )}
    </Stack>
  );
}
