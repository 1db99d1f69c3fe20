import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { expect, it } from 'vitest';

import type { Registers, VettingReport } from '../../shared/api';
import { ProjectContext } from '../../shared/lib/projectContext';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { sampleBrief, sampleProject } from '../../shared/testing/samples';
import { sampleReport, sampleRun, sampleVetted } from '../../shared/testing/vetting';
import { VettingPage } from './VettingPage';
import { VettingPaper } from './VettingPaper';

const project = sampleProject({ brief: sampleBrief({ extensions: ['com', 'ie'] }) });
const base = `/api/projects/${project.id}`;
const REGISTERS: Registers = { may_edit: false, marks: 6_000, files: [] };

function show(
  report: VettingReport = sampleReport(),
  address = '/',
  act: (method: string, path: string, body: unknown) => Answer | undefined = () => undefined,
) {
  const requests = serve((method, path, body) => {
    const own = act(method, path, body);
    if (own) return own;
    if (path === `${base}/vetting` && method === 'GET') return { body: report };
    if (path.startsWith(`${base}/names/`) && method === 'GET')
      return {
        body: sampleVetted(
          path.includes('quietpress') ? { label: 'quietpress', full_name: 'quietpress.ie', kinds: [] } : {},
        ),
      };
    if (path === '/api/marks') return { body: REGISTERS };
    if (path === '/api/extensions') return { body: { countries: [{ code: 'DE', name: 'Germany' }], extensions: [] } };
    return { status: 201, body: sampleRun({ state: 'queued', done: 0, left: 7 }) };
  });
  renderIn(
    <ProjectContext value={project}>
      <Routes>
        <Route path="/" element={<VettingPage />} />
        <Route path="/paper" element={<VettingPaper />} />
      </Routes>
    </ProjectContext>,
    address,
  );
  return requests;
}

it('shows names by kinds of finding, and the worst with its evidence', async () => {
  show();
  const table = await screen.findByRole('table', { name: 'Findings' });
  const [, first, second] = within(table).getAllByRole('row');
  expect(first).toHaveTextContent(/^inkpost.comStop–/);
  expect(
    within(first as HTMLElement).getByRole('button', { name: 'Said and written of inkpost.com: Clear, old' }),
  ).toBeInTheDocument();
  expect(within(second as HTMLElement).getAllByText('not vetted')).toHaveLength(7);
  const marks = await screen.findByRole('region', { name: 'Marks' });
  expect(marks).toHaveTextContent('Have the likeness judged.');
  expect(marks).toHaveTextContent('ingk-pohst');
  // The letters that are alike are set off.
  expect([...marks.querySelectorAll('mark')].map((m) => m.textContent)).toEqual(['Inkpo', 'st']);
  const handles = screen.getByRole('table', { name: 'Handles on platforms' });
  expect(within(handles).getAllByRole('row')[2]).toHaveTextContent('Copperlinenot knownnot asked');
  // The worst kind stands first.
  expect(screen.getAllByRole('heading', { level: 3 }).map((h) => h.textContent)[0]).toBe('Marks');
  const all = screen.getByRole('table', { name: 'Platforms by names', hidden: true });
  expect(within(all).getAllByRole('row', { hidden: true })[1]).toHaveTextContent(/^Larkwiretaken$/);
  expect(screen.getByText(/None of this is legal advice/)).toBeInTheDocument();
});

it('vets the shortlist, tells how far it is, and stops', async () => {
  let run = sampleRun({ state: 'running', done: 2, left: 5 });
  const requests = show(sampleReport(), '/', (method, path) => {
    if (path === `${base}/vetting` && method === 'GET' && requests.some((r) => r.method === 'POST'))
      return { body: sampleReport({ run }) };
    if (path.endsWith('/stop')) {
      run = sampleRun({ state: 'stopped', done: 3, left: 4 });
      return { body: run };
    }
    return undefined;
  });
  await userEvent.click(await screen.findByRole('button', { name: 'Vet 2 names' }));
  expect(requests.find((r) => r.method === 'POST')?.body).toEqual({ again: 'old' });
  expect(await screen.findByText('2 of 7 steps')).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Stop' }));
  expect(await screen.findByRole('button', { name: 'Go on with 4' })).toBeInTheDocument();
});

it('offers to find everything out again where all is fresh', async () => {
  const requests = show(sampleReport(), '/', (method, path, body) =>
    method === 'POST' && path === `${base}/vetting` && (body as { again: string }).again === 'old'
      ? { status: 409, body: { code: 'fresh', message: 'All of it was found out lately.', problems: [] } }
      : undefined,
  );
  await userEvent.click(await screen.findByRole('button', { name: 'Vet 2 names' }));
  await userEvent.click(await screen.findByRole('button', { name: 'Vet all of it again' }));
  await waitFor(() => expect(requests.at(-1)?.method).toBe('GET'));
  expect(requests.filter((r) => r.method === 'POST').at(-1)?.body).toEqual({ again: 'all' });
});

it('shows what is known of a typed name already', async () => {
  const requests = show(sampleReport({ names: [] }), '/', (method) =>
    method === 'POST' && requests.filter((r) => r.method === 'POST').length === 1
      ? { status: 409, body: { code: 'fresh', message: 'All of it was found out lately.', problems: [] } }
      : undefined,
  );
  await userEvent.type(await screen.findByRole('textbox', { name: 'Another name' }), 'quietpress.ie{Enter}');
  expect(await screen.findByRole('heading', { name: 'quietpress.ie' })).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Vet all of it again' }));
  expect(requests.filter((r) => r.method === 'POST').at(-1)?.body).toEqual({ again: 'all', names: ['quietpress.ie'] });
});

it('has what was found accepted with a reason, and taken back', async () => {
  const requests = show();
  await userEvent.click(await screen.findByRole('button', { name: 'Accept what was found: Marks' }));
  await userEvent.type(screen.getByRole('textbox', { name: 'Why it is accepted' }), 'They sell jam.');
  await userEvent.click(screen.getByRole('button', { name: 'Accept' }));
  await waitFor(() => expect(requests.some((r) => r.method === 'PUT')).toBe(true));
  const put = requests.find((r) => r.method === 'PUT');
  expect(put?.path).toBe(`${base}/names/inkpost/vetting/marks`);
  expect(put?.body).toEqual({ accepted: true, note: 'They sell jam.', sign: 'a1' });
  // What is clear needs no accepting.
  expect(screen.queryByRole('button', { name: 'Accept what was found: Said and written' })).toBeNull();
});

it('keeps what was written where it says something else by now, and shows that', async () => {
  const message = 'It was found out again meanwhile, and says something else. Look at it once more.';
  const requests = show(sampleReport(), '/', (method) =>
    method === 'PUT' ? { status: 409, body: { code: 'finding_changed', message, problems: [] } } : undefined,
  );
  await userEvent.click(await screen.findByRole('button', { name: 'Accept what was found: Marks' }));
  const why = screen.getByRole('textbox', { name: 'Why it is accepted' });
  await userEvent.type(why, 'They sell jam.{Enter}');
  expect(await screen.findByRole('alert')).toHaveTextContent(message);
  expect(why).toHaveValue('They sell jam.');
  const asked = () => requests.filter((r) => r.method === 'GET' && r.path.endsWith('/names/inkpost/vetting')).length;
  await waitFor(() => expect(asked()).toBeGreaterThan(1));
});

it('vets any typed name, and says what is wrong with one', async () => {
  const requests = show(sampleReport({ names: [] }), '/', (method, _path, body) =>
    method === 'POST' && (body as { names: string[] }).names[0] === 'ink post!'
      ? {
          status: 400,
          body: {
            code: 'refused',
            message: 'Some of this needs another look.',
            problems: [{ path: 'names.0', code: 'label_character', message: 'A name cannot contain “!”.', args: {} }],
          },
        }
      : undefined,
  );
  expect(await screen.findByText('Nothing to vet yet')).toBeInTheDocument();
  const field = screen.getByRole('textbox', { name: 'Another name' });
  await userEvent.type(field, 'ink post!{Enter}');
  expect(await screen.findByText('A name cannot contain “!”.')).toBeInTheDocument();
  expect(field).toHaveValue('ink post!');
  await userEvent.clear(field);
  await userEvent.type(field, 'Quietpress.ie{Enter}');
  expect(requests.filter((r) => r.method === 'POST').at(-1)?.body).toEqual({ again: 'old', names: ['Quietpress.ie'] });
  expect(await screen.findByRole('heading', { name: 'quietpress.ie' })).toBeInTheDocument();
});

it('leads into the plan with what is worth holding', async () => {
  show();
  const link = await screen.findByRole('link', { name: 'Into the plan with these 2 names' });
  expect(link).toHaveAttribute('href', `/projects/${project.id}/plan?also=incpost.com%2Cinkpost.net`);
});

it('changes what names are vetted for', async () => {
  const requests = show(sampleReport({ classes_proposed: false }), '/', (method) =>
    method === 'PATCH' ? { body: { ...project, not_taken: [] } } : undefined,
  );
  await userEvent.click(await screen.findByRole('button', { name: 'As proposed' }));
  await waitFor(() => expect(requests.some((r) => r.method === 'PATCH')).toBe(true));
  expect(requests.find((r) => r.method === 'PATCH')?.body).toMatchObject({
    brief: { classes: [], extensions: ['com', 'ie'] },
    seen: { version: project.version },
  });
});

it('is made for paper', async () => {
  show(sampleReport(), '/paper');
  expect(await screen.findByRole('heading', { name: 'inkpost.com' })).toBeInTheDocument();
  expect(screen.getByText(/sounds the same as inkpost/)).toBeInTheDocument();
  expect(screen.getByText('Not vetted yet.')).toBeInTheDocument();
});

it('says why the findings could not be loaded', async () => {
  show(sampleReport(), '/', (_method, path) =>
    path === `${base}/vetting`
      ? { status: 500, body: { code: 'broken', message: 'It broke.', problems: [] } }
      : undefined,
  );
  expect(await screen.findByText('The findings could not be loaded')).toBeInTheDocument();
});
