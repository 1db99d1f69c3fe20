import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';

import type { Costed, SellerKind } from '../../shared/api';
import { formatDay, formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { lineInWords, sourceInWords, wayInWords } from './inWords';
import { AtSellers } from './AtSellers';
import { Buying } from './Buying';

interface Props {
  costed: Costed;
  currency: string;
  sellers: readonly SellerKind[];
  /** What is bid for it at most. */
  onCeiling?: (amount: number) => void;
}

/** The cheapest way to hold one name, payment by payment and line by line, and what sellers tick in advance. */
export function NameCosts({ costed, currency, sellers, onCeiling }: Props) {
  const nameOf = (code: string) => sellers.find((s) => s.code === code)?.name ?? code;
  const ticked = costed.sellers.filter((s) => s.ticked !== null && s.total !== null && s.ticked !== s.total);
  return (
    <Box component="section" aria-label={costed.full_name} sx={{ mt: 3 }}>
      <Typography variant="h2" className="serif" sx={{ mb: 1 }}>
        {costed.full_name}
      </Typography>
      {costed.buying && onCeiling && (
        <Buying
          key={costed.full_name}
          fullName={costed.full_name}
          buying={costed.buying}
          currency={currency}
          onCeiling={onCeiling}
        />
      )}
      {costed.cheapest ? (
        <>
          <Box component="ol" aria-label={t('The cheapest way')} sx={{ m: 0, mb: 1.5, pl: 2.5 }}>
            {wayInWords(costed.cheapest.steps, nameOf).map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
          </Box>
          <details>
            <summary>{t('Where the money goes')}</summary>
            {costed.cheapest.steps.map((step) => (
              <Box key={`${step.on}${step.action}`} sx={{ mt: 1 }}>
                <strong>
                  {t('{on}, {seller}: {amount}', {
                    on: formatDay(step.on),
                    seller: nameOf(step.seller),
                    amount: formatMoney(step.amount, currency),
                  })}
                </strong>
                <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
                  {step.order.lines.map((line) => (
                    <li key={`${line.kind}${line.reason}`}>
                      {lineInWords(line, step.order.currency)}:{' '}
                      {formatMoney(Math.abs(Number(line.amount)), step.order.currency)}
                      {Number(line.amount) < 0 && ` ${t('off')}`}{' '}
                      <Typography component="span" variant="caption" color="textSecondary">
                        {sourceInWords(line)}
                      </Typography>
                    </li>
                  ))}
                </Box>
              </Box>
            ))}
          </details>
        </>
      ) : (
        <Typography>
          {costed.sellers.some((s) => s.unsold)
            ? t('Asked, no seller sells it: it is taken, or held back.')
            : t('No seller offers it.')}
        </Typography>
      )}
      <AtSellers costed={costed} currency={currency} nameOf={nameOf} />
      {ticked.length > 0 && (
        <>
          <Typography variant="h3" sx={{ mt: 2, mb: 0.5 }}>
            {t('What is ticked in advance')}
          </Typography>
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {ticked.map((s) => (
              <li key={s.seller}>
                {t('{seller}: {ticked} instead of {total} when nothing is changed on the page.', {
                  seller: nameOf(s.seller),
                  ticked: formatMoney(s.ticked, currency),
                  total: formatMoney(s.total, currency),
                })}{' '}
                {s.extras.map((extra) => (
                  <Typography key={extra.name} component="span" variant="body2" color="textSecondary">
                    {t('{name}, {total}: {about}', {
                      name: extra.name,
                      total: formatMoney(extra.total, currency),
                      about: extra.about,
                    })}{' '}
                    {extra.needed ? t('It is needed.') : t('It is not needed to hold the name.')}{' '}
                  </Typography>
                ))}
              </li>
            ))}
          </Box>
        </>
      )}
    </Box>
  );
}
