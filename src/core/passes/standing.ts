import { distanceOutside } from '../field/distance';
import { AIR, cellAt, cellPlace, cropField, type Grid, type HeightField } from '../field/height-field';
import { highestWithin, type PassContext } from './context';

/** Cells of a bit's rim that are left out: what stands there is known to half a cell on either side. */
export const RIM = 0.75;
/** Most that is left out on coarse cells, as a share of the radius: a sliver so wide does not count as a bite. */
const SLIVER = 0.2;

/**
 * Highest that stands under a bit of radius R, its rim left out: what stands right beside its way is a wall that stays.
 * @param grid where it is asked for
 */
export function stockUnder(ctx: PassContext, R: number, grid: Grid): Promise<HeightField> {
  const { cell, width, height, originX, originY } = grid;
  const beyond = R + 2 * ctx.stock.cell;
  // Round a drum what lies beyond the seam counts.
  const stands = ctx.stands.drum
    ? ctx.stands
    : cropField(ctx.stands, {
        x0: originX - beyond,
        y0: originY - beyond,
        x1: originX + (width - 1) * cell + beyond,
        y1: originY + (height - 1) * cell + beyond,
      });
  return highestWithin(ctx, stands, Math.max(0.1, R - Math.min(RIM * stands.cell, R * SLIVER)));
}

/** The stock under the bit at a cell of a grid; AIR beyond the board. */
export function stockAt(k: number, grid: Grid, clear: HeightField): number {
  const { x, y } = cellPlace(grid, k);
  return clear.data[cellAt(clear, x, y)] ?? AIR;
}

/** Highest stock under the bit anywhere that its tip may be. */
export function highestOver(tip: Uint8Array, grid: Grid, clear: HeightField): number {
  let high = AIR;
  for (let k = 0; k < tip.length; k++) if (tip[k]) high = Math.max(high, stockAt(k, grid, clear));
  return high;
}

/** Where the tip may be and stands on stock higher than z, and `around` mm more, so that no sliver is left for the next level. */
export function standing(tip: Uint8Array, grid: Grid, clear: HeightField, z: number, around: number): Uint8Array {
  const out = new Uint8Array(tip.length);
  let all = 0;
  let high = 0;
  for (let k = 0; k < tip.length; k++) {
    if (!tip[k]) continue;
    all++;
    if (stockAt(k, grid, clear) > z) high += out[k] = 1;
  }
  // As after roughing, where all of it stands, and at the end, where nothing does: no distances are needed.
  if (high === 0 || high === all) return out;
  const away = distanceOutside(out, grid.width, grid.height);
  for (let k = 0; k < tip.length; k++) out[k] = tip[k] && away[k] * grid.cell <= around ? 1 : 0;
  return out;
}
