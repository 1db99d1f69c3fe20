import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import type { Extension } from '../../shared/api';
import { sampleBrief } from '../../shared/testing/samples';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { ExtensionsPage } from './ExtensionsPage';
import { ProposalDialog } from './ProposalDialog';

const entry = (extension: string, fields: Partial<Extension> = {}): Extension => ({
  extension,
  kind: 'newer',
  country: '',
  works: ['any'],
  use: `Used by ${extension} people.`,
  eligibility: 'open',
  rule: 'Open to everyone.',
  letters_min: 1,
  letters_max: 63,
  idn: true,
  yearly: '12',
  rdap: '',
  whois: '',
  whois_query: '',
  whois_absent: '',
  ...fields,
});
const about = (may_edit: boolean) => ({
  extensions: [
    entry('com', { kind: 'generic' }),
    entry('ie', { kind: 'country', country: 'IE', rule: 'The owner needs a connection with Ireland.' }),
  ],
  version: 'v1',
  may_edit,
  kinds: ['generic', 'newer', 'country'],
  owner_kinds: ['person'],
  countries: [{ code: 'IE', name: 'Ireland' }],
  works: [{ code: 'any', name: 'anything' }],
  rules: [{ code: 'open', name: 'Open to everyone.' }],
});
const answer = (may_edit: boolean, act: (method: string, path: string) => Answer | undefined = () => undefined) =>
  serve((method, path) => act(method, path) ?? { body: about(may_edit) });

it('finds extensions by country and use', async () => {
  answer(false);
  renderIn(<ExtensionsPage />);
  expect(await screen.findByText('.com')).toBeInTheDocument();
  await userEvent.type(screen.getByLabelText('Find'), 'irel');
  expect(screen.queryByText('.com')).not.toBeInTheDocument();
  expect(screen.getByText('The owner needs a connection with Ireland.')).toBeInTheDocument();
  expect(screen.queryByRole('button', { name: 'Add one' })).not.toBeInTheDocument();
});

it('lets an administrator change one, and keeps what was typed when it is refused', async () => {
  const refusal: Answer = {
    status: 400,
    body: {
      code: 'problems',
      message: 'Look again.',
      problems: [{ path: 'line 2', code: 'x', message: 'Choose a number from 1 to 63.' }],
    },
  };
  const requests = answer(true, (method) => (method === 'PUT' ? refusal : undefined));
  renderIn(<ExtensionsPage />);
  await userEvent.click(await screen.findByRole('button', { name: 'Change .ie' }));
  const dialog = within(screen.getByRole('dialog'));
  await userEvent.clear(dialog.getByLabelText('at most'));
  await userEvent.click(dialog.getByRole('button', { name: 'Save' }));
  expect(await dialog.findByText('Choose a number from 1 to 63.')).toBeInTheDocument();
  expect(requests.find((a) => a.method === 'PUT')).toMatchObject({
    path: '/api/extensions/ie',
    body: { letters_max: 0 },
  });
});

it('shows what another administrator made of one meanwhile', async () => {
  let refuse = true;
  const requests = answer(true, (method) => {
    if (method !== 'PUT' || !refuse) return undefined;
    refuse = false;
    return {
      status: 409,
      body: {
        code: 'changed_elsewhere',
        message: 'Changed.',
        problems: [],
        current: entry('ie', { use: 'Theirs.' }),
      },
    };
  });
  renderIn(<ExtensionsPage />);
  await userEvent.click(await screen.findByRole('button', { name: 'Change .ie' }));
  await userEvent.type(screen.getByLabelText('What it is used for'), ' Mine.');
  await userEvent.click(screen.getByRole('button', { name: 'Save' }));
  expect(await screen.findByText(/changed in another window/)).toHaveTextContent(
    'here: Used by ie people. Mine.there: Theirs.',
  );
  await userEvent.click(screen.getByRole('button', { name: 'Keep mine' }));
  await waitFor(() => {
    expect(requests.filter((a) => a.method === 'PUT').at(-1)?.body).toMatchObject({
      use: 'Used by ie people. Mine.',
      seen: { use: 'Theirs.' },
    });
  });
});

it('tells the lines of a file that cannot be taken', async () => {
  const refusal: Answer = {
    status: 400,
    body: {
      code: 'problems',
      message: 'Look again.',
      problems: [{ path: 'line 3, kind', code: 'x', message: '“old” is not one of generic.' }],
    },
  };
  answer(true, (method) => (method === 'PUT' ? refusal : undefined));
  renderIn(<ExtensionsPage />);
  await userEvent.upload(
    await screen.findByLabelText('File of extensions'),
    new File(['extension\ncom'], 'e.csv', { type: 'text/csv' }),
  );
  expect(await screen.findByRole('alert')).toHaveTextContent('line 3, kind: “old” is not one of generic.');
});

it('proposes an order with its reasons, and takes it with the owner', async () => {
  const requests = serve((_method, path) => ({
    body: path.startsWith('/api/proposals')
      ? [{ extension: 'ie', points: 3, yearly: '20', reasons: ['Shows that it is at home in Ireland.'] }]
      : about(false),
  }));
  const onTake = vi.fn();
  renderIn(<ProposalDialog owner={sampleBrief().owner} onClose={vi.fn()} onTake={onTake} />);
  expect(await screen.findByText('Shows that it is at home in Ireland.')).toBeInTheDocument();
  await userEvent.type(screen.getByLabelText('At most, € a year'), '30');
  await userEvent.click(screen.getByRole('button', { name: 'Take the first 1' }));
  const owner = { country: '', kind: '', work: 'any', budget: 30, years: 5, budget_whole: null };
  expect(onTake).toHaveBeenCalledWith(owner, ['ie']);
  await userEvent.type(screen.getByLabelText('At most, € in all'), '90');
  await userEvent.click(screen.getByRole('combobox', { name: 'Kept for, years' }));
  await userEvent.click(await screen.findByRole('option', { name: '8' }));
  await vi.waitFor(() => {
    const asked = new URLSearchParams(requests.at(-1)?.path.split('?')[1]);
    expect([asked.get('budget'), asked.get('whole'), asked.get('years')]).toEqual(['30', '90', '8']);
  });
});
