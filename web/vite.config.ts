import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [react()],
  build: {
    // The largest part is the component library; split so that a change of ours keeps it cached.
    rollupOptions: {
      output: {
        manualChunks: (id) =>
          id.includes('node_modules') ? (id.includes('@mui') || id.includes('@emotion') ? 'mui' : 'vendor') : undefined,
      },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8700' } },
  test: {
    environment: 'jsdom',
    setupFiles: ['src/shared/testing/setup.ts'],
    restoreMocks: true,
    // Machines that run the tests are slow and noisy; nothing here is about speed.
    testTimeout: 60_000,
  },
});
