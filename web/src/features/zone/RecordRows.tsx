import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import { memo } from 'react';

import type { ZoneRecord, ZoneRemark } from '../../shared/api';
import { t } from '../../shared/texts';
import { CrossIcon } from '../../shared/ui/icons';
import type { Row } from './useDraft';

interface RowProps {
  row: Row;
  kinds: readonly string[];
  origin: string;
  remarks: readonly ZoneRemark[];
  onType: (key: number, field: keyof ZoneRecord, value: string | number) => void;
  onDrop: (key: number) => void;
}

const EXAMPLES: Readonly<Record<string, string>> = {
  A: '192.0.2.10',
  AAAA: '2001:db8::10',
  CNAME: 'shop.example',
  MX: '10 mail.example',
  TXT: t('any text'),
  CAA: '0 issue "ca.example"',
  SRV: '10 5 5060 calls.example',
  URI: '10 1 "https://shop.example/"',
};

const RecordRow = memo(function RecordRow({ row, kinds, origin, remarks, onType, onDrop }: RowProps) {
  const wrong = remarks.some((one) => one.wrong);
  const said = remarks.length ? `said-${String(row.key)}` : undefined;
  const of = row.name && row.name !== '@' ? `${row.name}.${origin}` : origin;
  return (
    <div role="row" className={wrong ? 'record wrong' : 'record'}>
      <span role="cell">
        <input
          value={row.name}
          aria-label={t('Name')}
          placeholder="@"
          spellCheck={false}
          autoCapitalize="none"
          title={of}
          onChange={(e) => onType(row.key, 'name', e.target.value)}
        />
      </span>
      <span role="cell">
        <select value={row.kind} aria-label={t('Kind')} onChange={(e) => onType(row.key, 'kind', e.target.value)}>
          {!kinds.includes(row.kind) && <option value={row.kind}>{row.kind}</option>}
          {kinds.map((kind) => (
            <option key={kind}>{kind}</option>
          ))}
        </select>
      </span>
      <span role="cell" className="data">
        <input
          value={row.data}
          aria-label={t('What it says')}
          aria-invalid={wrong}
          aria-describedby={said}
          placeholder={EXAMPLES[row.kind]}
          spellCheck={false}
          autoCapitalize="none"
          onChange={(e) => onType(row.key, 'data', e.target.value)}
        />
      </span>
      <span role="cell" className="ttl">
        <input
          value={row.ttl}
          aria-label={t('Seconds it is remembered')}
          inputMode="numeric"
          onChange={(e) => onType(row.key, 'ttl', Number(e.target.value.replace(/\D/g, '').slice(0, 7)))}
        />
        <span className="unit" aria-hidden>
          {t('seconds')}
        </span>
      </span>
      <span role="cell">
        <IconButton
          size="small"
          aria-label={t('Take {kind} of {name} out', { kind: row.kind, name: of })}
          onClick={() => onDrop(row.key)}>
          <CrossIcon />
        </IconButton>
      </span>
      {said && (
        <ul id={said} className="said">
          {remarks.map((one) => (
            <li key={one.message} className={one.wrong ? 'wrong' : ''}>
              {one.message}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
});

const NONE: readonly ZoneRemark[] = [];

interface Props extends Pick<RowProps, 'kinds' | 'origin' | 'onType' | 'onDrop'> {
  rows: readonly Row[];
  remarks: readonly ZoneRemark[];
}

/** The records, each a line one types in. */
export function RecordRows({ rows, remarks, ...rest }: Props) {
  const byPlace = new Map<number, ZoneRemark[]>();
  for (const one of remarks) {
    if (one.place !== null) byPlace.set(one.place, [...(byPlace.get(one.place) ?? []), one]);
  }
  return (
    <Box
      role="table"
      aria-label={t('Records')}
      sx={{
        '& .record': {
          display: 'grid',
          gridTemplateColumns: { xs: '1fr 88px 32px', md: 'minmax(110px, 1fr) 88px minmax(0, 2.4fr) 84px 32px' },
          gap: 0.6,
          alignItems: 'center',
          py: 0.5,
          borderTop: 1,
          borderColor: 'divider',
        },
        '& .head': { borderTop: 0, color: 'text.secondary', fontSize: '0.8rem', display: { xs: 'none', md: 'grid' } },
        '& .data': { gridColumn: { xs: '1 / -1', md: 'auto' }, gridRow: { xs: 2, md: 'auto' } },
        // Where there is no room for a heading, the seconds say what they are.
        '& .ttl': {
          gridColumn: { xs: '1 / -1', md: 'auto' },
          gridRow: { xs: 3, md: 'auto' },
          display: { xs: 'flex', md: 'block' },
          gap: 1,
        },
        '& .ttl input': { width: { xs: 110, md: '100%' } },
        '& .unit': { display: { md: 'none' }, alignSelf: 'center', color: 'text.secondary' },
        '& input, & select': {
          width: '100%',
          minHeight: 34,
          font: 'inherit',
          color: 'inherit',
          bgcolor: 'background.paper',
          border: 1,
          borderColor: 'divider',
          borderRadius: 0.8,
          px: 0.8,
        },
        '& input::placeholder': { color: 'text.disabled', opacity: 1 },
        '& .data input': { fontVariantNumeric: 'tabular-nums' },
        '& .wrong input[aria-invalid=true]': { borderColor: 'error.main' },
        '& .said': { gridColumn: '1 / -1', m: 0, pl: 2, color: 'warning.main', fontSize: '0.86rem' },
        '& .said .wrong': { color: 'error.main' },
      }}>
      <div role="row" className="record head">
        {[t('Name'), t('Kind'), t('What it says'), t('Seconds'), ''].map((word, place) => (
          <span key={word || place} role="columnheader">
            {word}
          </span>
        ))}
      </div>
      {rows.map((row, place) => (
        <RecordRow key={row.key} row={row} remarks={byPlace.get(place) ?? NONE} {...rest} />
      ))}
    </Box>
  );
}
