import type { Job } from '../doc/job';
import { boardGrid, gridBetween, gridOf } from '../field/height-field';
import { type Found, identify, sortFindings } from '../findings/finding';
import { cellOf } from '../passes/cell';
import { frameBetween, gridThrough, zeroOf } from '../setup/frame';
import { viewOf } from '../setup/view';
import type { LoadContent } from './compose-job';
import { type GivenProgram, givenPrograms } from './given-programs';
import { type DoneSetup, planSetup } from './plan-setup';
import { problems } from './problems';
import { writePrograms } from './programs';
import { provePlan } from './prove-plan';
import type { PlanEnvironment } from './stage';
import { PlanStopped } from './stopped';
import type { Plan, SetupSummary } from './summary';

/** The setups of a job with the grids of each; all setups of a board share their cells, and the proof has cells of its own. */
function inputsOf(job: Job) {
  return job.boards.map((board) => {
    const views = board.setups.map((setup) => viewOf(job, { board, setup }));
    const { cell, wanted } = cellOf({ ...job, board });
    const grid = boardGrid(board.x, board.y, cell);
    const eye = gridBetween(grid);
    return {
      board,
      eye,
      setups: views.map((view) => {
        const frame = frameBetween(board, board.setups[0], view.setup);
        return { view, grid: gridThrough(frame, grid), wanted, eye: gridThrough(frame, eye) };
      }),
    };
  });
}

type BoardInput = ReturnType<typeof inputsOf>[number];

/**
 * The whole way from layers to proven programs, of all boards and setups. A pure function of the document and its files; each stage is
 * keyed by what it depends on, so that a stored result is used again when only later stages have changed.
 * @param load reads a layer's content; called only when a stage needs it
 * @param given programs that are proven instead of those that are planned
 * @throws PlanStopped, ProgramError for a given program that cannot be followed
 */
export async function planJob(
  job: Job,
  load: LoadContent,
  env: PlanEnvironment,
  given: GivenProgram[] | null = null,
): Promise<Plan> {
  const wrong = problems(job);
  if (wrong.some((f) => f.stops)) throw new PlanStopped(wrong);
  const boards = inputsOf(job).filter((b) => b.setups.length > 0);
  const all = boards.flatMap((b) => b.setups);
  const done: DoneSetup[] = [];
  for (const s of all) {
    const from = done.length;
    const progress = (name: string, share: number) =>
      env.progress(all.length > 1 ? `${name}, ${s.view.setup.name}` : name, (0.55 * (from + share)) / all.length);
    done.push(await planSetup(s, load, env, progress));
  }
  env.progress('programs', 0.55);
  const planned = writePrograms(done);
  const { programs, found } = given ? givenPrograms(given, planned, done) : { programs: planned, found: [] };
  env.progress('proof', 0.6);
  const proofs: Awaited<ReturnType<typeof provePlan>>[] = [];
  const setsOf = (b: BoardInput) => done.filter((d) => b.setups.some((s) => s.view === d.view));
  for (const b of boards) proofs.push(await provePlan(b.board, b.eye, setsOf(b), programs, env));
  env.progress('done', 1);
  const summaries: SetupSummary[] = [];
  const surfaces: Plan['surfaces'] = [];
  boards.forEach((b, i) => {
    setsOf(b).forEach((d, k) => {
      const p = proofs[i].setups[k];
      const own = programs.filter((e) => e.setup === d.view.setup.id);
      own.forEach((e, n) => {
        Object.assign(e, p.programs[n]);
      });
      summaries.push(summarise(d, p));
      surfaces.push({
        target: d.target.field,
        mask: d.target.mask,
        cut: p.cut,
        rough: p.rough,
        deviation: p.deviation,
      });
    });
  });
  const said: Found[] = [...found, ...done.flatMap((d) => d.found), ...proofs.flatMap((p) => p.found)];
  return {
    summary: {
      setups: summaries,
      boards: boards.map((b, i) => ({ id: b.board.id, thinnest: proofs[i].thinnest })),
      programs,
      findings: sortFindings([...wrong, ...identify(said, false)]),
      seconds: programs.reduce((s, p) => s + p.seconds, 0),
    },
    surfaces,
    solids: proofs.map((p) => p.solid),
  };
}

function summarise(d: DoneSetup, p: Awaited<ReturnType<typeof provePlan>>['setups'][number]): SetupSummary {
  return {
    id: d.view.setup.id,
    board: d.view.board.id,
    grid: gridOf(d.target.field),
    ground: d.target.ground,
    composite: d.composite,
    zero: zeroOf(d.view.board, d.view.setup),
    passes: d.planned.map((e) => e.summary),
    deepest: p.deepest,
    left: p.left,
    eye: p.eye,
    cutouts: p.cutouts,
  };
}
