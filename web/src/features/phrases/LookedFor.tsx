import Box from '@mui/material/Box';
import { Link } from 'react-router';

import type { Judged } from '../../shared/api';
import { formatCount } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { MonthBars } from './figures';

/** The phrases that have the words of a name, with how often a month they are looked for. */
export function LookedFor({ projectId, phrases }: { projectId: number; phrases: Judged['looked_for'] }) {
  return (
    <Box
      component="table"
      aria-label={t('What people look for with these words')}
      sx={{ borderCollapse: 'collapse', width: '100%', '& td': { py: 0.2, pr: 1.5 } }}>
      <tbody>
        {phrases.map(({ phrase, demand, figure }) => (
          <tr key={phrase}>
            <td>
              <Box
                component={Link}
                to={`/projects/${projectId}/phrases?${new URLSearchParams({ text: phrase }).toString()}`}
                sx={{ color: 'secondary.main' }}>
                {phrase}
              </Box>
            </td>
            <Box component="td" sx={{ textAlign: 'right', fontVariantNumeric: 'tabular-nums' }}>
              {demand === null ? t('unknown') : formatCount(demand)}
            </Box>
            <td>
              <MonthBars figure={figure} />
            </td>
          </tr>
        ))}
      </tbody>
    </Box>
  );
}
