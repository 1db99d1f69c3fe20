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

/** The typed client of the API. */
export const api = createClient<paths>({
  baseUrl: window.location.origin,
  credentials: 'same-origin',
  fetch: (request) => globalThis.fetch(request),
});
api.use(csrf);
