import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { vi } from 'vitest';

import { Notices } from '../ui/Notices';
import { plainTheme } from './plainTheme';

/** What a request is answered with. */
export interface Answer {
  status?: number;
  /** It comes when this is fulfilled. */
  after?: Promise<unknown>;
  body?: unknown;
}

/** Answers every request by `answer`, and remembers what was asked. */
export function serve(answer: (method: string, path: string, body: unknown) => Answer) {
  const requests: { method: string; path: string; body: unknown }[] = [];
  vi.stubGlobal('fetch', async (request: Request) => {
    const text = await request.clone().text();
    const { pathname, search } = new URL(request.url);
    const body: unknown = text ? JSON.parse(text) : undefined;
    requests.push({ method: request.method, path: pathname + search, body });
    const { status = 200, body: reply, after } = answer(request.method, pathname + search, body);
    await after;
    return new Response(reply === undefined ? null : JSON.stringify(reply), {
      status,
      headers: { 'Content-Type': 'application/json' },
    });
  });
  return requests;
}

/** Renders a part of the interface with everything it stands in. */
export function renderIn(ui: ReactNode, address = '/') {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const view = render(ui, {
    wrapper: ({ children }: { children: ReactNode }) => (
      <ThemeProvider theme={plainTheme}>
        <QueryClientProvider client={client}>
          <Notices>
            <MemoryRouter initialEntries={[address]}>{children}</MemoryRouter>
          </Notices>
        </QueryClientProvider>
      </ThemeProvider>
    ),
  });
  return { ...view, client };
}
