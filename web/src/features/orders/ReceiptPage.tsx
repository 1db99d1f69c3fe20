import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Link, useParams } from 'react-router';

import type { Receipt } from '../../shared/api';
import { formatCountry, formatDay, formatMoney } from '../../shared/lib/format';
import { t } from '../../shared/texts';
import { LoadFailed } from '../../shared/ui/LoadFailed';
import { PAPER } from '../../shared/ui/paper';
import { useReceipt } from '../../shared/basket/useOrders';

/** A receipt's document, as it is written once (docs/ordering.md). */
interface Written {
  kind: 'receipt' | 'credit_note';
  number: string;
  order: string;
  written_at: string;
  paid_at: string | null;
  paid_by: string;
  seller: string;
  seller_country: string;
  currency: string;
  lines: {
    full_name: string;
    as_typed: string;
    what: string;
    years: number;
    net: string;
    tax: string;
    amount: string;
  }[];
  net: string;
  tax: { percent: string | null; country: string; rule: string; amount: string };
  total: string;
}

const WHAT: Readonly<Record<string, string>> = {
  register: t('registration'),
  renew: t('renewal'),
  restore: t('getting back what lapsed'),
  move: t('moving it here, with a year'),
};

function Buyer({ buyer }: { buyer: Receipt['buyer'] }) {
  if (!buyer) return null;
  const lines = [
    buyer.organisation,
    buyer.name,
    buyer.street,
    buyer.street2,
    `${buyer.postcode} ${buyer.city}`.trim(),
    buyer.region,
    buyer.country && formatCountry(buyer.country),
    buyer.identifiers?.vat && t('VAT number {number}', { number: buyer.identifiers.vat }),
  ].filter(Boolean);
  return (
    <Box component="address" sx={{ fontStyle: 'normal' }}>
      {lines.map((line) => (
        <div key={line}>{line}</div>
      ))}
    </Box>
  );
}

const taxWord = ({ tax }: Written): string => {
  if (tax.rule === 'reverse') return t('tax, accounted for by the buyer');
  if (tax.percent !== null) return t('tax, {percent} %', { percent: tax.percent });
  return t('tax');
};

/** A receipt or a credit note, on paper. */
export function ReceiptPage() {
  const { order: id, kind = 'receipt' } = useParams();
  const { data, error, refetch } = useReceipt(Number(id), kind);
  if (!data) {
    if (!error) return <LinearProgress aria-label={t('Loading')} />;
    return <LoadFailed title={t('The receipt could not be loaded')} error={error} onRetry={refetch} />;
  }
  const paper = data.document as Written;
  const money = (amount: string) => formatMoney(amount, paper.currency);
  return (
    <Box sx={PAPER}>
      <Stack direction="row" sx={{ gap: 1, mb: 2, displayPrint: 'none' }}>
        <Button component={Link} to={`/orders/${id ?? ''}`}>
          {t('To the order')}
        </Button>
        <Button variant="outlined" onClick={() => window.print()}>
          {t('Print')}
        </Button>
        <Button variant="outlined" href={`/api/orders/${id ?? ''}/receipts/${kind}/file`}>
          {t('JSON')}
        </Button>
      </Stack>
      <Typography variant="h1" sx={{ fontSize: '2rem' }}>
        {paper.kind === 'receipt'
          ? t('Receipt {number}', { number: paper.number })
          : t('Credit note {number}', { number: paper.number })}
      </Typography>
      <Stack direction="row" sx={{ gap: 4, my: 2, flexWrap: 'wrap' }}>
        <Box sx={{ flex: 1, minWidth: 200 }}>
          <Typography variant="h3">{t('Written out to')}</Typography>
          <Buyer buyer={data.buyer} />
        </Box>
        <Box sx={{ minWidth: 200 }}>
          <Typography variant="h3">{paper.seller}</Typography>
          <div>{paper.seller_country && formatCountry(paper.seller_country)}</div>
          <div>{t('order {number}', { number: paper.order })}</div>
          <div>{formatDay(paper.written_at)}</div>
          {paper.paid_at && (
            <div>
              {paper.paid_by === 'credit'
                ? t('paid from credit on {day}', { day: formatDay(paper.paid_at) })
                : t('paid on {day}', { day: formatDay(paper.paid_at) })}
            </div>
          )}
        </Box>
      </Stack>
      <Box component="table" sx={{ '& td:last-child, & th:last-child': { textAlign: 'right', pr: 0 } }}>
        <thead>
          <tr>
            <th scope="col">{t('Name')}</th>
            <th scope="col">{t('What')}</th>
            <th scope="col">{t('Without tax')}</th>
          </tr>
        </thead>
        <tbody>
          {paper.lines.map((line) => (
            <tr key={line.full_name}>
              <td>{line.as_typed}</td>
              <td>
                {WHAT[line.what] ?? line.what},{' '}
                {t('{years, plural, one {a year} other {# years}}', { years: line.years })}
              </td>
              <td>{money(line.net)}</td>
            </tr>
          ))}
          <tr>
            <td />
            <td>{t('without tax')}</td>
            <td>{money(paper.net)}</td>
          </tr>
          <tr>
            <td />
            <td>{taxWord(paper)}</td>
            <td>{money(paper.tax.amount)}</td>
          </tr>
          <tr>
            <td />
            <td>
              <strong>{paper.kind === 'receipt' ? t('Paid') : t('Given back')}</strong>
            </td>
            <td>
              <strong>{money(paper.total)}</strong>
            </td>
          </tr>
        </tbody>
      </Box>
    </Box>
  );
}
