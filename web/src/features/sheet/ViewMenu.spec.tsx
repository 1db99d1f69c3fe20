import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useLocation } from 'react-router';
import { expect, it } from 'vitest';

import type { NamedView, Project } from '../../shared/api';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { sampleProject } from '../../shared/testing/samples';
import { useView } from './useView';
import { useLastView } from '../../shared/sheet/useViews';
import { ViewMenu } from './ViewMenu';

function Room({ project }: { project: Project }) {
  const [view, setView] = useView(['com', 'ie']);
  return (
    <>
      <ViewMenu project={project} extensions={['com', 'ie']} view={view} onView={setView} />
      <output>{useLocation().search}</output>
    </>
  );
}

async function open(
  views: NamedView[] = [],
  address = '/',
  answer: (body: unknown) => Answer = (body) => ({ body: { view: '', views: [], ...(body as object) } }),
) {
  const requests = serve((_method, _path, body) => answer(body));
  renderIn(<Room project={sampleProject({ views })} />, address);
  await userEvent.click(screen.getByRole('button', { name: 'View' }));
  await screen.findByRole('list', { name: 'Columns' });
  return () => requests.map((a) => a.body);
}
const search = () => Object.fromEntries(new URLSearchParams(screen.getByRole('status', { hidden: true }).textContent));

it('chooses columns, puts them in order, and keeps them in sight', async () => {
  await open();
  await userEvent.click(screen.getByRole('checkbox', { name: 'Syllables' }));
  await userEvent.click(screen.getByRole('checkbox', { name: 'Letters' }));
  expect(search()).toEqual({ cols: 'grade,.com,.ie,syllables' });
  await userEvent.click(screen.getByRole('button', { name: 'Syllables further left' }));
  await userEvent.click(screen.getByRole('checkbox', { name: 'Keep Syllables in sight' }));
  expect(search()).toEqual({ cols: 'grade,.com,syllables,.ie', pin: 'syllables' });
  await userEvent.click(screen.getByRole('checkbox', { name: 'Syllables' }));
  expect(search()).toEqual({ cols: 'grade,.com,.ie' });
  expect(screen.getByRole('button', { name: 'Grade further left' })).toBeDisabled();
});

it('makes rows denser, and gives back the usual widths', async () => {
  await open([], '/?widths=name:300');
  await userEvent.click(screen.getByRole('button', { name: 'dense' }));
  await userEvent.click(screen.getByRole('button', { name: 'Usual widths' }));
  expect(search()).toEqual({ rows: 'dense' });
});

it('keeps a view under a name, shows it again, and takes a removal back', async () => {
  const short: NamedView = { name: 'short', search: 'letters_max=6' };
  const sent = await open([short], '/?sort=name');
  await userEvent.type(screen.getByLabelText('Keep this view as'), ' by name {Enter}');
  await waitFor(() => {
    expect(sent()).toEqual([
      { place: '', views: [short, { name: 'by name', search: 'sort=name' }], seen: { views: [short] } },
    ]);
  });
  await userEvent.click(
    within(screen.getByRole('list', { name: 'Views kept' })).getByRole('button', { name: 'short' }),
  );
  expect(search()).toEqual({ letters_max: '6' });
  await userEvent.click(screen.getByRole('button', { name: 'Remove the view short' }));
  await userEvent.click(await screen.findByRole('button', { name: 'Undo', hidden: true }));
  await waitFor(() => {
    expect(sent().slice(-2)).toEqual([
      { place: '', views: [], seen: { views: [short] } },
      { place: '', views: [short], seen: { views: [] } },
    ]);
  });
});

it('never writes over views kept elsewhere unasked', async () => {
  const short: NamedView = { name: 'short', search: 'letters_max=6' };
  let refuse = true;
  const sent = await open([], '/?sort=name', (body) => {
    if (!refuse) return { body };
    refuse = false;
    return {
      status: 409,
      body: { code: 'changed_elsewhere', message: 'Changed.', problems: [], current: { views: [short] } },
    };
  });
  await userEvent.type(screen.getByLabelText('Keep this view as'), 'by name{Enter}');
  expect(await screen.findByText(/changed in another window/)).toHaveTextContent(
    'by namehere: sort=namethere: not keptshorthere: not keptthere: letters_max=6',
  );
  await userEvent.click(screen.getByRole('button', { name: 'Keep mine' }));
  await waitFor(() => {
    expect(sent().at(-1)).toEqual({
      place: '',
      views: [{ name: 'by name', search: 'sort=name' }],
      seen: { views: [short] },
    });
  });
});

it('shows a project as it was looked at last, but not over what an address asks', async () => {
  serve((_method, _path, body) => ({ body }));
  function Last() {
    useLastView(sampleProject({ view: 'sort=fit' }));
    return <output>{useLocation().search}</output>;
  }
  const { unmount } = renderIn(<Last />);
  await waitFor(() => {
    expect(search()).toEqual({ sort: 'fit' });
  });
  unmount();
  renderIn(<Last />, '/?text=ink');
  expect(search()).toEqual({ text: 'ink' });
});
