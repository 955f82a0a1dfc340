import { unrolled } from '../field/drum';
import type { Grid } from '../field/height-field';
import { crossings, type Polygon, polygonBounds } from '../outline/polygon';

/** Whether places lie in a polygon, looked up on cells. */
export interface CellsWithin {
  grid: Grid;
  cells: Uint8Array;
}

/** How far a polygon is moved, mm along y, so that all of it is met on a grid: round a drum once for every turn in which it lies. */
function turnsOf(polygon: Polygon, { drum, originY, height, cell }: Grid): number[] {
  if (!drum || polygon.length === 0) return [0];
  const turn = unrolled(drum.radius);
  const { y0, y1 } = polygonBounds(polygon);
  const out: number[] = [];
  for (let t = Math.ceil((originY - y1) / turn); y0 + t * turn <= originY + height * cell; t++) out.push(t * turn);
  return out;
}

/** The cells of a grid whose middles lie in a polygon (even-odd); round a drum what reaches over the seam lies on its other side too. */
export function cellsWithin(polygon: Polygon, grid: Grid): CellsWithin {
  const { width, height, cell, originX, originY } = grid;
  const cells = new Uint8Array(width * height);
  const turns = turnsOf(polygon, grid);
  for (let j = 0; j < height; j++) {
    for (const moved of turns) {
      const row = crossings(polygon, originY + j * cell - moved);
      for (let q = 0; q + 1 < row.length; q += 2) {
        const i0 = Math.max(0, Math.ceil((row[q] - originX) / cell));
        const i1 = Math.min(width - 1, Math.floor((row[q + 1] - originX) / cell));
        if (i1 >= i0) cells.fill(1, j * width + i0, j * width + i1 + 1);
      }
    }
  }
  return { grid, cells };
}
