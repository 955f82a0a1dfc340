import { cellAt } from '../field/height-field';
import type { Bounds } from '../outline/polygon';
import type { Surface } from './compose';

/** Heights that count as level, mm. */
const LEVEL = 0.02;

export interface FlatField {
  /** The box around it, mm, its edges half a cell beyond the outermost cells' middles. */
  bounds: Bounds;
  height: number;
  /** mm2 */
  area: number;
}

/**
 * The flat area around a place: all cells joined to it whose height is within LEVEL of its own. Null where nothing is level
 * there.
 */
export function flatFieldAt(s: Surface, x: number, y: number): FlatField | null {
  const { grid, z, cover } = s;
  const { width, height, cell, originX, originY } = grid;
  const start = cellAt(grid, x, y);
  if (start < 0) return null;
  const si = start % width;
  const sj = (start - si) / width;
  const level = z[start];
  const ground = cover[start];
  const fits = (k: number) => cover[k] === ground && Math.abs(z[k] - level) <= LEVEL;
  const seen = new Uint8Array(z.length);
  const stack = [start];
  seen[start] = 1;
  let [i0, i1, j0, j1, n] = [si, si, sj, sj, 0];
  // Row by row: runs of level cells are taken whole, and their neighbours above and below are looked at once.
  while (stack.length > 0) {
    const k = stack.pop()!;
    const j = Math.floor(k / width);
    let a = k - j * width;
    let b = a;
    while (a > 0 && !seen[j * width + a - 1] && fits(j * width + a - 1)) seen[j * width + --a] = 1;
    while (b < width - 1 && !seen[j * width + b + 1] && fits(j * width + b + 1)) seen[j * width + ++b] = 1;
    n += b - a + 1;
    if (a < i0) i0 = a;
    if (b > i1) i1 = b;
    if (j < j0) j0 = j;
    if (j > j1) j1 = j;
    for (const q of [j - 1, j + 1]) {
      if (q < 0 || q >= height) continue;
      for (let i = a; i <= b; i++) {
        const m = q * width + i;
        if (seen[m] || !fits(m)) continue;
        seen[m] = 1;
        stack.push(m);
      }
    }
  }
  // A contour line of a slope is level too, but one cell wide.
  if (i1 - i0 < 2 || j1 - j0 < 2) return null;
  return {
    bounds: {
      x0: originX + (i0 - 0.5) * cell,
      x1: originX + (i1 + 0.5) * cell,
      y0: originY + (j0 - 0.5) * cell,
      y1: originY + (j1 + 0.5) * cell,
    },
    height: level,
    area: n * cell * cell,
  };
}

/** Where a layer really is on the board, by the cells that it stands on, mm; null when it is nowhere. */
export function standingBounds(
  r: { window: { i: number; j: number; width: number; height: number }; heights: Float32Array },
  grid: Surface['grid'],
  air: number,
): Bounds | null {
  let [i0, i1, j0, j1] = [Infinity, -1, Infinity, -1];
  const { window: w, heights } = r;
  for (let j = 0; j < w.height; j++) {
    for (let i = 0; i < w.width; i++) {
      if (heights[j * w.width + i] === air) continue;
      if (i < i0) i0 = i;
      if (i > i1) i1 = i;
      if (j < j0) j0 = j;
      if (j > j1) j1 = j;
    }
  }
  if (i1 < 0) return null;
  const x = (i: number) => grid.originX + (w.i + i) * grid.cell;
  const y = (j: number) => grid.originY + (w.j + j) * grid.cell;
  return { x0: x(i0 - 0.5), x1: x(i1 + 0.5), y0: y(j0 - 0.5), y1: y(j1 + 0.5) };
}

/** How far a thing is moved to stand in the middle of a field, and the margins that it then has there, mm. */
export function centring(field: Bounds, standing: Bounds): { dx: number; dy: number; mx: number; my: number } {
  return {
    dx: (field.x0 + field.x1 - standing.x0 - standing.x1) / 2,
    dy: (field.y0 + field.y1 - standing.y0 - standing.y1) / 2,
    mx: (field.x1 - field.x0 - standing.x1 + standing.x0) / 2,
    my: (field.y1 - field.y0 - standing.y1 + standing.y0) / 2,
  };
}
