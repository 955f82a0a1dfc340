import { readFileSync } from 'node:fs';
import path from 'node:path';

/**
 * The planner that this program plans with: the hash of core's planning, bundled by itself with its packages and kernels, as the build
 * worked it out (scripts/build-workers.mjs). Texts of findings are no part of it.
 * @throws Error when the build is missing
 */
export function readPlanner(): string {
  const file = path.resolve(/* turbopackIgnore: true */ process.cwd(), 'dist/planner.json');
  let planner: unknown;
  try {
    planner = (JSON.parse(readFileSync(file, 'utf8')) as { planner?: unknown }).planner;
  } catch {
    throw new Error('dist/planner.json is missing; build the workers first (./zg does it)');
  }
  if (typeof planner !== 'string' || !/^[0-9a-f]{64}$/.test(planner))
    throw new Error('dist/planner.json holds no planner; build the workers again');
  return planner;
}
