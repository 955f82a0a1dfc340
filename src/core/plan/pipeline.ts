import type { Board } from '../doc/board';
import type { Job } from '../doc/job';
import { gridOf } from '../field/height-field';
import { type Found, identify, sortFindings } from '../findings/finding';
import { surfaceOf, undersideOf } from '../proof/solid';
import { frameBetween, gridThrough, zeroOf } from '../setup/frame';
import { viewOf } from '../setup/view';
import type { LoadContent } from './composing';
import { type GivenProgram, givenPrograms } from './given-programs';
import { phaseName } from './phases';
import { type DoneSetup, drawAgain, planSetup, type SetupInput } from './plan-setup';
import { BeyondPlots, type Plots, plotsOf, refuseTooLarge } from './plots';
import { problems } from './problems';
import { type PlannedProgram, writePrograms } from './programs';
import { partsToProve } from './proof-parts';
import { proveOrders } from './prove-orders';
import type { BoardToProve, ProvenSetup } from './prove-plan';
import type { PlanEnvironment } from './stage';
import { PlanStopped } from './stopped';
import { type Plan, type SetupSummary, secondsOf } from './summary';

/** A board with its plots, and its setups as they are planned; all of them share their plots. */
interface BoardInput {
  board: Board;
  plots: Plots;
  setups: SetupInput[];
}

/** @param tries how often the plots of each board have turned out too small, by its id */
function inputsOf(job: Job, tries: Map<string, number>): BoardInput[] {
  return job.boards.map((board) => {
    const plots = plotsOf(job, board, tries.get(board.id));
    const setups = board.setups.map((setup): SetupInput => {
      const frame = frameBetween(board, board.setups[0], setup);
      const through = plots.plots.map((p) => ({ ...p, grid: gridThrough(frame, p.grid) }));
      return { view: viewOf(job, { board, setup }), plots: through };
    });
    return { board, plots, setups };
  });
}

/** A board with its planned setups as the proof looks at them: each target drawn once more on the proof's own cells. */
async function toProve(
  { board, plots }: BoardInput,
  done: DoneSetup[],
  programs: PlannedProgram[],
  load: LoadContent,
  env: PlanEnvironment,
): Promise<BoardToProve> {
  const written = done.flatMap(({ view }) =>
    programs.filter((p) => p.setup === view.setup.id).map((program) => ({ view, program })),
  );
  const at = partsToProve(board, plots, written);
  const setups: BoardToProve['setups'] = [];
  for (const s of done) {
    const frame = frameBetween(board, board.setups[0], s.view.setup);
    const drawn: Awaited<ReturnType<typeof drawAgain>>[] = [];
    for (const g of at.grids) drawn.push(await drawAgain(s, gridThrough(frame, g), load, env));
    setups.push({ ...s, parts: drawn.map((d) => d.part), seen: drawn.map((d) => d.key) });
  }
  return { board, at, setups };
}

/** All setups of a job, planned up to their paths; a board that is cut beyond its plots is planned again on wider ones. */
async function planSetups(
  job: Job,
  load: LoadContent,
  env: PlanEnvironment,
  tries = new Map<string, number>(),
): Promise<{ boards: BoardInput[]; done: DoneSetup[] }> {
  const boards = inputsOf(job, tries).filter((b) => b.setups.length > 0);
  refuseTooLarge(boards.map((b) => b.plots));
  const all = boards.flatMap((b) => b.setups);
  const done: DoneSetup[] = [];
  try {
    for (const s of all) {
      const from = done.length;
      const progress = (name: string, share: number) =>
        env.progress(phaseName(name, s.view.setup.name, all.length > 1), (0.55 * (from + share)) / all.length);
      done.push(await planSetup(s, { load, env, progress, before: done }));
    }
  } catch (e) {
    if (!(e instanceof BeyondPlots)) throw e;
    return planSetups(job, load, env, new Map(tries).set(e.board, (tries.get(e.board) ?? 0) + 1));
  }
  return { boards, done };
}

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
  const { boards, done } = await planSetups(job, load, env);
  env.progress('programs', 0.55);
  const planned = writePrograms(done);
  const { programs, found } = given ? givenPrograms(given, planned, done) : { programs: planned, found: [] };
  env.progress('proof', 0.6);
  const proofs: Awaited<ReturnType<typeof proveOrders>>[] = [];
  const setsOf = (b: BoardInput) => done.filter((d) => b.setups.some((s) => s.view === d.view));
  for (const b of boards)
    proofs.push(await proveOrders(await toProve(b, setsOf(b), programs, load, env), programs, env));
  env.progress('done', 1);
  const summaries: SetupSummary[] = [];
  const surfaces: Plan['surfaces'] = [];
  boards.forEach((b, i) => {
    setsOf(b).forEach((d, k) => {
      const p = proofs[i].setups[k];
      summaries.push(summarise(d, p));
      const { target, mask, cut, rough, deviation, ways } = p;
      const frame = frameBetween(b.board, b.board.setups[0], d.view.setup);
      const { solid } = proofs[i];
      const whole = b.board.setups.length > 1 && {
        top: surfaceOf(solid, frame).data,
        under: undersideOf(solid, frame),
      };
      surfaces.push({ target, mask, cut, rough, deviation, whole: whole || null, ways });
    });
  });
  const said: Found[] = [...found, ...done.flatMap((d) => d.found), ...proofs.flatMap((p) => p.found)];
  return {
    summary: {
      setups: summaries,
      boards: boards.map(({ board: { id } }, i) => {
        const { thinnest, openings, undercuts, turned, otherFirst } = proofs[i];
        return { id, thinnest, openings, undercuts, turned, otherFirst };
      }),
      programs,
      findings: sortFindings([...wrong, ...identify(said, false)]),
      seconds: secondsOf(programs),
    },
    surfaces,
    solids: proofs.map((p) => p.solid),
  };
}

function summarise(d: DoneSetup, p: ProvenSetup): SetupSummary {
  return {
    id: d.view.setup.id,
    board: d.view.board.id,
    grid: gridOf(p.target),
    ground: d.level,
    composite: d.composite,
    zero: zeroOf(d.view.board, d.view.setup),
    passes: d.planned.map((e) => e.summary),
    deepest: p.deepest,
    left: p.left,
    eye: p.eye,
    cutouts: p.cutouts,
  };
}
