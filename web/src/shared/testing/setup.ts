import '@testing-library/jest-dom/vitest';
import { cleanup, configure } from '@testing-library/react';
import { afterEach } from 'vitest';

import { setConcepts } from '../lib/concepts';
import concepts from './concepts.json';

configure({ asyncUtilTimeout: 10_000 });
afterEach(cleanup);
// As the server has them: a test of the server holds the file.
setConcepts(concepts as Parameters<typeof setConcepts>[0]);
