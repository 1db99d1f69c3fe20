import { describe, expect, it } from 'vitest';

import { ApiError, asApiError, unwrap } from './problems';

const reply = (status: number, error?: unknown, data?: unknown) =>
  Promise.resolve({ data, error, response: new Response(null, { status }) });

async function caught(asked: Parameters<typeof unwrap>[0]): Promise<ApiError> {
  try {
    await unwrap(asked);
  } catch (error) {
    if (error instanceof ApiError) return error;
  }
  throw new Error('an ApiError was expected');
}

describe('unwrap', () => {
  it('gives the data of a success', async () => {
    await expect(unwrap(reply(200, undefined, { id: 1 }))).resolves.toEqual({ id: 1 });
  });

  it('keeps the problems of a refusal, each at its path', async () => {
    const problems = [
      { path: 'brief.keywords.2.text', code: 'blank', message: 'Write something here.' },
      { path: 'brief.keywords', code: 'too_many', message: 'Too many.' },
    ];
    const error = await caught(reply(400, { code: 'problems', message: 'Look again.', problems }));
    expect(error.at('brief.keywords')).toBe('Too many.');
    expect(error.at('brief.keywords.2', true)).toBe('Write something here.');
    expect(error.at('brief.keywords', true)).toBe('Write something here. Too many.');
    expect(error.at('name')).toBeUndefined();
  });

  it('says plainly that the server is gone, or failed', async () => {
    const gone = await caught(Promise.reject(new TypeError('fetch failed')));
    expect([gone.status, gone.code]).toEqual([0, 'offline']);
    expect(gone.message).toContain('Your work is still here');
    expect((await caught(reply(500, '<html>'))).code).toBe('server');
  });
});

it('makes an ApiError of any error', () => {
  expect(asApiError(null)).toBeNull();
  expect(asApiError(new Error('odd'))?.code).toBe('unknown');
});
