import type { Grid } from '../field/height-field';
import { crossings, type Polygon } from '../outline/polygon';

/** Whether places lie in a polygon, looked up on cells. */
export interface CellsWithin {
  grid: Grid;
  cells: Uint8Array;
}

/** The cells of a grid whose middles lie in a polygon (even-odd). */
export function cellsWithin(polygon: Polygon, grid: Grid): CellsWithin {
  const { width, height, cell, originX, originY } = grid;
  const cells = new Uint8Array(width * height);
  for (let j = 0; j < height; j++) {
    const row = crossings(polygon, originY + j * cell);
    for (let q = 0; q + 1 < row.length; q += 2) {
      const i0 = Math.max(0, Math.ceil((row[q] - originX) / cell));
      const i1 = Math.min(width - 1, Math.floor((row[q + 1] - originX) / cell));
      if (i1 >= i0) cells.fill(1, j * width + i0, j * width + i1 + 1);
    }
  }
  return { grid, cells };
}
