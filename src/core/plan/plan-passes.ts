import type { Region, Target } from '../arrange/target';
import { type Cutter, ridgeOf } from '../cutter/cutter';
import { plannedCutter } from '../doc/job';
import { bornBy } from '../doc/material';
import { isReserve, type Pass } from '../doc/pass';
import { type Grid, gridOf, type HeightField } from '../field/height-field';
import { entriesOf, MAX_MOVES, type Mark, type MoveKind, type Path, TooManyMoves } from '../motion/path';
import { timeRound } from '../motion/round';
import { type MotionTime, motionTime } from '../motion/time';
import { bearable } from '../passes/bearable';
import { type Finished, makeContext, type PassContext } from '../passes/context';
import type { CutoutFacts } from '../passes/cutout/plan';
import { kindOf } from '../passes/registry';
import type { SetupView } from '../setup/view';
import type { PlanEnvironment, StageResult } from './stage';
import { PlanStopped } from './stopped';

export interface PassSummary extends MotionTime {
  id: string;
  kind: Pass['kind'];
  cutter: string;
  stockToLeave: number;
  stepover: number;
  stepdown: number;
  trench: number;
  /** Ridge that the stepover leaves on a flat, mm; 0 for other passes than finishing. */
  ridge: number;
  moves: number;
  /** How often it goes into the wood, by how. */
  entries: Partial<Record<MoveKind, number>>;
  /** What its kind has to say of it, as plain data. */
  facts: unknown;
}

/** A cut-out's depths, lines and tabs; null for other passes. */
export function cutoutFacts(p: Pick<PassSummary, 'kind' | 'facts'> | undefined): CutoutFacts | null {
  return p?.kind === 'cutout' ? (p.facts as CutoutFacts) : null;
}

type PathMeta = { stock: Grid; marks: Mark[]; finished: Finished } & Omit<PassSummary, 'id'>;

/** A pass with its path: four numbers a move, as Path holds them. */
export interface Planned {
  pass: Pass;
  cutter: Cutter;
  moves: Float64Array;
  /** Where in the pass the path has come to. */
  marks: Mark[];
  summary: PassSummary;
}

/** A setup whose passes are to be planned. */
export interface SetupPlanning {
  view: SetupView;
  target: Target;
  /** Cells of the target that planning raises, as raisedEdges says, each with how far, mm. */
  raised: Float64Array;
  /** Where each pass works; null for passes that have no area. */
  regions: (Region | null)[];
  /** Ids of the passes that are planned. */
  passes: Set<string>;
  /** Stands for the target, the areas and the layers in the keys of stages. */
  key: string;
  shapes: Pick<PassContext, 'grooves' | 'edges' | 'outline' | 'here' | 'under'>;
}

function describePass(
  { view }: SetupPlanning,
  pass: Pass,
  cutter: Cutter,
  { data, kinds }: Path,
): Omit<PassSummary, 'id' | 'facts' | 'trench'> {
  return {
    kind: pass.kind,
    cutter: cutter.id,
    stockToLeave: 'stockToLeave' in pass ? pass.stockToLeave : 0,
    stepover: 'stepover' in pass ? pass.stepover : 0,
    stepdown: 'stepdown' in pass ? pass.stepdown : 0,
    ridge: pass.kind === 'finish' ? ridgeOf(cutter, pass.stepover) : 0,
    ...(view.board.drum
      ? timeRound(data, view.machine, view.board.thickness, kinds)
      : motionTime(data, view.machine, kinds)),
    moves: kinds.length,
    entries: entriesOf(kinds),
  };
}

/** All that the path of a pass depends on besides what stands when it begins. */
async function inputOf(s: SetupPlanning, ctx: PassContext, pass: Pass, cutter: Cutter, region: Region) {
  const { id: _, ...all } = pass;
  // A pass in reserve is cut no otherwise than another.
  const settings = { ...all, reserve: undefined };
  const { board, setup, machine, seat } = s.view;
  const own = kindOf(pass).outline?.(pass);
  return {
    settings,
    cutter,
    trench: region.trench,
    outline: own ? (await ctx.outline(own)).map((r) => Array.from(r)) : null,
    board: { x: board.x, y: board.y, thickness: board.thickness, drum: board.drum },
    under: pass.kind === 'cutout' ? (ctx.under?.key ?? null) : null,
    rampAngle: board.material.rampAngle,
    heights: setup.heights,
    mode: seat.mode,
    machine,
  };
}

/** The ground before the first pass. */
function contextOf({ view, target, raised, shapes }: SetupPlanning, { host }: PlanEnvironment): PassContext {
  const { board, setup, seat, machine } = view;
  const { heights } = setup;
  const { rampAngle } = board.material;
  return makeContext({ target, raised, board, mode: seat.mode, heights, rampAngle, machine, host, ...shapes });
}

/**
 * Plans the passes of a setup on one plot one after the other; what was planned before on the same stock is taken from the store.
 * @returns the passes, and what stands after them with its key
 */
export async function planPasses(
  s: SetupPlanning,
  env: PlanEnvironment,
  progress: (name: string, share: number) => void,
): Promise<{ planned: Planned[]; key: string; stock: HeightField }> {
  const { view, regions } = s;
  const { setup } = view;
  const ctx = contextOf(s, env);
  let key = s.key;
  const out: Planned[] = [];
  for (const [i, pass] of view.passes.entries()) {
    if (!s.passes.has(pass.id)) continue;
    const cutter = bornBy(view.board.material, plannedCutter(view, pass));
    const kind = kindOf(pass);
    const taken = bearable(pass, cutter);
    const before = isReserve(pass) ? setAside(ctx) : null;
    progress(kind.name, i / view.passes.length);
    const region = regions[i] ?? { area: { kind: 'face' }, trench: 0, within: null };
    const input = { before: key, ...(await inputOf(s, ctx, taken, cutter, region)) };
    const done = await env.stage<PathMeta>(pass.kind, input, async () => {
      const { path, facts } = await kind.plan(ctx, taken, cutter, region).catch((e) => {
        if (!(e instanceof TooManyMoves)) throw e;
        const figures = { limit: MAX_MOVES, pass: kind.name, bit: cutter.name };
        const subject = { setup: setup.id, pass: pass.id };
        throw PlanStopped.by({ rule: 'too-many-moves', severity: 'error', subject, place: null, figures, fixes: [] });
      });
      const meta = {
        stock: gridOf(ctx.stock),
        marks: path.marks,
        finished: ctx.finished,
        ...describePass(s, taken, cutter, path),
        trench: region.trench,
        facts,
      };
      // Where no level field has been cleared there is nothing to be kept of it.
      const cleared = ctx.cleared.includes(1) ? ctx.cleared : new Uint8Array(0);
      return { meta, arrays: { moves: path.data.slice(), stock: ctx.stock.data, stands: ctx.stands.data, cleared } };
    });
    const { meta, arrays } = done.result;
    const { stock: _, finished: __, marks, ...summary } = meta;
    out.push({ pass, cutter, marks, moves: arrays.moves as Float64Array, summary: { ...summary, id: pass.id } });
    if (before) {
      Object.assign(ctx, before);
      continue;
    }
    key = done.key;
    take(ctx, done.result);
    ctx.worked ||= kind.needsLayers && arrays.moves.length > 0;
  }
  return { planned: out, key, stock: ctx.stock };
}

/** Goes on from what a pass has left; what is planned next changes it in place. */
function take(ctx: PassContext, { meta, arrays }: StageResult<PathMeta>): void {
  ctx.stock = { ...meta.stock, data: (arrays.stock as Float32Array).slice() };
  ctx.stands = { ...meta.stock, data: (arrays.stands as Float32Array).slice() };
  if (arrays.cleared.length > 0) ctx.cleared = (arrays.cleared as Uint8Array).slice();
  ctx.finished = meta.finished;
}

/** What stands before a pass in reserve: what comes after it finds that, not what it leaves. */
function setAside({ stock, stands, cleared, finished, worked }: PassContext): Partial<PassContext> {
  return {
    stock: { ...stock, data: stock.data.slice() },
    stands: { ...stands, data: stands.data.slice() },
    cleared: cleared.slice(),
    finished,
    worked,
  };
}
