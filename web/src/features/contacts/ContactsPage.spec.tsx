import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import type { Contact, Contacts } from '../../shared/api';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { ContactsPage } from './ContactsPage';

const edda: Contact = {
  id: 1,
  kind: 'person',
  name: 'Edda Birchwell',
  organisation: '',
  street: '4 Quay Lane',
  street2: '',
  city: 'Port Ferris',
  region: 'Cork',
  postcode: '',
  country: 'IE',
  phone: '+353871234567',
  email: 'edda@inkpost.example',
  identifiers: {},
  shown: 'Edda Birchwell',
  readable: true,
};
const all = (fields: Partial<Contacts> = {}): Contacts => ({
  contacts: [edda],
  sets: [{ id: 5, name: 'Mine', usual: true, registrant: 1, admin: null, tech: null, billing: null }],
  everybody: false,
  ...fields,
});
const FORM = {
  countries: [
    {
      code: 'IE',
      name: 'Ireland',
      region: 'County',
      needs_region: false,
      postcode: 'Eircode',
      needs_postcode: false,
      example: 'T12 AB34',
    },
    {
      code: 'US',
      name: 'United States',
      region: 'State',
      needs_region: true,
      postcode: 'ZIP code',
      needs_postcode: true,
      example: '12207',
    },
  ],
  identifiers: [{ code: 'vat', name: 'VAT number', example: 'IE6433435F' }],
};

function setUp(shown: Contacts, act: (method: string, path: string) => Answer | undefined = () => undefined) {
  const requests = serve((method, path) => act(method, path) ?? { body: path === '/api/contacts/form' ? FORM : shown });
  renderIn(<ContactsPage />, '/contacts');
  return requests;
}

it('asks for somebody in the way of their country, and shows what is wrong at its field', async () => {
  const requests = setUp(all({ contacts: [], sets: [] }), (method) =>
    method === 'POST'
      ? {
          status: 400,
          body: {
            code: 'refused',
            message: 'No.',
            problems: [{ path: 'phone', code: 'as_told', message: 'No number.' }],
          },
        }
      : undefined,
  );
  await userEvent.click(await screen.findByRole('button', { name: 'Add somebody' }));
  const dialog = within(await screen.findByRole('dialog'));
  expect(dialog.getByLabelText('Region')).toBeVisible();
  await userEvent.click(dialog.getByLabelText('Country'));
  await userEvent.click(await screen.findByRole('option', { name: 'United States' }));
  expect(dialog.getByLabelText('State')).toBeVisible();
  expect(dialog.getByLabelText('ZIP code')).toBeVisible();
  await userEvent.click(dialog.getByLabelText('an organisation'));
  await userEvent.type(dialog.getByLabelText('Organisation'), 'Paper Barn');
  await userEvent.click(dialog.getByRole('button', { name: 'Keep' }));
  expect(await dialog.findByText('No number.')).toBeVisible();
  expect(dialog.getByLabelText('Organisation')).toHaveValue('Paper Barn');
  const sent = requests.find((r) => r.method === 'POST')?.body as { country: string; kind: string };
  expect([sent.country, sent.kind]).toEqual(['US', 'organisation']);
});

it('deletes for good only after asking, and says what stays elsewhere', async () => {
  const requests = setUp(all());
  await userEvent.click(await screen.findByRole('button', { name: 'Delete Edda Birchwell' }));
  expect(await screen.findByText(/sellers keep what they were told/)).toBeVisible();
  expect(requests.some((r) => r.method === 'DELETE')).toBe(false);
  await userEvent.click(screen.getByRole('button', { name: 'Delete for good' }));
  await waitFor(() => expect(requests.some((r) => r.method === 'DELETE' && r.path === '/api/contacts/1')).toBe(true));
});

it('changes who is asked about a name, and warns where everybody can read', async () => {
  const requests = setUp(all({ everybody: true }));
  expect(await screen.findByText(/Anybody can enter the demo workspace/)).toBeVisible();
  await userEvent.click(screen.getByRole('combobox', { name: 'asked about money' }));
  await userEvent.click(screen.getByRole('option', { name: 'Edda Birchwell' }));
  await waitFor(() => expect(requests.find((r) => r.method === 'PATCH')?.body).toEqual({ billing: 1 }));
});

it('makes another set under a name that is free, and deletes one', async () => {
  const taken = all({
    sets: [
      { id: 5, name: 'Mine', usual: true, registrant: 1, admin: null, tech: null, billing: null },
      { id: 6, name: 'Set 3', usual: false, registrant: 1, admin: 1, tech: null, billing: null },
    ],
  });
  const requests = setUp(taken);
  await userEvent.click(await screen.findByRole('button', { name: 'Another set' }));
  await waitFor(() =>
    expect(requests.find((r) => r.method === 'POST')?.body).toEqual({ name: 'Set 4', registrant: 1 }),
  );
  await userEvent.click(screen.getByRole('button', { name: 'Take it where nothing else is said' }));
  await waitFor(() => expect(requests.find((r) => r.method === 'PATCH')?.body).toEqual({ usual: true }));
  await userEvent.click(screen.getByRole('button', { name: 'Delete the set Set 3' }));
  await waitFor(() => expect(requests.some((r) => r.path === '/api/contact-sets/6')).toBe(true));
});

it('tells of what cannot be opened any more, and keeps nobody out of reach', async () => {
  setUp(all({ contacts: [{ ...edda, readable: false, name: '', shown: '?' }] }));
  expect(await screen.findByText(/cannot be opened with the keys of this installation/)).toBeVisible();
  expect(screen.getByRole('button', { name: 'Delete ?' })).toBeEnabled();
});
