import { demoJobs } from '../demo/shop';
import { withEdits } from '../src/core/doc/edits';
import { backFrom } from '../src/core/plan/backs';
import { planJob } from '../src/core/plan/pipeline';
import { studyBeside } from '../src/core/proof/study';
import { websOf } from '../src/core/proof/web';
import { setupView, viewOf } from '../src/core/setup/view';
import { contentLoader } from '../src/server/content';
import { KernelPool } from '../src/server/kernel-pool';
import { stageRunner } from '../src/server/stage-cache';
import { row } from './row';

/** The demo plaque with one face and with its mirror behind it: what a second face costs, its web, and a study of how it lies. */
export async function benchFaces(): Promise<void> {
  console.log('\nBoth faces of the demo plaque, 300 x 200 mm, layers to proof, all cores');
  const { job: one, files } = (await demoJobs())[0];
  const load = contentLoader((h) => files.get(h)!.bytes);
  const both = withEdits(one, backFrom(setupView(one), 'mirror')!.edits);
  const seconds: number[] = [];
  for (const [name, job] of [
    ['one face', one],
    ['both faces', both],
  ] as const) {
    const host = new KernelPool();
    try {
      const start = performance.now();
      const plan = await planJob(job, load, {
        host,
        threads: host,
        progress() {},
        stage: stageRunner(null, 'bench', {}),
      });
      seconds.push((performance.now() - start) / 1000);
      const told = plan.summary.findings.filter((f) => f.severity !== 'note').map((f) => f.rule);
      const peak = Math.round(process.resourceUsage().maxRSS / 1024);
      row(`  ${name}`, `${seconds.at(-1)?.toFixed(1)} s, peak memory ${peak} MB, ${told.join(', ') || 'nothing told'}`);
      if (job !== both) continue;
      const [solid] = plan.solids;
      const at = performance.now();
      const { web } = websOf(solid, job.boards[0].web, () => false, []);
      row(
        `  web of ${(solid.top.length / 1e6).toFixed(1)} million cells`,
        `${web.toFixed(3)} mm, ${((performance.now() - at) / 1000).toFixed(2)} s`,
      );
      const [board] = job.boards;
      const setups = board.setups.map((setup) => ({
        view: viewOf(job, { board, setup }),
        programs: plan.summary.programs
          .filter((p) => p.setup === setup.id)
          .map(({ file, text, cutter }) => ({ file, text, tool: cutter })),
      }));
      const begun = performance.now();
      await studyBeside(board, setups, { shift: 0.3, turn: 0.2 }, host);
      row('  study, nine ways to lie', `${((performance.now() - begun) / 1000).toFixed(1)} s`);
    } finally {
      await host.close();
    }
  }
  row('  both over one (2.1)', (seconds[1] / seconds[0]).toFixed(2));
}
