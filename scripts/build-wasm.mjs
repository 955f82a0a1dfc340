// Compiles the kernels to WebAssembly and puts the bytes into a module, so that every caller loads them without I/O.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import asc from 'assemblyscript/asc';

mkdirSync('dist', { recursive: true });
const { error, stderr } = await asc.main([
  'src/core/kernels/assembly/index.ts',
  '--outFile',
  'dist/kernels.wasm',
  '-O3',
  '--noAssert',
  '--runtime',
  'stub',
  '--enable',
  'simd',
  '--enable',
  'bulk-memory',
  '--maximumMemory',
  '32768',
]);
if (error) {
  console.error(stderr.toString());
  process.exit(1);
}
const bytes = readFileSync('dist/kernels.wasm');
writeFileSync('src/core/kernels/generated.ts', `export const KERNELS_BASE64 =\n  '${bytes.toString('base64')}';\n`);
