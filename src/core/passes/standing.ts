import { distanceOutside } from '../field/distance';
import { AIR, type HeightField } from '../field/height-field';
import type { Level } from './clear-level';
import { clearHeights, type PassContext } from './context';

/**
 * Highest stock under a bit of radius R, its rim left out: what stands right beside its way is a wall that stays, or known too
 * coarsely to count.
 */
export function stockUnder(ctx: PassContext, R: number): Promise<HeightField> {
  return clearHeights(ctx, Math.max(0.1, R - 3 * ctx.stock.cell));
}

/** The stock under the bit at a cell of a grid; AIR beyond the board. */
function stockAt(k: number, grid: Level['grid'], clear: Level['clear']): number {
  const i = Math.round((grid.originX + (k % grid.width) * grid.cell - clear.originX) / clear.cell);
  const j = Math.round((grid.originY + Math.floor(k / grid.width) * grid.cell - clear.originY) / clear.cell);
  if (i < 0 || j < 0 || i >= clear.width || j >= clear.height) return AIR;
  return clear.data[j * clear.width + i];
}

/** Highest stock under the bit anywhere that its tip may be. */
export function highestOver(tip: Uint8Array, grid: Level['grid'], clear: Level['clear']): number {
  let high = AIR;
  for (let k = 0; k < tip.length; k++) if (tip[k]) high = Math.max(high, stockAt(k, grid, clear));
  return high;
}

/** Where the tip may be and stands on stock higher than z, and `around` mm more, so that no sliver is left for the next level. */
export function standing(
  tip: Uint8Array,
  grid: Level['grid'],
  clear: Level['clear'],
  z: number,
  around: number,
): Uint8Array {
  const high = tip.map((v, k) => (v && stockAt(k, grid, clear) > z ? 1 : 0));
  if (!high.includes(1)) return high;
  const away = distanceOutside(high, grid.width, grid.height);
  return tip.map((v, k) => (v && away[k] * grid.cell <= around ? 1 : 0));
}
