export { changed } from './changed';
export { keys } from './keys';
export { api } from './client';
export { ApiError, asApiError, elsewhereOf, unwrap, type Problem } from './problems';
export type * from './types';
