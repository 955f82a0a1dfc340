import { AIR, cellAt, type Grid, type HeightField, makeField } from '../field/height-field';
import type { Mesh } from './mesh';

/** Where file coordinates land, mm: the rows of x', y' and z', each a x + b y + c z + d. */
export interface Placement {
  x: [number, number, number, number];
  y: [number, number, number, number];
  z: [number, number, number, number];
}

export interface Rastered {
  field: HeightField;
  /** Cells near which a corner of the mesh stands more than `thinTolerance` above every sample around it. */
  thinCells: number;
}

/**
 * Exact orthographic height field of a mesh's top surface: at each cell's centre the highest point of any triangle over
 * it, edges and corners included; AIR where there is none. Edge functions are evaluated with their ends in a fixed
 * order, so that two triangles sharing an edge agree on every point and no hole opens between them.
 * @param thinTolerance mm that a feature may stand above the samples before it is counted as lost
 */
export function rasterise(mesh: Mesh, p: Placement, grid: Grid, thinTolerance = 0.25): Rastered {
  const field = makeField(grid, AIR);
  draw(mesh, p, field, null);
  return { field, thinCells: countThin(mesh, p, field, thinTolerance) };
}

/** The same for a window in which only some triangles can lie, given as places of their first number. Thin features are not looked for. */
export function rasteriseSome(mesh: Mesh, p: Placement, grid: Grid, only: Int32Array): HeightField {
  const field = makeField(grid, AIR);
  draw(mesh, p, field, only);
  return field;
}

function draw(mesh: Mesh, p: Placement, grid: HeightField, only: Int32Array | null): void {
  const { width, height, cell, originX, originY } = grid;
  const { data } = grid;
  const v = mesh.triangles;
  // Cell units in plan: cell (i, j) has its centre at (i, j).
  const X = p.x.map((m, i) => (m - (i === 3 ? originX : 0)) / cell);
  const Y = p.y.map((m, i) => (m - (i === 3 ? originY : 0)) / cell);
  const Z = p.z;
  const n = only ? only.length : v.length / 9;
  for (let s = 0; s < n; s++) {
    const t = only ? only[s] : 9 * s;
    const x0 = v[t] * X[0] + v[t + 1] * X[1] + v[t + 2] * X[2] + X[3];
    const y0 = v[t] * Y[0] + v[t + 1] * Y[1] + v[t + 2] * Y[2] + Y[3];
    const z0 = v[t] * Z[0] + v[t + 1] * Z[1] + v[t + 2] * Z[2] + Z[3];
    const x1 = v[t + 3] * X[0] + v[t + 4] * X[1] + v[t + 5] * X[2] + X[3];
    const y1 = v[t + 3] * Y[0] + v[t + 4] * Y[1] + v[t + 5] * Y[2] + Y[3];
    const z1 = v[t + 3] * Z[0] + v[t + 4] * Z[1] + v[t + 5] * Z[2] + Z[3];
    const x2 = v[t + 6] * X[0] + v[t + 7] * X[1] + v[t + 8] * X[2] + X[3];
    const y2 = v[t + 6] * Y[0] + v[t + 7] * Y[1] + v[t + 8] * Y[2] + Y[3];
    const z2 = v[t + 6] * Z[0] + v[t + 7] * Z[1] + v[t + 8] * Z[2] + Z[3];
    const area = edge(x0, y0, x1, y1, x2, y2);
    if (area === 0) continue;
    const sign = area > 0 ? 1 : -1;
    const top = Math.max(z0, z1, z2);
    const low = Math.min(z0, z1, z2);
    const i0 = Math.max(0, Math.ceil(Math.min(x0, x1, x2)));
    const i1 = Math.min(width - 1, Math.floor(Math.max(x0, x1, x2)));
    const j0 = Math.max(0, Math.ceil(Math.min(y0, y1, y2)));
    const j1 = Math.min(height - 1, Math.floor(Math.max(y0, y1, y2)));
    for (let j = j0; j <= j1; j++) {
      for (let i = i0; i <= i1; i++) {
        const w0 = edge(x1, y1, x2, y2, i, j) * sign;
        const w1 = edge(x2, y2, x0, y0, i, j) * sign;
        const w2 = edge(x0, y0, x1, y1, i, j) * sign;
        if (w0 < 0 || w1 < 0 || w2 < 0) continue;
        const z = (w0 * z0 + w1 * z1 + w2 * z2) / (w0 + w1 + w2);
        const k = j * width + i;
        const h = z > top ? top : z < low ? low : z;
        if (h > data[k]) data[k] = h;
      }
    }
  }
}

/** Twice the signed area of (a, b, c); the same magnitude, to the last bit, whichever end of the edge comes first. */
function edge(ax: number, ay: number, bx: number, by: number, cx: number, cy: number): number {
  if (ax < bx || (ax === bx && ay <= by)) return (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
  return -((ax - bx) * (cy - by) - (ay - by) * (cx - bx));
}

function countThin(mesh: Mesh, p: Placement, f: HeightField, tolerance: number): number {
  const lost = new Uint8Array(f.data.length);
  const v = mesh.triangles;
  const { x: X, y: Y, z: Z } = p;
  for (let t = 0; t < v.length; t += 3) {
    const x = v[t] * X[0] + v[t + 1] * X[1] + v[t + 2] * X[2] + X[3];
    const y = v[t] * Y[0] + v[t + 1] * Y[1] + v[t + 2] * Y[2] + Y[3];
    const k = cellAt(f, x, y);
    const i = k % f.width;
    // The outermost cells are left out: a vertex there has no neighbours on all sides.
    if (k < f.width || k >= f.data.length - f.width || i < 1 || i > f.width - 2) continue;
    const z = v[t] * Z[0] + v[t + 1] * Z[1] + v[t + 2] * Z[2] + Z[3] - tolerance;
    if (f.data[k] >= z) continue;
    let seen = false;
    for (let dj = -1; dj <= 1 && !seen; dj++) {
      for (let di = -1; di <= 1 && !seen; di++) seen = f.data[k + dj * f.width + di] >= z;
    }
    if (!seen) lost[k] = 1;
  }
  return lost.reduce((n, l) => n + l, 0);
}
