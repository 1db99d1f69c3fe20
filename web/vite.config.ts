import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [react()],
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
