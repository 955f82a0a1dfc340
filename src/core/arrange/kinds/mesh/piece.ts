import type { Layer } from '../../../doc/layer';
import { AIR, type Grid } from '../../../field/height-field';
import { type Affine, invertAffine, placing } from '../../../outline/polygon';
import type { Mesh } from '../../../sources/mesh';
import { trianglesOver } from '../../../sources/mesh-index';
import { type Axes, axesOf, boxOf } from '../../../sources/orient';
import { type Placement, rasterise, rasteriseSome } from '../../../sources/rasterise';
import { BELOW, boxIn, type Piece, type Raster, windowGrid, windowOf } from '../../window';
import type { MeshSource } from './schema';

/** Share of a layer's plan below which a window looks its triangles up first. */
const SMALL = 0.2;

/** The triangles of a mesh over a grid. */
function over(mesh: Mesh, { from: [a, b] }: Axes, g: Grid, { x, y }: Placement): Int32Array {
  // Board places back to the file's plan: two of the placement's columns.
  const at = invertAffine([x[a], y[a], x[b], y[b], x[3], y[3]]);
  const [w, h] = [(g.width - 1) * g.cell, (g.height - 1) * g.cell];
  const corners = [0, 1, 2, 3].map((q) => {
    const [px, py] = [g.originX + (q % 2) * w, g.originY + (q >> 1) * h];
    return [at[0] * px + at[2] * py + at[4], at[1] * px + at[3] * py + at[5]];
  });
  const [u, v] = [0, 1].map((i) => corners.map((c) => c[i]));
  return trianglesOver(mesh, [a, b], {
    u0: Math.min(...u),
    u1: Math.max(...u),
    v0: Math.min(...v),
    v1: Math.max(...v),
  });
}

/** A mesh by exact rasterisation from the file's own corners. */
export function meshPiece(mesh: Mesh, s: MeshSource, l: Layer, frame: Affine, grid: Grid): Piece {
  const box = boxIn(frame, l.size.x, l.size.y);
  const window = windowOf(grid, box.x0, box.y0, box.x1, box.y1);
  const axes = axesOf({ turns: s.turns, mirror: s.flip });
  const { min, max } = boxOf(mesh, axes);
  const span = [0, 1, 2].map((a) => Math.max(max[a] - min[a], 1e-9));
  const base = min[2] + s.base * span[2];
  const rise = l.rise / Math.max(max[2] - base, 1e-9);
  const [a, b, c, d, e, f] = frame;
  const [sx, sy] = [l.size.x / span[0], l.size.y / span[1]];
  const [mx, my] = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  // From file axes: where each turned axis comes from, then the plan's frame.
  const row = (ux: number, uy: number, uz: number, off: number): [number, number, number, number] => {
    const out: [number, number, number, number] = [0, 0, 0, off];
    out[axes.from[0]] += ux * axes.sign[0];
    out[axes.from[1]] += uy * axes.sign[1];
    out[axes.from[2]] += uz * axes.sign[2];
    return out;
  };
  const placement: Placement = {
    x: row(a * sx, c * sy, 0, e - a * sx * mx - c * sy * my),
    y: row(b * sx, d * sy, 0, f - b * sx * mx - d * sy * my),
    z: row(0, 0, rise, -base * rise),
  };
  const g = windowGrid(grid, window);
  const small = g.width * g.height * grid.cell ** 2 < SMALL * l.size.x * l.size.y;
  const { field, thinCells } = small
    ? { field: rasteriseSome(mesh, placement, g, over(mesh, axes, g, placement)), thinCells: 0 }
    : rasterise(mesh, placement, g);
  const h = field.data;
  const slack = l.rise * 1e-6;
  let below: Uint8Array | null = null;
  for (let k = 0; k < h.length; k++) {
    if (h[k] === AIR) continue;
    if (h[k] < -slack) {
      below ??= new Uint8Array(h.length);
      below[k] = 1;
      h[k] = AIR;
      continue;
    }
    h[k] = Math.min(Math.max(h[k], 0), l.rise);
  }
  return { window, heights: h, below, thinCells, edge: null };
}

/** The raster of a mesh for a Content, from its heights over a plan of its own: BELOW where it lies under its base. */
export function rasterOf(mesh: Mesh, s: MeshSource, most: number): Raster {
  const axes = axesOf({ turns: s.turns, mirror: s.flip });
  const { min, max } = boxOf(mesh, axes);
  const [w, h] = [Math.max(max[0] - min[0], 1e-9), Math.max(max[1] - min[1], 1e-9)];
  const cell = Math.max(w, h) / most;
  const grid: Grid = {
    width: Math.max(1, Math.round(w / cell)),
    height: Math.max(1, Math.round(h / cell)),
    cell: 1,
    originX: 0.5,
    originY: 0.5,
  };
  const l = {
    size: { x: grid.width, y: grid.height },
    rise: 1,
    centre: { x: grid.width / 2, y: grid.height / 2 },
  } as Layer;
  const piece = meshPiece(mesh, s, l, placing(1, 1, 0, l.centre.x, l.centre.y), grid);
  const data = new Float32Array(grid.width * grid.height).fill(AIR);
  for (let j = 0; j < piece.window.height; j++) {
    for (let i = 0; i < piece.window.width; i++) {
      const from = j * piece.window.width + i;
      const to = (piece.window.j + j) * grid.width + piece.window.i + i;
      data[to] = piece.below?.[from] ? BELOW : piece.heights[from];
    }
  }
  return { width: grid.width, height: grid.height, data };
}
