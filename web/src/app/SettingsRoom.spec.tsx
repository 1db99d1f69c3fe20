import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { afterEach, expect, it } from 'vitest';

import { keys, type Preferences } from '../shared/api';
import { formatCount, formatDay, formatMoney, setManner } from '../shared/lib/format';
import { type Answer, renderIn, serve } from '../shared/testing/render';
import { freshBrief } from '../features/projects/useProjects';
import { Tour } from '../features/tour/Tour';
import { SettingsPage } from '../features/settings/SettingsPage';
import { Shell } from './Shell';

const usual: Preferences = {
  theme: 'system',
  density: 'usual',
  locale: 'en',
  currency: '',
  rate: null,
  weights: {},
  extensions: [],
  letter_keys: true,
  toured: false,
};
afterEach(() => {
  setManner({ locale: 'en', currency: '', rate: null });
});

type Part = Partial<Preferences> & { seen?: Partial<Preferences> };

function setUp(
  preferences: Partial<Preferences> = {},
  ui = <SettingsPage extensions={['com', 'ie']} />,
  act: (sent: Part) => Answer = (sent) => ({ body: { ...usual, ...preferences, ...sent } }),
) {
  const session = { person: { username: 'edda', preferences: { ...usual, ...preferences } }, demo: false };
  const requests = serve((method, path, body) => {
    if (path.startsWith('/api/basket')) return { body: { items: [] } };
    if (path.startsWith('/api/happenings')) return { body: { rows: [], unread: 0 } };
    return method === 'GET' ? { body: session } : act(body as Part);
  });

  const view = renderIn(ui);
  view.client.setQueryData(keys.session, session);
  return { sent: () => requests.filter((a) => a.method === 'PATCH').map((a) => a.body as Part) };
}

it('keeps what is changed, and sends nothing else', async () => {
  const { sent } = setUp({ density: 'dense' });
  await userEvent.click(await screen.findByRole('button', { name: 'dark paper' }));
  await waitFor(() => {
    expect(sent()).toEqual([{ theme: 'dark', seen: { theme: 'system' } }]);
  });
  await userEvent.click(screen.getByRole('checkbox', { name: /Weights of my own/ }));
  await waitFor(() => {
    expect(sent().at(-1)?.weights).toEqual({
      length: 5,
      spelling: 5,
      fit: 5,
      sense: 5,
      sound: 5,
      memory: 5,
      clarity: 5,
    });
  });
});

it("shows a setting changed elsewhere beside one's own, wherever one is", async () => {
  let refuse = true;
  const { sent } = setUp(
    {},
    <Routes>
      <Route element={<Shell person="edda" liked="system" />}>
        <Route index element={<SettingsPage extensions={[]} />} />
      </Route>
    </Routes>,
    (body) => {
      if (!refuse) return { body: { ...usual, ...body } };
      refuse = false;
      return {
        status: 409,
        body: { code: 'changed_elsewhere', message: 'Changed.', problems: [], current: { density: 'roomy' } },
      };
    },
  );
  await userEvent.click(await screen.findByRole('button', { name: 'dense rows' }));
  expect(await screen.findByText(/changed in another window/)).toHaveTextContent(
    'Rows of the sheethere: densethere: roomy',
  );
  expect(screen.getByRole('button', { name: 'roomy rows', pressed: true })).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Keep mine' }));
  await waitFor(() => {
    expect(sent().at(-1)).toEqual({ density: 'dense', seen: { density: 'roomy' } });
  });
  expect(await screen.findByRole('button', { name: 'dense rows', pressed: true })).toBeInTheDocument();
  await waitFor(() => {
    expect(screen.queryByText(/changed in another window/)).not.toBeInTheDocument();
  });
});

it('asks for a rate where prices are to be in another currency', async () => {
  const { sent } = setUp({ currency: 'SEK' });
  const rate = await screen.findByLabelText('One euro is, in SEK');
  await userEvent.type(rate, '11,25');
  await userEvent.tab();
  await waitFor(() => {
    expect(sent().at(-1)?.rate).toBe(11.25);
  });
});

it('writes numbers, dates and prices as one likes', () => {
  setManner({ locale: 'de', currency: 'SEK', rate: 11 });
  expect(formatCount(12_345)).toBe('12.345');
  expect(formatDay('2026-11-25T00:00:00Z')).toBe('25. Nov. 2026');
  expect(formatMoney(10, 'EUR')).toMatch(/^about 110\sSEK$/);
  expect(formatMoney(10, 'USD')).toMatch(/^10\s\$$/);
  expect(formatMoney(null, 'EUR')).toBe('not known');
});

it('begins new projects with what one likes', () => {
  expect(freshBrief('X', '', ['ink'], { extensions: ['ie'], weights: { fit: 9 } })).toMatchObject({
    extensions: ['ie'],
    weights: { fit: 9 },
  });
  expect(freshBrief('X', '', ['ink']).extensions).toEqual(['com', 'net', 'org']);
});

it('shows the tour step by step, and puts it away for good', async () => {
  const { sent } = setUp({}, <Tour />);
  expect(await screen.findByText('1 of 6')).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Next' }));
  expect(screen.getByText('2 of 6')).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Put it away' }));
  await waitFor(() => {
    expect(sent().at(-1)?.toured).toBe(true);
  });
});
