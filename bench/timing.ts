import type { Job } from '../src/core/doc/job';
import type { LoadContent } from '../src/core/plan/composing';
import { planJob } from '../src/core/plan/pipeline';
import type { Plan } from '../src/core/plan/summary';
import { KernelPool } from '../src/server/kernel-pool';
import { stageRunner } from '../src/server/stage-cache';

/** CPU seconds of a call in this thread, the least of `runs`. */
export function cpu(runs: number, call: () => void): number {
  let least = Infinity;
  for (let i = 0; i < runs; i++) {
    const from = process.cpuUsage();
    call();
    const used = process.cpuUsage(from);
    least = Math.min(least, (used.user + used.system) / 1e6);
  }
  return least;
}

/** Plans a job with all cores and nothing stored. */
export async function planned(job: Job, load: LoadContent): Promise<{ plan: Plan; seconds: number }> {
  const host = new KernelPool();
  try {
    const start = performance.now();
    const stage = stageRunner(null, 'bench', {});
    const plan = await planJob(job, load, { host, threads: host, progress() {}, stage });
    return { plan, seconds: (performance.now() - start) / 1000 };
  } finally {
    await host.close();
  }
}
