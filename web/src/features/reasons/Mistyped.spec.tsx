import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import type { Mistypes } from '../../shared/api';
import { renderIn, serve } from '../../shared/testing/render';
import { sampleCell } from '../../shared/testing/samples';
import { Mistyped } from './Mistyped';

const mistype = (label: string, share: number, more: Partial<Mistypes['mistypes'][number]> = {}) => ({
  label,
  extension: 'com',
  full_name: `${label}.com`,
  shown: `${label}.com`,
  kind: 'slip' as const,
  share,
  cell: null,
  ...more,
});
const FOUND: Mistypes = {
  extension: 'com',
  shares: { whole: 0.26, taken: 0.15, parked: 0.02, free: 0.01, unknown: 0.1 },
  mistypes: [
    mistype('incpost', 0.15, { kind: 'heard', cell: sampleCell({ extension: 'com', status: 'taken' }) }),
    mistype('inkposts', 0.012, { kind: 'form', cell: sampleCell({ extension: 'com', status: 'open' }) }),
    mistype('ink-post', 0.008, { kind: 'hyphen', cell: sampleCell({ extension: 'com', status: 'open' }) }),
    ...Array.from({ length: 8 }, (_, i) => mistype(`inkpost${i}`, 0.003)),
  ],
};

function show(found: Mistypes = FOUND) {
  const requests = serve(() => ({ body: found }));
  const [onBegin, onSelect, onHold] = [vi.fn(), vi.fn(), vi.fn()];
  const kept = new Set(['ink-post.com']);
  renderIn(
    <Mistyped
      projectId={7}
      name="inkpost.com"
      checking={false}
      onBegin={onBegin}
      onSelect={onSelect}
      kept={kept}
      onHold={onHold}
    />,
  );
  return { requests, onBegin, onSelect, onHold };
}

it('tells how many type something else, with whom they land, and why', async () => {
  const { requests, onBegin, onSelect, onHold } = show();
  expect(await screen.findByText(/Of those who mean it, 26 in 100 type something else/)).toHaveTextContent(
    '15 in 100 land with somebody, 2 in 100 on a name for sale, 1 in 100 with nobody. Of 10 in 100 that is not known.',
  );
  expect(requests[0]?.path).toBe('/api/projects/7/names/inkpost.com/mistypes');
  const [first, second] = within(screen.getByRole('list', { name: 'Typed by mistake' })).getAllByRole('listitem');
  expect(first).toHaveTextContent('incpost.comheard and written sotaken15 in 100');
  expect(second).toHaveTextContent('inkposts.comanother form');
  await userEvent.click(within(first as HTMLElement).getByRole('button'));
  expect(onSelect).toHaveBeenCalledWith('incpost');
  // What can be had is held for protection at a press; what is taken, or held already, is not.
  expect(screen.getAllByRole('button', { name: /^Hold/ })).toHaveLength(1);
  await userEvent.click(screen.getByRole('button', { name: 'Hold inkposts.com' }));
  expect(onHold).toHaveBeenCalledWith('inkposts.com');
  await userEvent.click(screen.getByRole('button', { name: 'See who holds them' }));
  const [wish] = onBegin.mock.calls[0] as [{ full_names: string[] }];
  expect([wish.full_names.length, wish.full_names[0]]).toEqual([11, 'incpost.com']);
  await userEvent.click(screen.getByRole('button', { name: 'All 11' }));
  expect(screen.getAllByRole('listitem')).toHaveLength(11);
});

it('says what is not known', async () => {
  show({ ...FOUND, shares: { whole: 0.2, taken: 0, parked: 0, free: 0, unknown: 0.2 } });
  expect(await screen.findByText(/With whom they land is not known yet/)).toBeInTheDocument();
});

it('says where nothing can be told', async () => {
  show({ ...FOUND, mistypes: [] });
  expect(await screen.findByText('Nothing is known of how this name is mistyped.')).toBeInTheDocument();
});
