import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';

import { t } from '../texts';

const DAY = 86_400_000;
const USUAL_DAYS = 90;

/** A day from today, as an address or a field has it. */
export const dayIn = (days: number): string => new Date(Date.now() + days * DAY).toISOString().slice(0, 10);
export const usualEnd = (): string => dayIn(USUAL_DAYS);

interface Props {
  reason: string;
  end: string;
  onReason: (reason: string) => void;
  onEnd: (end: string) => void;
  problem?: string | undefined;
}

/** Why something is watched, and until when. */
export const WhyAndUntil = ({ reason, end, onReason, onEnd, problem }: Props) => (
  <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap', alignItems: 'flex-start' }}>
    <TextField
      label={t('Why')}
      placeholder={t('so that you know later')}
      value={reason}
      onChange={(e) => onReason(e.target.value)}
      slotProps={{ htmlInput: { maxLength: 200 }, inputLabel: { shrink: true } }}
      sx={{ flex: 1, minWidth: 200 }}
    />
    <TextField
      type="date"
      label={t('Until')}
      value={end}
      onChange={(e) => onEnd(e.target.value)}
      error={Boolean(problem)}
      helperText={problem}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { min: dayIn(1), max: dayIn(731) } }}
    />
  </Stack>
);
