import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';

import type { Zone, ZoneSeen } from '../../shared/api';
import { t } from '../../shared/texts';
import { Age } from '../../shared/ui/Age';
import { Section } from '../../shared/ui/Section';
import { VisuallyHidden } from '../../shared/ui/VisuallyHidden';

// Told by shape and word, not by colour alone.
const MARKS: Readonly<Record<ZoneSeen['standing'], readonly [string, string, string]>> = {
  good: ['✓', t('well'), 'secondary.main'],
  warn: ['△', t('look at it'), 'warning.main'],
  wrong: ['✕', t('wrong'), 'error.main'],
  unknown: ['?', t('not known'), 'text.secondary'],
};

/** Whether the world sees the name as it is meant to. */
export function WorldPanel({ zone, looking, onLook }: { zone: Zone; looking: boolean; onLook: () => void }) {
  return (
    <Section title={t('What the world sees')}>
      {zone.looked_at === null ? (
        <Typography color="textSecondary">
          {t('Registry, name servers and a resolver are asked, and what they say is held against what is kept here.')}
        </Typography>
      ) : (
        <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 0.8 }}>
          {zone.looked.map((one) => {
            const [mark, word, color] = MARKS[one.standing];
            return (
              <Box
                component="li"
                key={one.text}
                sx={{ display: 'grid', gridTemplateColumns: '1.4rem 1fr', overflowWrap: 'anywhere' }}>
                <Box component="span" aria-hidden sx={{ color, fontWeight: 700 }}>
                  {mark}
                </Box>
                <span>
                  <VisuallyHidden>{word}: </VisuallyHidden>
                  {one.text}
                </span>
              </Box>
            );
          })}
        </Box>
      )}
      {looking && <LinearProgress aria-label={t('Looking')} sx={{ my: 1 }} />}
      <Button variant="outlined" size="small" disabled={looking} onClick={onLook} sx={{ mt: 1.2 }}>
        {zone.looked_at ? t('Look again') : t('See what the world sees')}
      </Button>
      {zone.looked_at && (
        <Typography variant="caption" color="textSecondary" component="div" sx={{ mt: 0.5 }}>
          {t('Looked at')} <Age at={zone.looked_at} />
        </Typography>
      )}
    </Section>
  );
}
