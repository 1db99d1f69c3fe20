import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';

import type { Cell } from '../../shared/api';
import { renderIn, serve } from '../../shared/testing/render';
import { sampleCell, sampleJudged, sampleRow } from '../../shared/testing/samples';
import { Origin, ReasonsPanel, type View } from './ReasonsPanel';

const cell = (extension: string, fields: Partial<Cell>) => sampleCell({ extension, ...fields });
const said = (extension: string, source: string, text: string) => ({
  extension,
  source,
  text,
  at: new Date().toISOString(),
  earlier: false,
  imported: false,
  address: '',
  detail: '',
  registrar: '',
  holder: '',
  record: [],
  statuses: [],
});
const name = sampleJudged({
  label: 'inkpost',
  grade: 91.4,
  recipes: ['pair', 'tail'],
  parts: [
    { text: 'ink', kind: 'keyword', keyword: 'ink', start: 0, change: null },
    {
      text: 'post',
      kind: 'respell',
      keyword: 'post',
      start: 3,
      change: { code: 'respelt', args: {}, message: 'posst with st for sst' },
    },
  ],
  measures: [
    {
      name: 'length',
      score: 100,
      weight: 0.33,
      reasons: [{ text: '7 letters.', points: 0, start: 0, end: 7 }],
    },
    {
      name: 'fit',
      score: null,
      weight: 0,
      reasons: [
        {
          text: 'Not graded, because the brief has no words to compare it with.',
          points: 0,
          start: 0,
          end: 7,
        },
      ],
    },
    {
      name: 'spelling',
      score: 83,
      weight: 0.33,
      reasons: [{ text: '“ink” sounds like “inc”.', points: -17, start: 0, end: 3 }],
    },
  ],
  warnings: [{ code: 'homophone', text: '“ink” sounds like “inc”.', start: 0, end: 3 }],
  misspellings: [
    { label: 'incpost', share: 0.436 },
    { label: 'inkepost', share: 0.001 },
  ],
  kept: false,
  cells: [
    cell('com', { status: 'taken', registered: '2004-03-01T00:00:00Z', expires: '2027-03-01T00:00:00Z' }),
    cell('net', {}),
    cell('org', { status: 'unsure', reason: 'The look-up service did not answer in time. Try again.' }),
    cell('io', {}),
    cell('shop', { status: 'waiting', pending: true, asked_at: null }),
  ],
  evidence: [said('com', 'dns', 'Name servers (DNS) know it, so it is registered.')],
});
const acts = {
  onKeep: vi.fn(),
  onCheck: vi.fn(),
  onSelect: vi.fn(),
  onView: vi.fn(),
  onBegin: vi.fn(),
  onFallback: vi.fn(),
};

function show(label: string | null = 'inkpost', view: View = 'reasons', status = 200) {
  const near = { total: 1, rows: [sampleRow({ label: 'postink', grade: 84, starts: [0, 4] })] };
  serve((_method, path) => ({
    status,
    body: path.endsWith('/quick')
      ? [sampleCell({ extension: 'com', status: 'taken', label: 'quietsky' })]
      : status >= 400
        ? { code: 'problems', message: 'Look again.', problems: [] }
        : path.endsWith('/near')
          ? near
          : /quietsky/.test(path)
            ? { ...name, label: 'quietsky', typed_extension: path.includes('.ie') ? 'ie' : '' }
            : name,
  }));
  renderIn(
    <ReasonsPanel
      projectId={7}
      label={label}
      extensions={['com', 'net', 'org', 'shop', 'press']}
      checking={false}
      fallback={['exact_first', 'exact_next']}
      view={view}
      {...acts}
    />,
  );
}

describe('ReasonsPanel', () => {
  it('tells once what was done to two parts at once', () => {
    const change = {
      code: 'blend',
      args: { first: 'honey', second: 'yard', letters: 'y' },
      message: 'blend of honey and yard, sharing y',
    };
    const part = { kind: 'blend', keyword: 'honey', change };
    renderIn(
      <Origin
        name={{
          ...name,
          recipes: ['blend'],
          parts: [
            { ...part, text: 'hone', start: 0 },
            { ...part, text: 'yard', keyword: '', start: 4 },
          ],
        }}
      />,
    );
    expect(screen.getByText(/made by blend/)).toHaveTextContent(
      /^hone \+ yard \(blend of honey and yard, sharing y\) · made by blend$/,
    );
  });

  it('tells a form of a word of yours from the word', () => {
    const part = { kind: 'keyword', keyword: 'tuning', change: null };
    renderIn(
      <Origin
        name={{
          ...name,
          recipes: ['pair'],
          parts: [
            { ...part, text: 'piano', keyword: 'piano', start: 0 },
            { ...part, text: 'tuner', start: 5 },
          ],
        }}
      />,
    );
    expect(screen.getByText(/made by pair/)).toHaveTextContent('piano (your word) + tuner (of your word tuning)');
  });

  it('says where the name comes from, and why it has its grade', async () => {
    show();
    expect(await screen.findByRole('heading', { name: /^ink ?post ?\.com$/ })).toBeInTheDocument();
    expect(screen.getByText('91')).toBeInTheDocument();
    expect(screen.getByText(/made by pair, tail/)).toHaveTextContent('ink (your word) + post (posst with st for sst)');
    const measures = within(screen.getByRole('list', { name: 'Measures' }));
    expect(measures.getByText('−17')).toBeInTheDocument();
    expect(measures.getByText('ink', { selector: 'mark' })).toBeInTheDocument();
    expect(measures.getByText('Not graded, because the brief has no words to compare it with.')).toBeInTheDocument();
    expect(measures.getByRole('link', { name: 'Keyword fit' })).toHaveAttribute('href', '/measures#fit');
  });

  it('warns, and says what would be written instead', async () => {
    show();
    expect(await screen.findByRole('list', { name: 'Warnings' })).toHaveTextContent('“ink” sounds like “inc”.');
    const wrong = within(screen.getByRole('list', { name: 'Likely misspellings' }));
    expect(wrong.getAllByRole('listitem').map((item) => item.textContent)).toEqual([
      'incpost44 in 100',
      'inkepostunder 1 in 100',
    ]);
    await userEvent.click(wrong.getByTitle('See why: incpost'));
    expect(acts.onSelect).toHaveBeenCalledWith('incpost');
  });

  it('gives each status its evidence, and never calls a failure open or taken', async () => {
    show();
    const rows = (await within(await screen.findByRole('list', { name: 'Statuses' })).findAllByRole('listitem')).map(
      (row) => row.textContent,
    );
    expect(rows[0]).toContain('takenjust nowRegistered Mar 1, 2004. Expires Mar 1, 2027. Who says so');
    expect(rows[2]).toContain('unsurejust nowThe look-up service did not answer in time.');
    expect(rows[2]).not.toMatch(/open|taken/);
    expect(rows[3]).toContain('waiting');
    expect(rows[4]).toBe('.pressnot asked');
  });

  it('keeps, checks, and turns to near names', async () => {
    show();
    await userEvent.click(await screen.findByRole('button', { name: 'Keep' }));
    expect(acts.onKeep).toHaveBeenCalledWith('inkpost', true);
    await userEvent.click(screen.getByRole('button', { name: 'Check this name' }));
    expect(acts.onCheck).toHaveBeenCalledWith(['inkpost']);
    await userEvent.click(screen.getByRole('button', { name: 'Vary' }));
    expect(acts.onView).toHaveBeenCalledWith('near');
  });

  it('lists near names, each to keep, to look at, and all to check', async () => {
    show('inkpost', 'near');
    const near = within(await screen.findByRole('list', { name: 'Near names' }));
    await userEvent.click(near.getByTitle('See why: postink'));
    expect(acts.onSelect).toHaveBeenCalledWith('postink');
    await userEvent.click(near.getByRole('button', { name: 'Keep postink' }));
    expect(acts.onKeep).toHaveBeenCalledWith('postink', true);
    await userEvent.click(screen.getByRole('button', { name: 'Check them' }));
    expect(acts.onCheck).toHaveBeenCalledWith(['postink']);
  });

  it('grades any name while it is typed, and shows why on Enter', async () => {
    show(null);
    expect(screen.getByText('No name chosen')).toBeInTheDocument();
    await userEvent.type(screen.getByLabelText('Try any name'), '  QuietSky ');
    expect(await screen.findByText('91')).toBeInTheDocument();
    const statuses = await screen.findByRole('status', { name: 'Statuses of quietsky' });
    await waitFor(() => {
      expect(statuses).toHaveTextContent('.com taken');
    });
    await userEvent.type(screen.getByLabelText('Try any name'), '{Enter}');
    await waitFor(() => {
      expect(acts.onSelect).toHaveBeenCalledWith('quietsky');
    });
    await waitFor(() => {
      expect(screen.getByLabelText('Try any name')).toHaveValue('');
    });
  });

  it('takes a full name, and looks it up under its own extension first', async () => {
    show(null);
    await userEvent.type(screen.getByLabelText('Try any name'), 'quietsky.ie');
    expect(await screen.findByRole('status', { name: 'Statuses of quietsky.ie' })).toHaveTextContent(/^\.ie /);
  });

  it('keeps what was typed, with the reason, when Enter is pressed on what is no name', async () => {
    acts.onSelect.mockClear();
    show(null, 'reasons', 400);
    await userEvent.type(screen.getByLabelText('Try any name'), 'ink post!{Enter}');
    expect(await screen.findByRole('alert')).toHaveTextContent('Look again.');
    expect(screen.getByLabelText('Try any name')).toHaveValue('ink post!');
    expect(acts.onSelect).not.toHaveBeenCalled();
  });

  it('says at once what is wrong with a typed name', async () => {
    show(null, 'reasons', 400);
    await userEvent.type(screen.getByLabelText('Try any name'), '-ink');
    expect(await screen.findByText('Look again.')).toBeInTheDocument();
    expect(screen.getByLabelText('Try any name')).toBeInvalid();
  });

  it('says why a name cannot be looked at', async () => {
    show('-ink', 'reasons', 400);
    expect(await screen.findByRole('alert')).toHaveTextContent('Look again.');
  });

  it('says who says so, and shows the extensions beyond the brief when asked', async () => {
    show();
    await userEvent.click(await screen.findByRole('button', { name: 'Who says so' }));
    expect(screen.getByText(/Name servers \(DNS\) know it/)).toBeInTheDocument();
    expect(screen.queryByText('.io')).not.toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: '1 other extension, 1 open' }));
    expect(screen.getByText('.io')).toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: 'Everywhere' }));
    expect(acts.onBegin).toHaveBeenCalledWith({ what: 'labels', labels: ['inkpost'], everywhere: true });
  });
});
