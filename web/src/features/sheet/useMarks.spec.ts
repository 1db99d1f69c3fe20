import { renderHook, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';

import { sampleRow } from '../../shared/testing/samples';
import { serve } from '../../shared/testing/render';
import { useMarks } from './useMarks';

const labels = ['inkpost', 'inkwell', 'inkclub', 'inknest'];

function setUp(there = labels.length) {
  const onMark = vi.fn<(marked: ReadonlySet<string>) => void>();
  const requests = serve((_method, path) => {
    const query = new URLSearchParams(path.split('?')[1]);
    const from = Number(query.get('offset'));
    return { body: { labels: labels.slice(from, from + Number(query.get('limit'))) } };
  });
  const rowAt = (index: number) => (index < there ? sampleRow({ label: labels[index] ?? '' }) : undefined);
  const { result } = renderHook(() =>
    useMarks({ projectId: 7, question: { text: 'ink' }, rowAt, marked: new Set(['inkwell']), onMark }),
  );
  const marked = () => [...(onMark.mock.lastCall?.[0] ?? [])];
  return { marks: result.current, marked, asked: requests, onMark };
}

it('marks rows that are there from where the range begins, either way', () => {
  const { marks, marked, asked: requests } = setUp();
  marks.anchor(2);
  marks.to(0);
  expect(marked()).toEqual(['inkpost', 'inkwell', 'inkclub']);
  marks.to(3);
  expect(marked()).toEqual(['inkclub', 'inknest']);
  expect(requests).toEqual([]);
});

it('takes one off and begins a range there', () => {
  const { marks, marked } = setUp();
  marks.toggle(1, 'inkwell');
  expect(marked()).toEqual([]);
  marks.to(2);
  expect(marked()).toEqual(['inkwell', 'inkclub']);
});

it('asks for labels that have not come, and the last range asked for counts', async () => {
  const { marks, marked, asked: requests, onMark } = setUp(1);
  marks.range(0, 3);
  marks.range(1, 2);
  await waitFor(() => {
    expect(onMark).toHaveBeenCalledTimes(1);
  });
  expect(marked()).toEqual(['inkwell', 'inkclub']);
  expect(requests).toHaveLength(2);
  expect(requests[0]?.path).toContain('text=ink');
});
