import { inRegion, type Region } from '../../arrange/target';
import type { Cutter } from '../../cutter/cutter';
import { cellPlace } from '../../field/height-field';
import { Path, type Step } from '../../motion/path';
import { BARE, clearDown } from '../clear-down';
import type { PassContext } from '../context';
import { highestOver, stockUnder } from '../standing';
import { type Flat, findFlats, markCleared } from './fields';
import type { FlatPass } from './schema';
import { lapWalls, type Walls, wallsOf } from './wall-laps';

/** How far a ring may lie from the line that it follows, mm: wider rings have longer moves and fewer corners to slow down for. */
const WANDER = 0.1;

/**
 * Clears the level fields of the target at exactly their height, by rings of a bit with a flat bottom, in levels of at most the
 * stepdown from what still stands there. The nearest field comes next. Lowers ctx.stock, and marks in ctx.cleared what later
 * finishing passes stay off.
 */
export async function planFlats(
  ctx: PassContext,
  pass: FlatPass,
  cutter: Cutter,
  region: Region,
): Promise<{ path: Path }> {
  const { cell } = ctx.planning;
  const tolerance = Math.max(cell / 2, WANDER);
  const { field, outside } = ctx.target;
  const within = (k: number) => inRegion(region, ctx.mode, cellPlace(field, k), outside[k]);
  const flats = await findFlats(ctx, cutter, tolerance + cell / 2, within);
  const path = new Path();
  const left = new Set(flats);
  if (flats.length === 0) return { path: new Path() };
  const walls = wallsOf(ctx, await ctx.edges(), cutter);
  while (left.size > 0) {
    const f = nearest(left, path, ctx);
    left.delete(f);
    const field: Step = ['level field', flats.length - left.size, flats.length];
    await clearOne(ctx, path, f, { pass, cutter, tolerance, field, walls });
    markCleared(ctx.cleared, ctx.target.field.width, f, pass.overlap, cell);
  }
  if (!path.cuts) return { path: new Path() };
  path.rapid(path.x, path.y, ctx.heights.everything);
  return { path };
}

function firstTip(f: Flat, ctx: PassContext): { x: number; y: number } {
  const k = f.tip.indexOf(1);
  const { originX, originY, cell } = ctx.planning;
  return { x: originX + (f.i + (k % f.width)) * cell, y: originY + (f.j + Math.floor(k / f.width)) * cell };
}

function nearest(left: Set<Flat>, path: Path, ctx: PassContext): Flat {
  let best: Flat | undefined;
  let least = Infinity;
  for (const f of left) {
    const at = firstTip(f, ctx);
    const d = path.moves === 0 ? at.x + at.y : Math.hypot(at.x - path.x, at.y - path.y);
    if (d < least) {
      least = d;
      best = f;
    }
  }
  return best as Flat;
}

async function clearOne(
  ctx: PassContext,
  path: Path,
  f: Flat,
  {
    pass,
    cutter,
    tolerance,
    field,
    walls,
  }: { pass: FlatPass; cutter: Cutter; tolerance: number; field: Step; walls: Walls },
): Promise<void> {
  const { cell, originX, originY } = ctx.planning;
  // One more cell on every side is never the tip's, so that distances end at the window.
  const width = f.width + 2;
  const height = f.height + 2;
  const tip = new Uint8Array(width * height);
  for (let j = 0; j < f.height; j++) tip.set(f.tip.subarray(j * f.width, (j + 1) * f.width), (j + 1) * width + 1);
  const grid = { width, height, cell, originX: originX + (f.i - 1) * cell, originY: originY + (f.j - 1) * cell };
  const bare = await stockUnder(ctx, cutter.diameter / 2, grid);
  const top = highestOver(tip, grid, bare);
  if (top <= f.z + BARE) return;
  const ground = { grid, top, floor: f.z, tipAt: () => tip };
  let moves = path.moves;
  /** Along the walls where rings have been at a level: what is left there stands no higher than they took. */
  const beside = async (z: number) => {
    if (path.moves > moves) await lapWalls(ctx, path, { flat: f, walls, z }, { pass, cutter });
    moves = path.moves;
  };
  await clearDown(ctx, path, ground, { pass, cutter, tolerance, place: field }, { begin: firstTip(f, ctx), beside });
}
