import type { Cutter } from '../cutter/cutter';
import { distanceInside } from '../field/distance';
import type { Grid } from '../field/height-field';
import type { Path, Step } from '../motion/path';
import { clearHeights, lowerStock, type PassContext } from './context';
import type { Level } from './loops';
import { clearByRings, hopOver, type Rings } from './rings';
import { standing, stockUnder } from './standing';
import { RIB, Wood } from './wood';

/** Stock lower than this over a level is as good as none, mm. */
export const BARE = 0.01;

/** Ground that is cleared level by level, from what stands there down to a floor, mm. */
export interface Ground {
  grid: Grid;
  top: number;
  floor: number;
  /** 1 on the grid where the tip may be at a height. */
  tipAt(z: number): Uint8Array;
}

/** How it is cleared, with what, how far rings may wander from the lines that they follow, mm, and what the program calls it. */
export interface Clearing {
  pass: Rings & { stepdown: number };
  cutter: Cutter;
  tolerance: number;
  place: Step;
}

/**
 * Clears ground by rings in even levels of at most the stepdown, each only where something stands over it. Lowers ctx.stock.
 * @param begin where a path begins that has no move yet
 * @param beside what else is to be done at a level once it is cleared
 */
export async function clearDown(
  ctx: PassContext,
  path: Path,
  { grid, top, floor, tipAt }: Ground,
  { pass, cutter, tolerance, place }: Clearing,
  { begin, beside }: { begin: { x: number; y: number }; beside?: (z: number) => Promise<void> },
): Promise<void> {
  const wood = new Wood(ctx.stands, cutter, path, RIB, grid);
  const hop = hopOver(ctx, cutter);
  const steps = Math.max(1, Math.ceil((top - floor) / pass.stepdown - 1e-6));
  for (let n = 1; n <= steps; n++) {
    const z = n === steps ? floor : top + ((floor - top) * n) / steps;
    const bare = await stockUnder(ctx, cutter.diameter / 2, grid);
    // Only what stands higher is taken down: along walls that roughing left stock on, in corners that a larger bit did not enter.
    const here = standing(tipAt(z), grid, bare, z + BARE, pass.stepover / 2);
    path.at(place, ['level', n, steps]);
    if (here.includes(1)) {
      const clear = await clearHeights(ctx, cutter.diameter / 2);
      const level: Level = { z, depth: distanceInside(here, grid.width, grid.height), grid, wood, hop };
      const from = path.moves;
      if (path.moves === 0) path.rapid(begin.x, begin.y, ctx.heights.everything);
      clearByRings({ path, cutter, clear, heights: ctx.heights }, level, pass, tolerance);
      await lowerStock(ctx, path, from, cutter);
    }
    await beside?.(z);
  }
}
