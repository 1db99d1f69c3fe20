export { keys } from './keys';
export { api } from './client';
export { ApiError, asApiError, unwrap, type Problem } from './problems';
export type * from './types';
