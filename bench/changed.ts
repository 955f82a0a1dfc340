import { baselineOf, judgeMany, SMALL_JOBS } from '../src/core/proof/changed-programs-test-kit';
import { row } from './row';

/** Three hundred programs with one change each: how many harm by the plain definition, and how many of those the proof finds near their line. */
export async function benchChanged(times = 100): Promise<void> {
  let [all, harmful, found] = [0, 0, 0];
  for (const make of SMALL_JOBS) {
    for (const j of await judgeMany(await baselineOf(make()), times, 1000)) {
      all++;
      if (!j.harmful) continue;
      harmful++;
      if (j.found) found++;
      else console.log(`  not found: ${j.told}`);
    }
  }
  row('changed programs: all, harmful, found near their line', `${all}, ${harmful}, ${found}`);
}
