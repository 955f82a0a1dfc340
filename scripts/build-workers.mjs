// Bundles the worker entries and the command line; one build serves the server, the tests and the command line.
import { build } from 'esbuild';

await build({
  entryPoints: {
    'workers/kernel.worker': 'src/workers/kernel.worker.ts',
    'workers/plan.worker': 'src/workers/plan.worker.ts',
    'workers/export.worker': 'src/workers/export.worker.ts',
    'workers/reader.worker': 'src/workers/reader.worker.ts',
    cli: 'src/cli/main.ts',
    demo: 'demo/main.ts',
  },
  outdir: 'dist',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  sourcemap: true,
  tsconfig: 'tsconfig.json',
  logLevel: 'warning',
});
