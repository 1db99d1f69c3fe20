import { QueryClient } from '@tanstack/react-query';
import { expect, it } from 'vitest';

import { type Cell, keys, type Page } from '../../shared/api';
import { sampleCell, sampleRow } from '../../shared/testing/samples';
import { mergeCells } from './useCheck';

const cell = (label: string, extension: string, status: Cell['status']) => sampleCell({ label, extension, status });
const row = (label: string, cells: Cell[] = []) => sampleRow({ label, cells });

it('puts answers into their cells; rows keep their places, others stay the same objects', () => {
  const client = new QueryClient();
  const key = keys.sheet(7, { sort: 'best' });
  const page: Page = {
    total: 2,
    rows: [row('inkpost', [cell('inkpost', 'com', 'waiting')]), row('inkwell')],
  };
  client.setQueryData(key, page);
  mergeCells(
    client,
    7,
    ['com', 'net'],
    [cell('inkpost', 'com', 'taken'), cell('inkpost', 'net', 'open'), cell('inkpost', 'org', 'open')],
  );
  const after = client.getQueryData<Page>(key);
  expect(after?.rows.map((r) => r.label)).toEqual(['inkpost', 'inkwell']);
  expect(after?.rows[0]?.cells.map((c) => [c.extension, c.status])).toEqual([
    ['com', 'taken'],
    ['net', 'open'],
  ]);
  expect(after?.rows[1]).toBe(page.rows[1]);
});
