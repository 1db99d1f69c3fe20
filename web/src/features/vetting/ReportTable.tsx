import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';

import type { Glance, VettingReport } from '../../shared/api';
import { concepts, findingKind, weightKind } from '../../shared/lib/concepts';
import { t } from '../../shared/texts';
import { VisuallyHidden } from '../../shared/ui/VisuallyHidden';
import { WeightMark } from '../../shared/ui/WeightMark';

interface Props {
  report: VettingReport;
  /** The label of the name that is open. */
  open: string | null;
  onOpen: (label: string, kind: string | null) => void;
}

function Kind({ name, glance, onOpen }: { name: string; glance: Glance | undefined; onOpen: () => void }) {
  if (!glance)
    return (
      <Box component="span" sx={{ color: 'text.secondary' }}>
        <span aria-hidden>–</span>
        <VisuallyHidden>{t('not vetted')}</VisuallyHidden>
      </Box>
    );
  return (
    <ButtonBase
      onClick={onOpen}
      title={glance.text}
      aria-label={[
        t('{kind} of {name}: {weight}', {
          kind: findingKind(glance.kind)?.word ?? glance.kind,
          name,
          weight: weightKind(glance.weight)?.word ?? glance.weight,
        }),
        glance.accepted ? t('accepted') : glance.old ? t('old') : '',
      ]
        .filter(Boolean)
        .join(', ')}
      sx={{ font: 'inherit', borderRadius: 1, px: 0.4, py: 0.3, fontSize: '0.86rem', textAlign: 'left' }}>
      <span>
        <WeightMark weight={glance.weight} accepted={glance.accepted} />
        {(glance.accepted || glance.old) && (
          <Box
            component="span"
            sx={{ display: 'block', color: 'text.secondary', fontSize: '0.72rem', lineHeight: 1.2 }}>
            {glance.accepted ? t('accepted') : t('old')}
          </Box>
        )}
      </span>
    </ButtonBase>
  );
}

/** Names by kinds of finding, the worst name first. */
export function ReportTable({ report, open, onOpen }: Props) {
  const kinds = concepts().findings;
  return (
    <Box sx={{ overflowX: 'auto', border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
      <Box
        component="table"
        aria-label={t('Findings')}
        sx={{
          borderCollapse: 'collapse',
          width: '100%',
          '& th, & td': { px: 1.2, py: 0.5, textAlign: 'left', borderTop: 1, borderColor: 'divider' },
          '& thead th': { borderTop: 0, color: 'text.secondary', fontSize: '0.82rem', whiteSpace: 'nowrap' },
        }}>
        <thead>
          <tr>
            <th scope="col">{t('Name')}</th>
            {kinds.map((kind) => (
              <th scope="col" key={kind.name} title={kind.asks}>
                {kind.short}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {report.names.map((name) => (
            <tr key={name.label}>
              <Box
                component="th"
                scope="row"
                sx={{
                  position: 'sticky',
                  left: 0,
                  bgcolor: 'background.paper',
                  minWidth: 132,
                  maxWidth: 260,
                  ...(open === name.label && { boxShadow: 'inset 4px 0 0 var(--mui-palette-secondary-main)' }),
                }}>
                <ButtonBase
                  aria-expanded={open === name.label}
                  onClick={() => onOpen(name.label, null)}
                  sx={{
                    font: 'inherit',
                    fontSize: { xs: '0.88rem', sm: '1.08rem' },
                    fontWeight: 600,
                    textAlign: 'left',
                    overflowWrap: 'anywhere',
                  }}>
                  <span className="serif">{name.full_name}</span>
                </ButtonBase>
              </Box>
              {kinds.map((kind) => (
                <td key={kind.name}>
                  <Kind
                    name={name.full_name}
                    glance={name.kinds.find((k) => k.kind === kind.name)}
                    onOpen={() => onOpen(name.label, kind.name)}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}
