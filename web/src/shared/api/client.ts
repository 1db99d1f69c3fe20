import createClient, { type Middleware } from 'openapi-fetch';

import type { paths } from './schema';

const csrf: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') {
      const token = /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1];
      if (token) request.headers.set('X-CSRFToken', token);
    }
    return request;
  },
};

const TRIES = 4;
const LONGEST_WAIT = 10_000;
const rest = (ms: number) =>
  new Promise((done) => {
    setTimeout(done, ms);
  });

/** Whether nothing was done yet: the server was too busy to begin, or it was only asked. What failed on the way may have been done. */
async function isUndone({ method }: Request, reply: Response): Promise<boolean> {
  if (method === 'GET') return true;
  const problem = (await reply
    .clone()
    .json()
    .catch(() => null)) as { code?: string } | null;
  return problem?.code === 'busy' || problem?.code === 'throttled';
}

/** A server that is busy says when to come back; it is done for the person, a few times. */
async function patiently(request: Request): Promise<Response> {
  for (let left = TRIES; ; left -= 1) {
    const reply = await globalThis.fetch(left > 1 ? request.clone() : request);
    const seconds = Number(reply.headers.get('Retry-After'));
    const busy = reply.status === 503 || (reply.status === 429 && seconds <= 2);
    if (!busy || !seconds || left === 1 || request.signal.aborted || !(await isUndone(request, reply))) return reply;
    // Not all at the same moment.
    await rest(Math.min(LONGEST_WAIT, seconds * 1000) * (0.5 + Math.random() / 2));
  }
}

/** The typed client of the API. */
export const api = createClient<paths>({
  baseUrl: window.location.origin,
  credentials: 'same-origin',
  fetch: patiently,
});
api.use(csrf);
