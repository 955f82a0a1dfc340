import path from 'node:path';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '@': path.resolve(import.meta.dirname, 'src') } },
  test: {
    include: ['src/**/*.test.ts', 'demo/**/*.test.ts'],
    setupFiles: ['src/seed.setup.ts'],
    testTimeout: 120_000,
    maxWorkers: 2,
  },
});
