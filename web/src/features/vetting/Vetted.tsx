import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';

import type { Judged } from '../../shared/api';
import { findingKind } from '../../shared/lib/concepts';
import { t } from '../../shared/texts';
import { WeightMark } from '../../shared/ui/WeightMark';

/** What vetting found of a name, in short; what is clear is only counted. */
export function Vetted({ projectId, name }: { projectId: number; name: Judged }) {
  const full = name.extension ? `${name.label}.${name.extension}` : name.label;
  const weighty = name.vetted.filter((one) => one.weight !== 'clear');
  const clear = name.vetted.length - weighty.length;
  return (
    <Box>
      {!name.vetted.length && <Typography color="textSecondary">{t('Not vetted yet.')}</Typography>}
      <Stack component="ul" aria-label={t('Findings')} sx={{ m: 0, p: 0, listStyle: 'none', gap: 0.6 }}>
        {weighty.map((one) => (
          <Box component="li" key={one.kind} sx={{ fontSize: '0.9rem' }}>
            <WeightMark weight={one.weight} accepted={one.accepted} />{' '}
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {findingKind(one.kind)?.word}
              {one.accepted && `, ${t('accepted')}`}
              {one.old && `, ${t('old')}`}
            </Box>
            <Box sx={{ overflowWrap: 'anywhere' }}>{one.text}</Box>
          </Box>
        ))}
      </Stack>
      {clear > 0 && (
        <Typography variant="body2" color="textSecondary" sx={{ mt: 0.5 }}>
          {t('{clear, plural, one {One more is} other {# more are}} clear.', { clear })}
        </Typography>
      )}
      <Button
        component={Link}
        size="small"
        to={`/projects/${projectId}/vetting?name=${encodeURIComponent(full)}`}
        sx={{ mt: 0.5 }}>
        {name.vetted.length ? t('With its evidence') : t('Vet it')}
      </Button>
    </Box>
  );
}
