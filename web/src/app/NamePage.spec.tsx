import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { expect, it } from 'vitest';

import type { Judged } from '../shared/api';
import { ProjectContext } from '../shared/lib/projectContext';
import { type Answer, renderIn, serve } from '../shared/testing/render';
import { sampleCell, sampleJudged, sampleProject } from '../shared/testing/samples';
import { NamePage } from './NamePage';

const AT = '2026-11-20T10:00:00Z';
function setUp(name: Partial<Judged>, answer?: Answer) {
  const requests = serve((method, path) => {
    if (method === 'PATCH') return { body: { extension: 'com' } };
    if (path.endsWith('/near')) return { body: { rows: [], total: 0 } };
    if (path.endsWith('/mistypes'))
      return { body: { extension: 'com', mistypes: [], shares: { whole: 0, taken: 0, free: 0, unknown: 0 } } };
    if (path.endsWith('/checks')) return { body: { check_run: null, cells: [], number: 0, more: false } };
    if (path.endsWith('/shortlist')) return { body: [] };
    return answer ?? { body: sampleJudged({ label: 'inkpost', ...name }) };
  });
  renderIn(
    <ProjectContext value={sampleProject()}>
      <Routes>
        <Route path="names/:label" element={<NamePage />} />
      </Routes>
    </ProjectContext>,
    '/names/inkpost',
  );
  return requests;
}

it('tells who holds the name by the public record, and what was found out when', async () => {
  setUp({
    cells: [sampleCell({ extension: 'com', status: 'taken', asked_at: AT })],
    evidence: [
      {
        extension: 'com',
        source: 'rdap',
        text: 'Registry (RDAP) has it registered.',
        at: AT,
        earlier: false,
        imported: false,
        address: '',
        detail: '',
        registrar: '',
        holder: 'Ana Soto',
        record: ['Held by Ana Soto.', 'Paid for until 1 March 2027.'],
        statuses: [],
      },
    ],
    history: [{ extension: 'com', status: 'open', likely: false, reason: '', asked_at: '2026-11-01T10:00:00Z' }],
  });
  const held = await screen.findByRole('region', { name: 'Who holds it' });
  expect(held).toHaveTextContent('inkpost.com');
  expect(held).toHaveTextContent('Held by Ana Soto. Paid for until 1 March 2027.');
  const told = within(screen.getByRole('list', { name: 'What was found out' }))
    .getAllByRole('listitem')
    .map((item) => item.textContent.slice(0, 9));
  expect(told).toEqual(['.comtaken', '.comopenN']);
  expect(screen.getByText(/Keep it to write a note/)).toBeInTheDocument();
});

it('shows where a kept name stands, with its note and tags', async () => {
  setUp({ kept: true, place: 2, note: 'the favourite', tags: ['short'] });
  expect(await screen.findByText(/Number 2 on the/)).toBeInTheDocument();
  expect(screen.getByLabelText('Note on inkpost')).toHaveValue('the favourite');
  expect(screen.getByText('short')).toBeInTheDocument();
});

it('keeps a name as a full name', async () => {
  const requests = setUp({ kept: true });
  expect(await screen.findByRole('heading', { level: 1 })).toHaveTextContent('inkpost.com');
  await userEvent.click(screen.getByRole('combobox', { name: 'Kept as' }));
  await userEvent.click(await screen.findByRole('option', { name: 'inkpost.com' }));
  await waitFor(() => {
    expect(requests.find((a) => a.method === 'PATCH')).toMatchObject({
      path: '/api/projects/7/shortlist/names/inkpost',
      body: { extension: 'com' },
    });
  });
});

it('says why an address holds no name', async () => {
  setUp(
    {},
    {
      status: 400,
      body: {
        code: 'problems',
        message: 'Look again.',
        problems: [{ path: 'label', code: 'x', message: 'A name cannot contain “!”.' }],
      },
    },
  );
  expect(await screen.findByText('A name cannot contain “!”.')).toBeInTheDocument();
});
