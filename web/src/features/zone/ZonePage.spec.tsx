import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { beforeEach, expect, it } from 'vitest';

import type { Zone, ZoneRecord } from '../../shared/api';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { reduce, recordsOf } from './useDraft';
import { ZonePage } from './ZonePage';

const record = (name: string, kind: string, data: string): ZoneRecord => ({ name, kind, ttl: 3600, data });
const SITE = record('@', 'A', '192.0.2.10');
const zone = (fields: Partial<Zone> = {}): Zone => ({
  id: 5,
  full_name: 'inkpost.com',
  shown: 'inkpost.com',
  kinds: ['A', 'CNAME', 'TXT'],
  usual_ttl: 3600,
  hosts: ['ns1.host.example', 'ns2.host.example'],
  servers: ['ns1.host.example', 'ns2.host.example'],
  can_point: true,
  edition: 2,
  answering: true,
  current: true,
  published_at: '2026-11-30T10:00:00Z',
  trouble: '',
  proof: null,
  records: [SITE],
  remarks: [],
  past: [],
  looked: [],
  looked_at: null,
  ready: [
    {
      code: 'site',
      title: 'A site at an address',
      about: 'The name leads to a server.',
      asks: [{ code: 'addresses', title: 'Addresses', example: '192.0.2.10', needed: true }],
    },
  ],
  ...fields,
});
const STALE = { status: 409, body: { code: 'changed_elsewhere', message: 'Changed.', problems: [] } };

function setUp(shown: Zone, answer: (method: string, path: string) => Answer | undefined = () => undefined) {
  const requests = serve((method, path, body) => {
    const special = answer(method, path);
    if (special) return special;
    if (path.endsWith('/judge')) return { body: { remarks: [] } };
    if (method === 'PUT')
      return { body: { ...shown, records: (body as { records: ZoneRecord[] }).records, edition: 3, current: true } };
    return { body: shown };
  });
  renderIn(
    <Routes>
      <Route path="owned/:id/zone" element={<ZonePage />} />
    </Routes>,
    '/owned/5/zone',
  );
  return requests;
}
const at = (label: string, place: number): HTMLElement => screen.getAllByLabelText(label)[place] ?? document.body;
const sent = (requests: ReturnType<typeof serve>, method: string, end: string) =>
  requests.filter((r) => r.method === method && r.path.endsWith(end)).map((r) => r.body);

beforeEach(() => sessionStorage.clear());

it('puts what was typed into force, and takes steps back', async () => {
  const requests = setUp(zone());
  const put = await screen.findByRole('button', { name: 'Put it into force' });
  expect(put).toBeDisabled();
  expect(screen.getByText(/In force since/)).toBeVisible();
  await userEvent.click(screen.getByRole('button', { name: 'Add a record' }));
  await userEvent.type(at('What it says', 1), '192.0.2.11');
  await userEvent.type(at('Name', 1), 'shop');
  // Each cell is one step; the row came by another.
  await userEvent.click(screen.getByRole('button', { name: 'Undo' }));
  expect(screen.getAllByLabelText('Name')[1]).toHaveValue('');
  expect(screen.getAllByLabelText('What it says')[1]).toHaveValue('192.0.2.11');
  await userEvent.click(screen.getByRole('button', { name: 'Redo' }));
  await userEvent.click(put);
  await waitFor(() =>
    expect(sent(requests, 'PUT', '/zone')).toEqual([
      { edition: 2, records: [SITE, record('shop', 'A', '192.0.2.11')] },
    ]),
  );
  expect(await screen.findByText(/In force since/)).toBeVisible();
});

it('tells what is wrong at its record, and lets nothing of it into force', async () => {
  const remark = { place: 0, field: 'data', wrong: true, message: 'That is no address.' };
  setUp(zone(), (_method, path) => (path.endsWith('/judge') ? { body: { remarks: [remark] } } : undefined));
  await userEvent.type(await screen.findByLabelText('What it says'), '9');
  expect(await screen.findByText('That is no address.')).toBeVisible();
  expect(screen.getByLabelText('What it says')).toHaveAccessibleDescription('That is no address.');
  expect(screen.getByText('One thing has to be mended first.')).toBeVisible();
  expect(screen.getByRole('button', { name: 'Put it into force' })).toBeDisabled();
});

it('keeps what was typed for whoever comes back', async () => {
  setUp(zone());
  await userEvent.type(await screen.findByLabelText('What it says'), '9');
  expect(JSON.parse(sessionStorage.getItem('vinetag.zone.5') ?? '')).toMatchObject({ edition: 2 });
  document.body.innerHTML = '';
  setUp(zone());
  expect(await screen.findByLabelText('What it says')).toHaveValue('192.0.2.109');
});

it('fills a ready-made set in, and tells what went for it', async () => {
  const gone = [record('www', 'CNAME', 'old.example')];
  const requests = setUp(zone(), (_method, path) =>
    path.endsWith('/ready') ? { body: { records: [record('@', 'A', '192.0.2.77')], gone } } : undefined,
  );
  await userEvent.click(await screen.findByRole('button', { name: 'I want …' }));
  await userEvent.click(screen.getByRole('menuitem', { name: 'A site at an address' }));
  const dialog = within(screen.getByRole('dialog'));
  await userEvent.type(dialog.getByLabelText('Addresses'), '192.0.2.77');
  await userEvent.click(dialog.getByRole('button', { name: 'Put the records in' }));
  expect(sent(requests, 'POST', '/ready')).toEqual([
    { set: 'site', given: { addresses: '192.0.2.77' }, records: [SITE] },
  ]);
  expect(await screen.findByText(/One record went for it: www CNAME/)).toBeVisible();
  expect(screen.getByLabelText('What it says')).toHaveValue('192.0.2.77');
});

it('reads a master file line by line before anything is taken from it', async () => {
  const read = {
    records: [SITE, record('mail', 'A', '192.0.2.12')],
    problems: [{ where: 'line 3', message: 'That is no record.' }],
    wrong: 1,
    left_out: 2,
  };
  setUp(zone(), (_method, path) => (path.endsWith('/master') ? { body: read } : undefined));
  await userEvent.click(await screen.findByRole('button', { name: 'Read a master file …' }));
  const dialog = within(screen.getByRole('dialog'));
  await userEvent.upload(dialog.getByLabelText('A master file'), new File(['@ A 192.0.2.10'], 'a.zone'));
  expect(await dialog.findByText('line 3: That is no record.')).toBeVisible();
  await userEvent.click(dialog.getByRole('button', { name: 'Put them beside' }));
  // What is there already is not there twice.
  expect(screen.getAllByLabelText('What it says').map((e) => (e as HTMLInputElement).value)).toEqual([
    '192.0.2.10',
    '192.0.2.12',
  ]);
});

it('shows both where somebody else changed the records meanwhile', async () => {
  const theirs = zone({ edition: 7, records: [record('@', 'A', '192.0.2.99')] });
  let stale = true;
  let come = (): void => undefined;
  const after = new Promise<void>((done) => (come = done));
  const requests = setUp(zone(), (method) => {
    if (method === 'PUT' && stale) return STALE;
    return method === 'GET' && sent(requests, 'PUT', '/zone').length ? { body: theirs, after } : undefined;
  });
  await userEvent.type(await screen.findByLabelText('What it says'), '9');
  await userEvent.click(screen.getByRole('button', { name: 'Put it into force' }));
  const mine = await screen.findByRole('button', { name: 'Keep mine' });
  // Not before it is known what the others are.
  expect(mine).toBeDisabled();
  come();
  await waitFor(() => expect(mine).toBeEnabled());
  stale = false;
  await userEvent.click(mine);
  await waitFor(() => expect(sent(requests, 'PUT', '/zone')).toHaveLength(2));
  expect(sent(requests, 'PUT', '/zone')[1]).toEqual({ edition: 7, records: [record('@', 'A', '192.0.2.109')] });
});

it('points the name to the servers that have its records, and says what the world sees', async () => {
  const looked = zone({
    looked_at: '2026-11-30T10:00:00Z',
    looked: [{ code: 'elsewhere', standing: 'wrong', text: 'The registry sends the world elsewhere.' }],
  });
  let known = false;
  const requests = setUp(zone({ servers: ['ns1.other.example', 'ns2.other.example'] }), (_method, path) => {
    if (path === '/api/owned/servers') return { body: { count: 1, failed: [] } };
    known ||= path.endsWith('/look');
    return known ? { body: looked } : undefined;
  });
  await userEvent.click(await screen.findByRole('button', { name: 'Point it here' }));
  await waitFor(() => {
    expect(sent(requests, 'POST', '/servers')).toEqual([{ ids: [5], servers: zone().hosts }]);
  });
  await userEvent.click(screen.getByRole('button', { name: 'See what the world sees' }));
  expect(await screen.findByText('The registry sends the world elsewhere.')).toBeVisible();
  expect(screen.getByText('wrong:')).toBeInTheDocument();
});

it('says what shows that a name is yours, and what was in force before can be had back', async () => {
  const past = [{ at: '2026-11-29T10:00:00Z', records: [record('@', 'A', '192.0.2.1')] }];
  const proof = { name: '_vine-tag.inkpost.com', text: 'vine-tag=1' };
  setUp(zone({ trouble: 'It is not known yet.', proof, past, can_point: false, servers: [] }));
  expect(await screen.findByText('vine-tag=1')).toBeVisible();
  expect(screen.getByText(/set them at its seller/)).toBeVisible();
  await userEvent.click(screen.getByRole('button', { name: 'What was in force before …' }));
  await userEvent.click(screen.getByRole('menuitem', { name: /one record/ }));
  expect(screen.getByLabelText('What it says')).toHaveValue('192.0.2.1');
});

it('shows the keys the registry names once they are asked for, and has it name others', async () => {
  const wrong = { path: 'keys.0', code: 'signer_form', message: 'That is no key.' };
  let refuse = true;
  const requests = setUp(zone(), (method, path) => {
    if (!path.endsWith('/keys')) return undefined;
    if (method === 'GET') return { body: { keys: ['1 13 2 AB'] } };
    return refuse
      ? { status: 400, body: { code: 'refused', message: 'No.', problems: [wrong] } }
      : { body: { count: 1, failed: [] } };
  });
  await userEvent.click(await screen.findByRole('button', { name: 'Its keys (DNSSEC) …' }));
  const field = await screen.findByLabelText('Keys, one a line');
  expect(field).toHaveValue('1 13 2 AB');
  await userEvent.clear(field);
  await userEvent.click(screen.getByRole('button', { name: 'Have the registry name these' }));
  expect(await screen.findByText('That is no key.')).toBeVisible();
  refuse = false;
  await userEvent.click(screen.getByRole('button', { name: 'Have the registry name these' }));
  expect(await screen.findByText('The registry names these keys now.')).toBeVisible();
  expect(sent(requests, 'PUT', '/keys')).toEqual([{ keys: [''] }, { keys: [''] }]);
});

it('hears its keys, and leaves those of a dialog alone', async () => {
  const requests = setUp(zone());
  await userEvent.type(await screen.findByLabelText('What it says'), '9');
  await userEvent.keyboard('{Control>}z{/Control}');
  expect(screen.getByLabelText('What it says')).toHaveValue('192.0.2.10');
  await userEvent.keyboard('{Control>}y{/Control}');
  expect(screen.getByLabelText('What it says')).toHaveValue('192.0.2.109');
  await userEvent.click(screen.getByRole('button', { name: 'Read a master file …' }));
  await userEvent.type(screen.getByLabelText('The file (RFC 1035)'), 'x{Control>}z{/Control}{Control>}s{/Control}');
  await userEvent.click(screen.getByRole('button', { name: 'Cancel' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  expect(screen.getByLabelText('What it says')).toHaveValue('192.0.2.109');
  expect(sent(requests, 'PUT', '/zone')).toEqual([]);
  screen.getByLabelText('What it says').focus();
  await userEvent.keyboard('{Control>}s{/Control}');
  await waitFor(() => expect(sent(requests, 'PUT', '/zone')).toHaveLength(1));
  await waitFor(() => expect(screen.getByRole('button', { name: 'Put it into force' })).toBeDisabled());
  expect(await screen.findByText(/^In force since/)).toBeVisible();
  // What is in force is not put once more.
  await userEvent.keyboard('{Control>}s{/Control}');
  expect(sent(requests, 'PUT', '/zone')).toHaveLength(1);
});

it('takes any number of steps back and forth', () => {
  let draft = { rows: [], past: [], future: [], cell: '' } as Parameters<typeof reduce>[0];
  for (let n = 0; n < 3; n += 1) draft = reduce(draft, { kind: 'put', records: Array<ZoneRecord>(n + 1).fill(SITE) });
  for (const left of [2, 1, 0, 0]) {
    draft = reduce(draft, { kind: 'undo' });
    expect(recordsOf(draft.rows)).toHaveLength(left);
  }
  for (const there of [1, 2, 3, 3]) {
    draft = reduce(draft, { kind: 'redo' });
    expect(draft.rows).toHaveLength(there);
  }
  draft = reduce(draft, { kind: 'drop', key: draft.rows[0]?.key ?? 0 });
  expect([draft.rows.length, draft.future.length]).toEqual([2, 0]);
});
