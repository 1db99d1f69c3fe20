import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';

import type { Judged } from '../../shared/api';
import { shareOf } from '../../shared/lib/format';
import { CautionIcon } from '../../shared/ui/icons';
import { MarkedLetters } from '../../shared/ui/MarkedLetters';
import { t } from '../../shared/texts';
import { NameButton } from './NameButton';

/** What to know of the name beside its grade. */
export function Warnings({ name }: { name: Judged }) {
  if (name.warnings.length === 0) return null;
  return (
    <Stack
      component="ul"
      aria-label={t('Warnings')}
      sx={{
        m: 0,
        p: 1,
        gap: 0.6,
        listStyle: 'none',
        border: 1,
        borderColor: 'amber',
        borderRadius: 1,
        bgcolor: 'background.paper',
      }}>
      {name.warnings.map(({ code, text, start, end }) => (
        <Stack
          component="li"
          direction="row"
          key={`${code}${start}`}
          sx={{ gap: 0.8, fontSize: '0.86rem', lineHeight: 1.4 }}>
          <CautionIcon sx={{ fontSize: 17, color: 'amber', mt: 0.1 }} />
          <Box sx={{ minWidth: 0, overflowWrap: 'anywhere' }}>
            <MarkedLetters text={name.shown} start={start} end={end} />
            {text}
          </Box>
        </Stack>
      ))}
    </Stack>
  );
}

/** What people who hear the name would write instead. */
export function Misspellings({ name, onSelect }: { name: Judged; onSelect: (label: string) => void }) {
  if (name.misspellings.length === 0) return null;
  return (
    <Box>
      <Typography variant="h3" sx={{ mb: 0.2 }}>
        {t('Heard and written wrong')}
      </Typography>
      <Typography variant="caption" color="textSecondary" component="p">
        {t('Of 100 people who hear it, how many would write:')}
      </Typography>
      <Stack component="ol" aria-label={t('Likely misspellings')} sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {name.misspellings.slice(0, 6).map(({ label, share: part }) => (
          <Stack
            component="li"
            direction="row"
            key={label}
            sx={{
              justifyContent: 'space-between',
              gap: 1,
              borderTop: 1,
              borderColor: 'divider',
              py: 0.2,
              fontSize: '0.9rem',
            }}>
            <NameButton label={label} onSelect={onSelect}>
              <span className="serif">{label}</span>
            </NameButton>
            <Box component="span" sx={{ color: 'text.secondary', whiteSpace: 'nowrap' }}>
              {shareOf(part)}
            </Box>
          </Stack>
        ))}
      </Stack>
    </Box>
  );
}
