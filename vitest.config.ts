import path from 'node:path';
import { defineConfig } from 'vitest/config';

/** Sample jobs in their own size on their own cells, and what takes minutes by its nature: run by hand, `npm run full`. */
const FULL = '{src,demo}/**/*.full.test.ts';

/** Tests of plain functions: no file of them leaves anything behind that another could find, so that what they import is read once. */
const PLAIN = ['src/core/**/*.test.ts', 'src/ui/**/*.test.ts', 'src/contract/**/*.test.ts'];

export default defineConfig({
  resolve: { alias: { '@': path.resolve(import.meta.dirname, 'src') } },
  test: {
    setupFiles: ['src/seed.setup.ts'],
    // A test is never timed: this ends one that hangs, on the slowest machine.
    testTimeout: 900_000,
    hookTimeout: 900_000,
    maxWorkers: 2,
    projects: [
      { extends: true, test: { name: 'plain', include: PLAIN, exclude: [FULL], isolate: false } },
      {
        extends: true,
        test: { name: 'whole', include: ['src/**/*.test.ts', 'demo/**/*.test.ts'], exclude: [...PLAIN, FULL] },
      },
      { extends: true, test: { name: 'full', include: [FULL] } },
    ],
  },
});
