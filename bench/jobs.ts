import { demoJobs } from '../demo/shop';
import { planJob } from '../src/core/plan/pipeline';
import { contentLoader } from '../src/server/content';
import { KernelPool } from '../src/server/kernel-pool';
import { stageRunner } from '../src/server/stage-cache';
import { row } from './row';

/** How far a surface lies below its target at most, mm. */
const below = (deviation: Float32Array): number => deviation.reduce((low, d) => Math.min(low, d), 0);

/** The demo's jobs on the cells that their bits ask for: what the proof says of each, which the tests ask on coarser ones. */
export async function benchJobs(): Promise<void> {
  console.log("\nThe demo's jobs on their own cells");
  for (const { job, files } of await demoJobs()) {
    const host = new KernelPool();
    try {
      const load = contentLoader((h) => files.get(h)!.bytes);
      const stage = stageRunner(null, 'bench', {});
      const start = performance.now();
      const { summary, surfaces } = await planJob(job, load, { host, threads: host, progress() {}, stage });
      row(`  ${job.order}: layers to proof`, `${((performance.now() - start) / 1000).toFixed(1)} s`);
      for (const s of summary.setups)
        row('    passes, s', s.passes.map((p) => `${p.kind} ${p.seconds.toFixed(0)}`).join(', '));
      for (const { file, bite, air } of summary.programs) {
        const bites = bite ? `${bite.deep.toFixed(2)} of ${bite.most} mm` : 'no bite';
        row(`    ${file.slice(0, 50)}`, `air ${(100 * air).toFixed(1)} %, ${bites}`);
      }
      row('    below the target, mm (0.02)', surfaces.map((s) => (-below(s.deviation)).toFixed(4)).join(', '));
      const told = summary.findings.filter((f) => f.severity !== 'note').map((f) => `${f.severity} ${f.rule}`);
      row('    errors and warnings', told.join(', ') || 'none');
    } finally {
      await host.close();
    }
  }
}
