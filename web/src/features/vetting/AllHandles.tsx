import Box from '@mui/material/Box';

import type { VettingReport } from '../../shared/api';
import { t } from '../../shared/texts';
import { SAYS } from './evidence';

/** Platforms by names: where the handle each name is can be had. */
export function AllHandles({ report: { names, handles } }: { report: VettingReport }) {
  if (!handles.length) return null;
  const asked = names.map((_, i) => handles.some((row) => row.says[i]));
  return (
    <Box component="details" sx={{ mt: 1.5 }}>
      <summary>{t('Handles of all names, platform by platform')}</summary>
      <Box sx={{ overflowX: 'auto', mt: 0.5 }}>
        <Box
          component="table"
          aria-label={t('Platforms by names')}
          sx={{
            borderCollapse: 'collapse',
            fontSize: '0.86rem',
            '& th, & td': {
              px: 1,
              py: 0.3,
              textAlign: 'left',
              borderTop: 1,
              borderColor: 'divider',
              whiteSpace: 'nowrap',
            },
          }}>
          <thead>
            <tr>
              <th scope="col">{t('Platform')}</th>
              {names.map(
                (name, i) => asked[i] && <th scope="col" key={name.label}>{`@${name.label.replaceAll('-', '')}`}</th>,
              )}
            </tr>
          </thead>
          <tbody>
            {handles.map(({ platform, says }) => (
              <tr key={platform}>
                <th scope="row">{platform}</th>
                {names.map(
                  (name, i) =>
                    asked[i] && (
                      <Box
                        component="td"
                        key={name.label}
                        sx={{
                          color:
                            says[i] === 'free' ? 'secondary.main' : says[i] === 'taken' ? undefined : 'text.secondary',
                          fontWeight: says[i] === 'free' ? 600 : 400,
                        }}>
                        {SAYS[says[i] ?? ''] ?? t('not asked')}
                      </Box>
                    ),
                )}
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
    </Box>
  );
}
