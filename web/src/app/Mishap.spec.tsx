import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { beforeEach, expect, it, vi } from 'vitest';

import { renderIn } from '../shared/testing/render';
import { Mishap } from './Mishap';

function Page({ fails }: { fails: Error | null }) {
  if (fails) throw fails;
  return <p>The page</p>;
}

function Room({ error }: { error: Error }) {
  const [at, setAt] = useState('/projects/7');
  return (
    <>
      <button onClick={() => setAt('/')}>Elsewhere</button>
      <Mishap at={at}>
        <Page fails={at === '/' ? null : error} />
      </Mishap>
    </>
  );
}

beforeEach(() => {
  vi.spyOn(console, 'error').mockImplementation(() => undefined);
});

it.each([
  [new TypeError('Failed to fetch dynamically imported module: /assets/x.js'), 'A part of this page did not come'],
  [new Error('undefined is not a function'), 'This page failed'],
])('keeps what stands around a page that fails, and goes on elsewhere: %s', async (error, title) => {
  renderIn(<Room error={error} />);
  expect(screen.getByRole('alert')).toHaveTextContent(title);
  expect(screen.getByRole('button', { name: 'Load the page again' })).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Elsewhere' }));
  expect(screen.getByText('The page')).toBeInTheDocument();
  expect(screen.queryByRole('alert')).not.toBeInTheDocument();
});
