import { render, screen, within } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { expect, it } from 'vitest';

import type { Judged } from '../../shared/api';
import { sampleJudged } from '../../shared/testing/samples';
import { MARK, sampleGlance, sampleReport } from '../../shared/testing/vetting';
import { AllHandles } from './AllHandles';
import { Vetted } from './Vetted';

const show = (name: Partial<Judged>) =>
  render(
    <MemoryRouter>
      <Vetted projectId={4} name={sampleJudged({ label: 'inkpost', extension: 'ie', ...name })} />
    </MemoryRouter>,
  );

it('offers to vet a name nobody vetted', () => {
  show({ vetted: [] });
  expect(screen.getByText('Not vetted yet.')).toBeInTheDocument();
  expect(screen.getByRole('link', { name: 'Vet it' })).toHaveAttribute('href', '/projects/4/vetting?name=inkpost.ie');
});

it('tells what weighs on it and counts what is clear', () => {
  show({
    extension: '',
    vetted: [
      { ...MARK, accepted: true },
      sampleGlance({ kind: 'handles', weight: 'unknown', text: 'Too few told.', old: true }),
      sampleGlance({ kind: 'said' }),
      sampleGlance({ kind: 'elsewhere' }),
    ],
  });
  const [mark, handles, ...rest] = within(screen.getByRole('list', { name: 'Findings' })).getAllByRole('listitem');
  expect(mark).toHaveTextContent('Stop Marks, accepted“Inkpoast” sounds the same as inkpost.');
  expect(handles).toHaveTextContent(/Unknown.*Handles, oldToo few told\./);
  expect(rest).toEqual([]);
  expect(screen.getByText('2 more are clear.')).toBeInTheDocument();
  expect(screen.getByRole('link', { name: 'With its evidence' })).toHaveAttribute(
    'href',
    '/projects/4/vetting?name=inkpost',
  );
});

it('shows platforms by the names they were asked about', () => {
  const report = sampleReport({
    handles: [
      { platform: 'Larkwire', says: ['taken', 'free'] },
      { platform: 'Copperline', says: ['unknown', ''] },
    ],
  });
  const { rerender } = render(<AllHandles report={report} />);
  const rows = () =>
    within(screen.getByRole('table', { hidden: true }))
      .getAllByRole('row', { hidden: true })
      .map((row) => row.textContent);
  expect(rows()).toEqual(['Platform@inkpost@quietpress', 'Larkwiretakenfree', 'Copperlinenot knownnot asked']);
  // A name nobody asked about has no column.
  rerender(<AllHandles report={{ ...report, handles: [{ platform: 'Larkwire', says: ['', 'barred'] }] }} />);
  expect(rows()).toEqual(['Platform@quietpress', 'Larkwirenot allowed']);
  rerender(<AllHandles report={{ ...report, handles: [] }} />);
  expect(screen.queryByRole('table', { hidden: true })).toBeNull();
});
