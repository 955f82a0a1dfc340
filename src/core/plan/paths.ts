import type { Region, Target } from '../arrange/target';
import { type Cutter, scallop, tipRadius } from '../cutter/cutter';
import { type Grid, gridOf } from '../field/height-field';
import type { Path } from '../motion/path';
import { motionTime } from '../motion/time';
import { planFlats } from '../passes/clear-flats';
import { makeContext, type PassContext } from '../passes/context';
import { type CutoutFacts, planCutout } from '../passes/cutout';
import { planFinish } from '../passes/finish';
import { planHoles } from '../passes/holes';
import { type LetterEdge, planLetters } from '../passes/letters';
import { planRough } from '../passes/rough';
import { planSkim } from '../passes/skim';
import { cutterOf, type Job } from './job';
import { placeFor } from './order';
import type { FlatPass, Pass } from './pass';
import { proposeFlat } from './propose';
import type { PlanEnvironment, StageResult } from './stage';

export interface PassSummary {
  id: string;
  kind: Pass['kind'];
  cutter: string;
  stockToLeave: number;
  stepover: number;
  stepdown: number;
  trench: number;
  /** Ridge that the stepover leaves on a flat, mm; 0 for roughing. */
  ridge: number;
  seconds: number;
  naiveSeconds: number;
  cutLength: number;
  rapidLength: number;
  cutSeconds: number;
  rapidSeconds: number;
  moves: number;
  /** A cut-out's depths, lines and tabs; null for other passes. */
  cutout: CutoutFacts | null;
  /** Edges of the ground that letters run over. */
  edges: LetterEdge[];
}

type PathMeta = { stock: Grid } & Omit<PassSummary, 'id'>;

/** A pass with its path: four numbers a move, as Path holds them. */
export interface Planned {
  pass: Pass;
  cutter: Cutter;
  moves: Float64Array;
  summary: PassSummary;
}

const DOING: Record<Pass['kind'], string> = {
  skim: 'skimming',
  rough: 'roughing',
  flat: 'flats',
  finish: 'finishing',
  letter: 'letters',
  hole: 'holes',
  cutout: 'cut-out',
};

function planPass(
  ctx: PassContext,
  pass: Pass,
  cutter: Cutter,
  region: Region,
): Promise<{ path: Path; cutout?: CutoutFacts; edges?: LetterEdge[] }> {
  switch (pass.kind) {
    case 'rough':
      return planRough(ctx, pass, cutter, region);
    case 'flat':
      return planFlats(ctx, pass, cutter, region);
    case 'finish':
      return planFinish(ctx, pass, cutter, region);
    case 'letter':
      return planLetters(ctx, pass, cutter);
    case 'skim':
      return Promise.resolve({ path: planSkim(pass, cutter, ctx.board) });
    case 'hole':
      return planHoles(ctx, pass, cutter);
    case 'cutout':
      return planCutout(ctx, pass, cutter);
  }
}

function describePass(
  pass: Pass,
  cutter: Cutter,
  trench: number,
  moves: Float64Array,
  job: Job,
): Omit<PassSummary, 'id' | 'cutout' | 'edges'> {
  const R = tipRadius(cutter);
  return {
    kind: pass.kind,
    cutter: cutter.id,
    stockToLeave: pass.kind === 'rough' ? pass.stockToLeave : 0,
    stepover: 'stepover' in pass ? pass.stepover : 0,
    stepdown: 'stepdown' in pass ? pass.stepdown : 0,
    trench,
    ridge: pass.kind === 'finish' && R > 0 ? scallop(R, pass.stepover) : 0,
    ...motionTime(moves, job.machine),
    moves: moves.length / 4,
  };
}

/** Plans the passes of a job one after the other; what was planned before on the same stock is taken from the store. */
export class PassPlanner {
  private readonly planned = new Map<string, { key: string; result: StageResult<PathMeta> }>();

  constructor(
    private readonly job: Job,
    private readonly target: Target,
    /** Where each pass works. */
    private readonly regions: (Region | null)[],
    private readonly seated: string,
    private readonly env: PlanEnvironment,
    private readonly shapes: Pick<PassContext, 'grooves' | 'outline'>,
  ) {}

  /** Where a pass works: by its id, or as one that the job does not have. */
  private regionOf(pass: Pass): Region {
    const at = this.job.passes.findIndex((p) => p.id === pass.id);
    return this.regions[at] ?? { area: 'area' in pass ? pass.area : { kind: 'face' }, trench: 0, within: null };
  }

  /** @param passes the job's own, or others to compare with */
  async plan(passes: Pass[], progress: (name: string, share: number) => void): Promise<Planned[]> {
    const { job, target, env } = this;
    const ctx = makeContext(target, job.board, job.seat.mode, env.host, this.shapes);
    let key = this.seated;
    const out: Planned[] = [];
    for (let i = 0; i < passes.length; i++) {
      const pass = passes[i];
      const cutter = cutterOf(job, pass);
      progress(DOING[pass.kind], i / passes.length);
      const { id: _, ...settings } = pass;
      const region = this.regionOf(pass);
      const outline = pass.kind === 'cutout' ? (await ctx.outline(pass.outline)).map((r) => Array.from(r)) : null;
      const { thickness } = job.board;
      const input = { before: key, settings, trench: region.trench, outline, thickness, cutter, machine: job.machine };
      const name = JSON.stringify([pass.kind, input]);
      const done =
        this.planned.get(name) ??
        (await env.stage<PathMeta>(pass.kind, input, async () => {
          const { path, cutout = null, edges = [] } = await planPass(ctx, pass, cutter, region);
          const facts = describePass(pass, cutter, region.trench, path.data, job);
          const meta = { stock: gridOf(ctx.stock), ...facts, cutout, edges };
          return { meta, arrays: { moves: path.data.slice(), stock: ctx.stock.data, cleared: ctx.cleared } };
        }));
      this.planned.set(name, done);
      key = done.key;
      // What is planned next changes them in place.
      ctx.stock = { ...done.result.meta.stock, data: (done.result.arrays.stock as Float32Array).slice() };
      ctx.cleared = (done.result.arrays.cleared as Uint8Array).slice();
      ctx.worked ||= pass.kind !== 'skim' && done.result.arrays.moves.length > 0;
      const { stock: __, ...summary } = done.result.meta;
      out.push({
        pass,
        cutter,
        moves: done.result.arrays.moves as Float64Array,
        summary: { ...summary, id: pass.id },
      });
    }
    return out;
  }
}

export interface FlatSaving {
  /** Seconds that clearing the level fields with a flat bit takes off the job; negative when it adds some. */
  saves: number;
  /** The pass that would do it; null when the job has one already. */
  offer: FlatPass | null;
}

const total = (planned: Planned[]) => planned.reduce((s, p) => s + p.summary.seconds, 0);

/**
 * What clearing the level fields saves: the job's own passes against the same without it, or, where it is not done yet, against the
 * same with a pass proposed for it. Both are planned; their times are the look-ahead's.
 */
export async function compareFlats(job: Job, planned: Planned[], planner: PassPlanner): Promise<FlatSaving | null> {
  const quiet = () => {};
  const without = job.passes.filter((p) => p.kind !== 'flat');
  if (without.length < job.passes.length)
    return { saves: total(await planner.plan(without, quiet)) - total(planned), offer: null };
  const offer = proposeFlat(job);
  if (!offer) return null;
  const passes = job.passes.slice();
  passes.splice(placeFor(passes, 'flat'), 0, offer);
  const other = await planner.plan(passes, quiet);
  const flat = other.find((p) => p.pass === offer);
  return flat && flat.moves.length > 0 ? { saves: total(planned) - total(other), offer } : null;
}
