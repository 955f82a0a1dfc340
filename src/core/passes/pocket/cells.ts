import { cellPlace, type Grid } from '../../field/height-field';
import { type Polygon, rowCrossings } from '../../outline/polygon';
import type { PassContext } from '../context';

/** 1 on a grid's cells whose middles lie inside a polygon, on the ground that is planned. */
export function cellsIn(polygon: Polygon, grid: Grid, ctx: PassContext): Uint8Array {
  const out = new Uint8Array(grid.width * grid.height);
  const rows = rowCrossings(polygon, grid.originY, grid.cell, grid.height);
  for (const [j, cross] of rows.entries()) {
    for (let q = 0; q + 1 < cross.length; q += 2) {
      const from = Math.max(0, Math.ceil((cross[q] - grid.originX) / grid.cell));
      const to = Math.min(grid.width - 1, Math.floor((cross[q + 1] - grid.originX) / grid.cell));
      for (let i = from; i <= to; i++) {
        const k = j * grid.width + i;
        const { x, y } = cellPlace(grid, k);
        if (ctx.here(x, y)) out[k] = 1;
      }
    }
  }
  return out;
}
