import react from '@vitejs/plugin-react';
import type { Plugin } from 'vite';
import { defineConfig } from 'vitest/config';

/** The application is asked for at once, beside what starts it when the language is known. */
const application: Plugin = {
  name: 'application',
  transformIndexHtml: {
    order: 'post',
    handler(_, { bundle }) {
      const app = Object.values(bundle ?? {}).find((made) => made.type === 'chunk' && made.name === 'App');
      const files = app?.type === 'chunk' ? [app.fileName, ...app.imports] : [];
      return files.map((file) => ({
        tag: 'link',
        attrs: { rel: 'modulepreload', crossorigin: true, href: `/${file}` },
        injectTo: 'head',
      }));
    },
  },
};

export default defineConfig({
  plugins: [react(), application],
  server: { proxy: { '/api': 'http://127.0.0.1:8700' } },
  test: {
    environment: 'happy-dom',
    setupFiles: ['src/shared/testing/setup.ts'],
    restoreMocks: true,
    // Two threads that keep what they loaded: loading is most of what a file of tests costs.
    pool: 'threads',
    maxWorkers: 2,
    isolate: false,
    // Machines that run the tests are slow and noisy; nothing here is about speed.
    testTimeout: 60_000,
    coverage: {
      include: ['src/**/*.{ts,tsx}'],
      exclude: ['src/shared/api/schema.d.ts', 'src/shared/testing/**', 'src/**/*.spec.*'],
      reporter: ['text-summary'],
    },
  },
});
