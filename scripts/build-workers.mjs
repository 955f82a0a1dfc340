// Bundles the worker entries, the gate and the command line; one build serves the server, the tests and the command line.
import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { build } from 'esbuild';

await build({
  entryPoints: {
    'workers/kernel.worker': 'src/workers/kernel.worker.ts',
    'workers/plan.worker': 'src/workers/plan.worker.ts',
    'workers/export.worker': 'src/workers/export.worker.ts',
    'workers/reader.worker': 'src/workers/reader.worker.ts',
    'workers/unpack.worker': 'src/workers/unpack.worker.ts',
    gate: 'src/server/gate/listen.ts',
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

// The planner's own mark: core's planning bundled by itself, packages and kernels inlined, so that a result tells who made it. Layout and
// comments of the code leave it as it is, and so do the texts of findings, which planning never reads.
const planner = await build({
  entryPoints: ['src/core/plan/pipeline.ts'],
  bundle: true,
  write: false,
  metafile: true,
  platform: 'neutral',
  mainFields: ['module', 'main'],
  format: 'esm',
  target: 'node20',
  minifyWhitespace: true,
  minifySyntax: true,
  legalComments: 'none',
  tsconfig: 'tsconfig.json',
  logLevel: 'warning',
});
const texts = Object.keys(planner.metafile.inputs).filter((f) => f.startsWith('src/core/findings/texts/'));
if (texts.length > 0)
  throw new Error(`planning reads texts of findings (${texts.join(', ')}); leave them to who shows them`);
const mark = createHash('sha256').update(planner.outputFiles[0].contents).digest('hex');
writeFileSync('dist/planner.json', `${JSON.stringify({ planner: mark })}\n`);
