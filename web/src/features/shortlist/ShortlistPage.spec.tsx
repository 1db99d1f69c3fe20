import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import { ProjectContext } from '../../shared/lib/projectContext';
import { sampleKept, sampleProject } from '../../shared/testing/samples';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { MARK, sampleGlance, sampleReport } from '../../shared/testing/vetting';
import { ShortlistPage } from './ShortlistPage';

const project = sampleProject();

function setUp(start: string[], act: (method: string, path: string) => Answer | undefined = () => undefined) {
  let labels = start;
  let extension = '';
  const requests = serve((method, path, body) => {
    const answer = act(method, path);
    if (answer) return answer;
    if (path.endsWith('/order')) labels = (body as { labels: string[] }).labels;
    if (method === 'PATCH') extension = (body as { extension: string }).extension;
    const given = (body as { labels?: string[] } | undefined)?.labels ?? [];
    if (path.endsWith('/off')) labels = labels.filter((label) => !given.includes(label));
    else if (method === 'POST') labels = [...labels, ...given];
    return method === 'GET'
      ? { body: labels.map((label) => sampleKept({ label, extension })) }
      : { body: { labels: given } };
  });
  renderIn(
    <ProjectContext value={project}>
      <ShortlistPage />
    </ProjectContext>,
  );
  return requests;
}
const names = () =>
  within(screen.getByRole('list', { name: 'Shortlist' }))
    .getAllByRole('heading')
    .map((h) => h.textContent);

it('changes the order by buttons and by Alt and an arrow', async () => {
  const requests = setUp(['inkpost', 'inkwell', 'inkclub']);
  await userEvent.click(await screen.findByRole('button', { name: 'Move inkclub up' }));
  await waitFor(() => {
    expect(names()).toEqual(['inkpost', 'inkclub', 'inkwell']);
  });
  screen.getByLabelText('Note on inkpost').focus();
  await userEvent.keyboard('{Alt>}{ArrowDown}{/Alt}');
  await waitFor(() => {
    expect(requests.filter((a) => a.method === 'PUT').at(-1)?.body).toEqual({
      labels: ['inkclub', 'inkpost', 'inkwell'],
      seen: { labels: ['inkpost', 'inkclub', 'inkwell'] },
    });
  });
  await waitFor(() => {
    expect(screen.getByRole('button', { name: 'Move inkclub up' })).toBeDisabled();
  });
});

it('draws a name to another place by keys', async () => {
  const requests = setUp(['inkpost', 'inkwell', 'inkclub']);
  // Nothing has a place on a page without a layout: each row is as high as a row, one below the other.
  const box = vi.spyOn(Element.prototype, 'getBoundingClientRect').mockImplementation(function (this: Element) {
    const rows = [...(this.closest('ol')?.querySelectorAll('li') ?? [])].filter((li) => li.querySelector('h2'));
    const at = rows.findIndex((row) => row === this || row.contains(this));
    return new DOMRect(0, Math.max(at, 0) * 100, 400, 90);
  });
  (await screen.findByRole('button', { name: 'Draw inkpost to another place' })).focus();
  await userEvent.keyboard(' ');
  await screen.findByText(/inkpost is (taken up, at|over) place 1 of 3/);
  await userEvent.keyboard('{ArrowDown}');
  await screen.findByText('inkpost is over place 2 of 3.');
  await userEvent.keyboard(' ');
  await waitFor(() => {
    expect(requests.filter((a) => a.method === 'PUT').at(-1)?.body).toMatchObject({
      labels: ['inkwell', 'inkpost', 'inkclub'],
    });
  });
  box.mockRestore();
});

it.each([
  ['Take theirs', ['inkpost', 'inkwell'], 1],
  ['Keep mine', ['inkwell', 'inkpost', 'inkclub'], 2],
] as const)("shows an order given elsewhere beside one's own, and one chooses: %s", async (choice, left, puts) => {
  let refuse = true;
  const current = { labels: ['inkclub', 'inkpost', 'inkwell'] };
  const requests = setUp(['inkpost', 'inkwell'], (method) => {
    if (method !== 'PUT' || !refuse) return undefined;
    refuse = false;
    return { status: 409, body: { code: 'changed_elsewhere', message: 'Changed.', problems: [], current } };
  });
  await userEvent.click(await screen.findByRole('button', { name: 'Move inkwell up' }));
  expect(await screen.findByRole('alert')).toHaveTextContent(
    'here: inkwell, inkpost, inkclubthere: inkclub, inkpost, inkwell',
  );
  expect(names()).toEqual(['inkwell', 'inkpost']);
  await userEvent.click(screen.getByRole('button', { name: choice }));
  await waitFor(() => {
    expect(names()).toEqual(left);
  });
  const sent = requests.filter((a) => a.method === 'PUT').map((a) => a.body);
  expect(sent).toHaveLength(puts);
  if (puts === 2) expect(sent[1]).toEqual({ labels: left, seen: current });
});

it('never writes over tags set elsewhere unasked', async () => {
  let refuse = true;
  const requests = setUp(['inkpost'], (method) => {
    if (method !== 'PATCH' || !refuse) return undefined;
    refuse = false;
    return {
      status: 409,
      body: { code: 'changed_elsewhere', message: 'Changed.', problems: [], current: { tags: ['odd'] } },
    };
  });
  await userEvent.type(await screen.findByLabelText('Tags of inkpost'), 'short{Enter}');
  expect(await screen.findByRole('alert')).toHaveTextContent('here: shortthere: odd');
  await userEvent.click(screen.getByRole('button', { name: 'Keep mine' }));
  await waitFor(() => {
    expect(requests.filter((a) => a.method === 'PATCH').at(-1)?.body).toEqual({
      tags: ['short'],
      seen: { tags: ['odd'] },
    });
  });
});

it('takes a name off, and undoes it', async () => {
  const requests = setUp(['inkpost', 'inkwell']);
  await userEvent.click(await screen.findByRole('button', { name: 'Take inkpost off the shortlist' }));
  await waitFor(() => {
    expect(names()).toEqual(['inkwell']);
  });
  await userEvent.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() => {
    expect(requests.find((a) => a.method === 'POST' && a.path.endsWith('/shortlist'))?.body).toEqual({
      labels: ['inkpost'],
    });
  });
});

it('keeps a full name when an extension is pressed, and the name alone when it is pressed again', async () => {
  const requests = setUp(['inkpost']);
  const statuses = within(await screen.findByRole('list', { name: 'Statuses of inkpost' }));
  await userEvent.click(statuses.getByRole('button', { name: '.com' }));
  await waitFor(() => {
    expect(names()).toEqual(['inkpost.com']);
  });
  await waitFor(() => {
    expect(requests.find((a) => a.method === 'PATCH')).toMatchObject({
      path: '/api/projects/7/shortlist/names/inkpost',
      body: { extension: 'com', seen: { extension: '' } },
    });
  });
  await userEvent.click(statuses.getByRole('button', { name: '.com', pressed: true }));
  await waitFor(() => {
    expect(names()).toEqual(['inkpost']);
  });
});

it('keeps a typed name that was refused, and says why', async () => {
  const problems = [{ path: 'label', code: 'label_character', message: 'A name cannot contain “ ”.' }];
  setUp([], (method) =>
    method === 'POST' ? { status: 400, body: { code: 'problems', message: 'Look again.', problems } } : undefined,
  );
  expect(await screen.findByText('Nothing is kept yet')).toBeInTheDocument();
  await userEvent.type(screen.getByLabelText('A name or full name of your own'), 'ink post{Enter}');
  expect(await screen.findByText('A name cannot contain “ ”.')).toBeInTheDocument();
  expect(screen.getByLabelText('A name or full name of your own')).toHaveValue('ink post');
});

it('tells of each name what weighs on it, and leads to its evidence', async () => {
  const [inkpost, quietpress] = sampleReport().names;
  const names = [
    { ...inkpost, kinds: [MARK, { ...MARK, kind: 'handles', accepted: true }, sampleGlance({ kind: 'said' })] },
    { ...quietpress, label: 'inkwell', kinds: [sampleGlance({ kind: 'said', weight: 'note' })] },
  ];
  setUp(['inkpost', 'inkwell'], (_method, path) =>
    path.endsWith('/vetting') ? { body: { ...sampleReport(), names } } : undefined,
  );
  const weighs = within(await screen.findByRole('list', { name: 'What weighs on it' }));
  const links = weighs.getAllByRole('link');
  expect(links.map((link) => link.textContent)).toEqual(['StopMarks']);
  expect(links[0]).toHaveAttribute('href', `/projects/${project.id}/vetting?name=inkpost&kind=marks`);
  expect(links[0]).toHaveAttribute('title', MARK.text);
});
