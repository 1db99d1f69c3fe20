import { t } from '../texts';

/** One thing wrong with what was sent; `path` says where, such as `brief.keywords.3.text`. */
export interface Problem {
  path: string;
  code: string;
  /** What the message was made of, by the code's names. */
  args?: Record<string, unknown>;
  message: string;
}

/** An answer of the API that is not a success, or no answer at all (status 0). */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly problems: readonly Problem[] = [],
    /** What is there now, where it was changed elsewhere meanwhile. */
    readonly current?: unknown,
  ) {
    super(message);
    this.name = 'ApiError';
  }

  /** The messages for one field, and for those below it when `deep`. */
  at(path: string, deep = false): string | undefined {
    const found = this.problems.filter((p) => p.path === path || (deep && p.path.startsWith(`${path}.`)));
    return found.length ? found.map((p) => p.message).join(' ') : undefined;
  }
}

const OFFLINE = t('The server cannot be reached. Your work is still here; try again in a moment.');

interface Reply<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of a reply; throws ApiError for everything else. */
export async function unwrap<T>(asked: Promise<Reply<T>>): Promise<T> {
  let reply: Reply<T>;
  try {
    reply = await asked;
  } catch (error) {
    throw new ApiError(0, 'offline', OFFLINE + (error instanceof SyntaxError ? ' (unreadable answer)' : ''));
  }
  if (reply.response.ok) return reply.data as T;
  throw toApiError(reply.response.status, reply.error);
}

function toApiError(status: number, body: unknown): ApiError {
  if (typeof body === 'object' && body !== null && 'message' in body && 'code' in body) {
    const { code, message } = body;
    const problems = 'problems' in body && Array.isArray(body.problems) ? (body.problems as Problem[]) : [];
    return new ApiError(status, String(code), String(message), problems, 'current' in body ? body.current : undefined);
  }
  return new ApiError(status, 'server', t('Something went wrong on the server. Try again in a moment.'));
}

/** The error as an ApiError; anything else becomes a general one. */
export function asApiError(error: unknown): ApiError | null {
  if (error === null || error === undefined) return null;
  return error instanceof ApiError ? error : new ApiError(0, 'unknown', t('Something went wrong. Reload the page.'));
}

/** What is there instead of what was to be changed, where that is why it failed. */
// eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters -- who sent the change knows what it was of
export function elsewhereOf<T>(error: Error | null): T | null {
  return error instanceof ApiError && error.code === 'changed_elsewhere' && error.current ? (error.current as T) : null;
}
