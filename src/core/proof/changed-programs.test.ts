import { beforeAll, describe, expect, test } from 'vitest';
import {
  type Baseline,
  baselineOf,
  HARMLESS_KINDS,
  harmlessOf,
  judgeMany,
  SMALL_JOBS,
} from './changed-programs-test-kit';

// Programs that were planned here, with one change: a person's slip of the pen. What harms is decided by cutting the board cell by cell by
// the plain definition and by the limits of bit, machine and setup; the rules have no part in it. Hundreds more: npm run bench.
describe.each(SMALL_JOBS.map((make, n) => [`small job ${n + 1}`, make, 5 * n] as const))('%s', (_, make, seed) => {
  let base: Baseline;
  beforeAll(async () => {
    base = await baselineOf(make());
  });

  test('of programs with one change each harmful one is found near its line', async () => {
    expect(base.cut.harms).toEqual([]);
    const judged = await judgeMany(base, 5, seed);
    const harmful = judged.filter((j) => j.harmful);
    expect(harmful.length).toBeGreaterThanOrEqual(2);
    expect(harmful.filter((j) => !j.found).map((j) => j.told)).toEqual([]);
  });

  test.each(HARMLESS_KINDS)('%s change nothing that is said', async (kind) => {
    const before = await base.prove(base.programs);
    const after = (await base.prove(harmlessOf(base.programs, kind))).filter((f) => f.rule !== 'not-planned-here');
    expect(after).toEqual(before);
  });
});
