import { inRegion, type Region } from '../../arrange/target';
import type { Cutter } from '../../cutter/cutter';
import { distanceInside } from '../../field/distance';
import { cellPlace } from '../../field/height-field';
import { Path, type Step } from '../../motion/path';
import { clearHeights, lowerStock, type PassContext } from '../context';
import { clearByRings, type Level } from '../rings';
import { highestOver, standing, stockUnder } from '../standing';
import { type Flat, findFlats, markCleared } from './fields';
import type { FlatPass } from './schema';

/** How far a ring may lie from the line that it follows, mm: wider rings have longer moves and fewer corners to slow down for. */
const WANDER = 0.1;
/** Stock lower than this over a level is as good as none, mm. */
const BARE = 0.01;

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
  while (left.size > 0) {
    const f = nearest(left, path, ctx);
    left.delete(f);
    const field: Step = ['level field', flats.length - left.size, flats.length];
    await clearOne(ctx, path, f, { pass, cutter, tolerance, field });
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
  { pass, cutter, tolerance, field }: { pass: FlatPass; cutter: Cutter; tolerance: number; field: Step },
): Promise<void> {
  const { cell, originX, originY } = ctx.planning;
  // One more cell on every side is never the tip's, so that distances end at the window.
  const width = f.width + 2;
  const height = f.height + 2;
  const tip = new Uint8Array(width * height);
  for (let j = 0; j < f.height; j++) tip.set(f.tip.subarray(j * f.width, (j + 1) * f.width), (j + 1) * width + 1);
  const grid = { width, height, cell, originX: originX + (f.i - 1) * cell, originY: originY + (f.j - 1) * cell };
  let bare = await stockUnder(ctx, cutter.diameter / 2, grid);
  const top = highestOver(tip, grid, bare);
  if (top <= f.z + BARE) return;
  const steps = Math.max(1, Math.ceil((top - f.z) / pass.stepdown - 1e-6));
  for (let n = 1; n <= steps; n++) {
    const z = n === steps ? f.z : top + ((f.z - top) * n) / steps;
    if (n > 1) bare = await stockUnder(ctx, cutter.diameter / 2, grid);
    // Only what stands higher is taken down: along walls that roughing left stock on, in corners that a larger bit did not enter.
    const here = standing(tip, grid, bare, z + BARE, pass.stepover / 2);
    if (!here.includes(1)) continue;
    const clear = await clearHeights(ctx, cutter.diameter / 2);
    const level: Level = { z, depth: distanceInside(here, width, height), grid };
    const from = path.moves;
    path.at(field, ['level', n, steps]);
    if (path.moves === 0) {
      const at = firstTip(f, ctx);
      path.rapid(at.x, at.y, ctx.heights.everything);
    }
    clearByRings({ path, cutter, clear, heights: ctx.heights }, level, pass, tolerance);
    await lowerStock(ctx, path, from, cutter);
  }
}
