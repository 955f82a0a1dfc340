import { demoJobs } from '../demo/shop';
import { withEdits } from '../src/core/doc/edits';
import type { Job } from '../src/core/doc/job';
import { backFrom } from '../src/core/plan/backs';
import type { Plan } from '../src/core/plan/summary';
import { studyBeside } from '../src/core/proof/study';
import { websOf } from '../src/core/proof/web';
import { setupView, viewOf } from '../src/core/setup/view';
import { contentLoader } from '../src/server/content';
import { KernelPool } from '../src/server/kernel-pool';
import { row } from './row';
import { planned } from './timing';

/** A board that carries both faces of the plaque and keeps wood between them, mm. */
const THICK = 24;
/** Each is planned so often, one after the other; the least time counts. */
const RUNS = 2;

/** What a web map, and a study of how the board lies, take once both faces are planned. */
async function afterwards(job: Job, plan: Plan): Promise<void> {
  const [solid] = plan.solids;
  const at = performance.now();
  const { web } = websOf(solid, job.boards[0].web, () => false, []);
  const took = (performance.now() - at) / 1000;
  row(`  web of ${(solid.top.length / 1e6).toFixed(1)} million cells`, `${web.toFixed(3)} mm, ${took.toFixed(2)} s`);
  const [board] = job.boards;
  const setups = board.setups.map((setup) => ({
    view: viewOf(job, { board, setup }),
    programs: plan.summary.programs
      .filter((p) => p.setup === setup.id)
      .map(({ file, text, cutter }) => ({ file, text, tool: cutter })),
  }));
  const host = new KernelPool();
  try {
    const begun = performance.now();
    await studyBeside(board, setups, { shift: 0.3, turn: 0.2 }, host);
    row('  study, nine ways to lie', `${((performance.now() - begun) / 1000).toFixed(1)} s`);
  } finally {
    await host.close();
  }
}

/** The demo plaque with one face and with its mirror behind it: what a second face costs, its web, and a study of how it lies. */
export async function benchFaces(): Promise<void> {
  console.log(`\nBoth faces of the demo plaque, 300 x 200 x ${THICK} mm, layers to proof, all cores`);
  const { job: one, files } = (await demoJobs())[0];
  one.boards[0].thickness = THICK;
  const load = contentLoader((h) => files.get(h)!.bytes);
  const both = withEdits(one, backFrom(setupView(one), 'mirror')!.edits);
  const least = { 'one face': Infinity, 'both faces': Infinity };
  let last: Plan | null = null;
  for (let run = 0; run < RUNS; run++) {
    for (const [name, job] of [
      ['one face', one],
      ['both faces', both],
    ] as const) {
      last = null;
      const { plan, seconds } = await planned(job, load);
      least[name] = Math.min(least[name], seconds);
      const told = plan.summary.findings.filter((f) => f.severity !== 'note').map((f) => f.rule);
      const peak = Math.round(process.resourceUsage().maxRSS / 1024);
      row(`  ${name}`, `${seconds.toFixed(1)} s, peak memory ${peak} MB, ${told.join(', ') || 'nothing told'}`);
      if (job === both) last = plan;
    }
  }
  if (last) await afterwards(both, last);
  row('  both over one, least of each (2.1)', (least['both faces'] / least['one face']).toFixed(2));
}
