import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';

import type { Happening } from '../../shared/api';
import { Age } from '../../shared/ui/Age';
import { VisuallyHidden } from '../../shared/ui/VisuallyHidden';
import { t } from '../../shared/texts';

/** Where more is told of what happened. */
export function placeOf({ project, label, extension, question }: Happening): string {
  if (project === null) return `/owned?text=${label}.${extension}`;
  if (label) return `/projects/${project}/names/${label}.${extension}`;
  const search = new URLSearchParams(question).toString();
  return search ? `/projects/${project}/hunt?${search}` : '/sellers';
}

/** What happened, the newest first; what was not read before stands out. */
export function HappeningList({
  rows,
  news,
  onFollow,
}: {
  rows: readonly Happening[];
  news: ReadonlySet<number>;
  onFollow?: () => void;
}) {
  return (
    <Box component="ol" aria-label={t('What happened')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {rows.map((one) => {
        const fresh = news.has(one.id);
        return (
          <Stack
            component="li"
            key={one.id}
            direction="row"
            sx={{
              gap: 1.2,
              py: 0.8,
              pl: 1,
              borderBottom: 1,
              borderColor: 'divider',
              borderLeft: 4,
              borderLeftColor: fresh ? 'secondary.main' : 'transparent',
              alignItems: 'baseline',
            }}>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Box
                component={Link}
                to={placeOf(one)}
                onClick={onFollow}
                sx={{
                  color: 'text.primary',
                  fontWeight: fresh ? 600 : 400,
                  overflowWrap: 'anywhere',
                  '&:not(:hover)': { textDecoration: 'none' },
                }}>
                {fresh && <VisuallyHidden>{t('New:')} </VisuallyHidden>}
                {one.text}
              </Box>
              {one.title !== `${one.label}.${one.extension}` && (
                <Typography variant="caption" component="div" color="textSecondary">
                  {one.title}
                </Typography>
              )}
            </Box>
            <Typography variant="caption" color="textSecondary" sx={{ whiteSpace: 'nowrap' }}>
              <Age at={one.at} />
            </Typography>
          </Stack>
        );
      })}
    </Box>
  );
}
