import { describe, expect, it } from 'vitest';

import type { EvidenceOfFinding } from '../../shared/api';
import { COLUMNS, handleGrid, saysOf, shown, whyOf } from './evidence';

const cells = (kind: string, row: EvidenceOfFinding) =>
  Object.fromEntries((COLUMNS[kind] ?? []).map((column) => [column.key, shown(column, row)]));

describe('what speaks for a finding', () => {
  it('of a mark is its word, its owner, what it is for and where it stands', () => {
    const row = {
      word: 'Inkpoast',
      how: 'sounds the same as',
      said: 'ingk-pohst',
      likeness: 0.934,
      owner: 'Hexley Press',
      goods: 'paper, print',
      classes: '16 35',
      status: 'registered',
      registered: '2019-03-01',
      office: 'Saltley',
      number: 'S1',
    };
    expect(cells('marks', row)).toMatchObject({
      word: 'Inkpoast',
      likeness: '93 in 100',
      goods: 'paper, print (16 35)',
      status: 'registered',
      office: 'Saltley, S1',
    });
    expect(cells('marks', row).registered).toContain('2019');
    // A state nobody here knows is told as it came; classes that are not told are said not to be.
    expect(cells('marks', { ...row, status: 'sleeping', classes: '' })).toMatchObject({
      status: 'sleeping',
      goods: 'paper, print (not told)',
    });
  });

  it.each([
    [0.123, '12 in 100'],
    [0.0042, '4 in 1,000'],
    [0.00034, '3 in 10,000'],
    [0.00001, 'under 1 in 10,000'],
    [0, 'under 1 in 10,000'],
  ])('tells a share of %d as %s', (share, text) => {
    expect(cells('mistyped', { full_name: 'incpost.com', share, kind: 'heard', status: 'open' }).share).toBe(text);
  });

  it('of a mistype nobody could look up says so', () => {
    expect(cells('mistyped', { full_name: 'incpost.com', share: 0.1, kind: 'slip', status: 'unknown' }).status).toBe(
      'not known',
    );
  });

  it('of prior use tells how many were found, and nothing where that is not known', () => {
    const row = { title: 'Inkpost', says: 'goes by the name', field: 'yours', results: 12_000 };
    expect(cells('prior_use', row)).toMatchObject({ says: 'goes by the name', field: 'yours', results: '12,000' });
    expect(cells('prior_use', { ...row, results: null, field: 'its own reason', why: 'late' })).toMatchObject({
      results: '',
      field: 'late',
    });
  });

  it('of what to hold is its price and whether it is in', () => {
    const row = { full_name: 'incpost.com', share: 0.02, yearly: '12.50', currency: 'EUR', held: true };
    expect(cells('protection', row)).toMatchObject({ held: 'yes' });
    expect(cells('protection', row).yearly).toContain('12.50');
    expect(cells('protection', { ...row, held: false }).held).toBe('no');
  });

  const odd: EvidenceOfFinding[] = [
    {},
    { yearly: '', currency: '', share: null, registered: 'someday', results: 'many', likeness: 'high', says: true },
    { yearly: 'much', currency: 'euro', share: 'half', registered: 4, status: 7, held: 'perhaps', market: 0 },
  ];
  it.each(Object.keys(COLUMNS))('of %s is text, whatever a row has', (kind) => {
    for (const row of odd) for (const text of Object.values(cells(kind, row))) expect(typeof text).toBe('string');
  });
});

describe('handles', () => {
  const rows: EvidenceOfFinding[] = [
    { platform: 'Larkwire', handle: 'inkpost', says: 'taken', why: '' },
    { platform: 'Larkwire', handle: 'inkpostapp', says: 'free', why: '' },
    { platform: 'Murmur', handle: 'inkpost', says: 'barred', why: 'more than 5 letters' },
    { platform: 'Quarry', handle: 'inkpost', says: 'shut', why: 3 },
  ];

  it('stand by platform and handle, in the order they came', () => {
    const { handles, platforms } = handleGrid(rows);
    expect(handles).toEqual(['inkpost', 'inkpostapp']);
    expect([...platforms.keys()]).toEqual(['Larkwire', 'Murmur', 'Quarry']);
    expect(saysOf(platforms.get('Larkwire')?.get('inkpostapp'))).toBe('free');
    expect(saysOf(platforms.get('Murmur')?.get('inkpost'))).toBe('not allowed');
    expect(whyOf(platforms.get('Murmur')?.get('inkpost'))).toBe('more than 5 letters');
    expect(saysOf(platforms.get('Murmur')?.get('inkpostapp'))).toBe('not asked');
    expect(saysOf(platforms.get('Quarry')?.get('inkpost'))).toBe('shut');
  });
});
