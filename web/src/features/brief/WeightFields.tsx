import Button from '@mui/material/Button';
import Box from '@mui/material/Box';
import MuiLink from '@mui/material/Link';
import Slider from '@mui/material/Slider';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Fragment, useState } from 'react';
import { Link } from 'react-router';

import type { Brief } from '../../shared/api';
import { measures } from '../../shared/lib/concepts';
import { sharesOf, type Weights, weightsOf } from '../../shared/lib/grading';
import { useNotify } from '../../shared/ui/Notices';
import { t } from '../../shared/texts';

interface Props {
  brief: Brief;
  /** While a slider moves: grades follow, nothing is saved. */
  onDraft: (weights: Weights | null) => void;
  onChange: (weights: Record<string, number>) => void;
}

/** How much each measure counts in the grade, 0 to 10. */
export function WeightFields({ brief, onDraft, onChange }: Props) {
  const notify = useNotify();
  const [moved, setMoved] = useState<Weights | null>(null);
  const saved = weightsOf(brief);
  const weights = moved ?? saved;
  const shares = sharesOf(weights);
  const own = Object.keys(brief.weights).length > 0;
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'auto 1fr 38px', columnGap: 1.4, alignItems: 'center' }}>
        {measures().map(({ name, word, asks }) => (
          <Fragment key={name}>
            <Typography variant="caption" title={asks}>
              {word}
            </Typography>
            <Slider
              size="small"
              color="secondary"
              title={asks}
              aria-label={t('Weight of {word}', { word: word.toLowerCase() })}
              value={weights[name] ?? 0}
              min={0}
              max={10}
              onChange={(_, value) => {
                const next = { ...weights, [name]: value };
                setMoved(next);
                onDraft(next);
              }}
              onChangeCommitted={(_, value) => {
                const next = { ...weights, [name]: value };
                setMoved(null);
                onDraft(null);
                if (Object.values(next).some(Boolean)) onChange(next);
                else notify(t('Something has to count: one measure stays above 0.'));
              }}
              sx={{ py: 0.7 }}
            />
            <Typography variant="caption" color="textSecondary" sx={{ textAlign: 'right' }}>
              {Math.round(100 * (shares[name] ?? 0))} %
            </Typography>
          </Fragment>
        ))}
      </Box>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center' }}>
        <MuiLink component={Link} to="/measures" variant="caption" color="textSecondary">
          {t('How this is worked out')}
        </MuiLink>
        {own ? (
          <Button onClick={() => onChange({})}>{t('Usual weights')}</Button>
        ) : (
          <Typography variant="caption" color="textSecondary">
            {t('usual weights')}
          </Typography>
        )}
      </Stack>
    </>
  );
}
