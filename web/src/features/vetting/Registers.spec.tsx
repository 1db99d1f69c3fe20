import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import type { Registers as All } from '../../shared/api';
import { renderIn, serve } from '../../shared/testing/render';
import { Registers } from './Registers';

const FILE: All['files'][number] = {
  name: 'marks.csv',
  office: 'Saltley',
  state: 'done',
  done: 2,
  wrong: 1,
  problems: [{ path: 'line 3, classes', code: 'mark_class', message: '“46” is no class.', args: {} }],
  brought_at: new Date().toISOString(),
};

it('is for administrators alone', async () => {
  serve(() => ({ body: { may_edit: false, marks: 3, files: [] } }));
  renderIn(<Registers />);
  await new Promise((done) => setTimeout(done, 30));
  expect(screen.queryByText(/Bring a register/)).toBeNull();
});

it('takes a register as it is, and tells what became of it', async () => {
  const sent: { path: string; type: string | null }[] = [];
  serve(() => ({ body: { may_edit: true, marks: 2, files: [FILE] } }));
  const answer = globalThis.fetch;
  globalThis.fetch = ((request: Request) => {
    if (request.method === 'POST') {
      const { pathname, search } = new URL(request.url);
      sent.push({ path: pathname + search, type: request.headers.get('Content-Type') });
      return Promise.resolve(Response.json({ may_edit: true, marks: 2, files: [FILE] }, { status: 202 }));
    }
    return answer(request);
  }) as typeof fetch;
  renderIn(<Registers />);
  await userEvent.type(await screen.findByLabelText('Office, where the file names none'), 'Saltley');
  const input = screen.getByLabelText('A register of marks: CSV, or XML after WIPO ST.96');
  await userEvent.upload(input, new File(['number,word\n1,Quill\n'], 'marks.csv', { type: 'text/csv' }));
  expect(sent).toEqual([{ path: '/api/marks?name=marks.csv&office=Saltley', type: 'application/octet-stream' }]);
  expect(screen.getByText(/2 marks taken, 1 place left out/)).toBeInTheDocument();
  expect(screen.getByText('line 3, classes: “46” is no class.')).toBeInTheDocument();
});

it('tells every problem of a catalogue of platforms', async () => {
  serve((method) =>
    method === 'PUT'
      ? {
          status: 400,
          body: {
            code: 'refused',
            message: 'Some of this needs another look.',
            problems: [
              { path: 'line 2, address', code: 'platform_private', message: 'It is no public address.', args: {} },
              { path: 'line 3, code', code: 'platform_code', message: 'A code is shorter.', args: {} },
            ],
          },
        }
      : { body: { may_edit: true, marks: 0, files: [] } },
  );
  renderIn(<Registers />);
  const input = await screen.findByLabelText('A catalogue of platforms: CSV');
  await userEvent.upload(input, new File(['code,name,address\n'], 'p.csv', { type: 'text/csv' }));
  expect(await screen.findByText('line 2, address: It is no public address.')).toBeInTheDocument();
  expect(screen.getByText('line 3, code: A code is shorter.')).toBeInTheDocument();
});
