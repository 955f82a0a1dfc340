import { distanceInside, distanceOutside } from '../field/distance';
import { AIR, type Grid, makeField } from '../field/height-field';
import { type Nearest, NearestOutline } from '../outline/nearest';
import {
  type Affine,
  applyAffine,
  crossings,
  invertAffine,
  type Polygon,
  placing,
  polygonBounds,
} from '../outline/polygon';
import { outlinePolygon, workEdge } from '../outline/shapes';
import type { HeightImage } from '../sources/height-image';
import type { Mesh } from '../sources/mesh';
import { axesOf, boxOf } from '../sources/orient';
import { rasterise } from '../sources/rasterise';
import { copiesOf } from './copies';
import type { Layer, MeshSource } from './layer';
import { needsOf, type ReliefOf, reachOf, reliefAt } from './relief-of';

/** What a layer's source holds when it is read: a file's mesh or toned image, a mesh's picture from above, or words' outlines. */
export interface Content {
  mesh?: Mesh;
  image?: HeightImage;
  /** A mesh as seen from above in its own plan: heights 0..1 over its base, AIR outside, BELOW where it lies under the base. */
  raster?: { width: number; height: number; data: Float32Array };
  polygon?: Polygon;
}

/** Marks what of a mesh lies under its base plane in a raster. */
export const BELOW = -2;

/** A window of a grid: its first cell, and how many. */
export interface Window {
  i: number;
  j: number;
  width: number;
  height: number;
}

/** A layer on the board's grid, only where it is. */
export interface Rendered {
  window: Window;
  /** Heights over its own foot, mm; AIR where it has nothing. */
  heights: Float32Array;
  /** How much of it counts, 0..1; null where it is all or nothing. */
  weight: Float32Array | null;
  /** 1 where a mesh lies under its own base plane; null when nothing does. */
  below: Uint8Array | null;
  /** Share of a mesh's plan under its base plane. */
  lostPlan: number;
  /** Places of a mesh thinner than a cell. */
  thinCells: number;
}

const EMPTY: Window = { i: 0, j: 0, width: 0, height: 0 };

/** The window of a grid that holds a box of the board, one cell more on every side, cut to the grid. */
export function windowOf(grid: Grid, x0: number, y0: number, x1: number, y1: number): Window {
  const i = Math.max(0, Math.floor((x0 - grid.originX) / grid.cell) - 1);
  const j = Math.max(0, Math.floor((y0 - grid.originY) / grid.cell) - 1);
  const i1 = Math.min(grid.width, Math.ceil((x1 - grid.originX) / grid.cell) + 2);
  const j1 = Math.min(grid.height, Math.ceil((y1 - grid.originY) / grid.cell) + 2);
  return i1 <= i || j1 <= j ? EMPTY : { i, j, width: i1 - i, height: j1 - j };
}

/** The grid of a window of a grid. */
function windowGrid(grid: Grid, w: Window): Grid {
  return {
    width: w.width,
    height: w.height,
    cell: grid.cell,
    originX: grid.originX + w.i * grid.cell,
    originY: grid.originY + w.j * grid.cell,
  };
}

/** From a layer's own frame (mm from its middle) to the board, for one of its copies. */
function frameOf(l: Layer, c: { dx: number; dy: number; turn: number }): Affine {
  const a = (l.turn * Math.PI) / 180;
  const x = l.centre.x + c.dx * Math.cos(a) - c.dy * Math.sin(a);
  const y = l.centre.y + c.dx * Math.sin(a) + c.dy * Math.cos(a);
  return placing(l.mirror ? -1 : 1, 1, l.turn + c.turn, x, y);
}

/** The box on the board of a box of `x` by `y` mm around a frame's middle. */
function boxIn([a, b, c, d, e, f]: Affine, x: number, y: number) {
  const w = (Math.abs(a) * x + Math.abs(c) * y) / 2;
  const h = (Math.abs(b) * x + Math.abs(d) * y) / 2;
  return { x0: e - w, y0: f - h, x1: e + w, y1: f + h };
}

interface Piece {
  window: Window;
  heights: Float32Array;
  below: Uint8Array | null;
  thinCells: number;
  /** Exact distance from the outline, where the source has one and it was asked for. */
  edge: Float32Array | null;
}

/** A mesh by exact rasterisation from the file's own corners. */
function meshPiece(mesh: Mesh, s: MeshSource, l: Layer, frame: Affine, grid: Grid): Piece {
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
  const { field, thinCells } = rasterise(
    mesh,
    {
      x: row(a * sx, c * sy, 0, e - a * sx * mx - c * sy * my),
      y: row(b * sx, d * sy, 0, f - b * sx * mx - d * sy * my),
      z: row(0, 0, rise, -base * rise),
    },
    windowGrid(grid, window),
  );
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

interface Picture {
  width: number;
  height: number;
  values: Float32Array;
}

/** Smaller copies of pictures, kept as long as the picture itself. */
const SMALLER = new WeakMap<Float32Array, Picture>();

/** A picture of half the size: each pixel the mean of four, what is left out left out where it is most. */
function halved(p: Picture): Picture {
  const had = SMALLER.get(p.values);
  if (had) return had;
  const width = Math.max(1, p.width >> 1);
  const height = Math.max(1, p.height >> 1);
  const values = new Float32Array(width * height);
  for (let j = 0; j < height; j++) {
    const r0 = Math.min(p.height - 1, 2 * j) * p.width;
    const r1 = Math.min(p.height - 1, 2 * j + 1) * p.width;
    for (let i = 0; i < width; i++) {
      const c0 = Math.min(p.width - 1, 2 * i);
      const c1 = Math.min(p.width - 1, 2 * i + 1);
      let sum = 0;
      let n = 0;
      let out = 0;
      for (let q = 0; q < 4; q++) {
        const v = p.values[(q < 2 ? r0 : r1) + (q % 2 === 0 ? c0 : c1)];
        if (v < 0) out = v;
        else {
          sum += v;
          n++;
        }
      }
      values[j * width + i] = n >= 2 ? sum / n : out;
    }
  }
  const small = { width, height, values };
  SMALLER.set(p.values, small);
  return small;
}

/**
 * A picture stretched over the layer's box, bilinear between pixels. Where pixels are finer than cells their mean is taken, so
 * that nothing aliases: from a smaller copy first, then over the cell.
 * @param sampled a mesh seen from above is read at the cells' middles, as its exact rasterisation is
 * @param up whether its first row is the southernmost
 */
function picturePiece(
  pic: Picture,
  l: Layer,
  frame: Affine,
  grid: Grid,
  ground: boolean,
  sampled: boolean,
  up: boolean,
): Piece {
  const box = boxIn(frame, l.size.x, l.size.y);
  const window = windowOf(grid, box.x0, box.y0, box.x1, box.y1);
  const g = windowGrid(grid, window);
  const heights = makeField(g, AIR).data;
  let below: Uint8Array | null = null;
  const [a, b, c, d, e, f] = invertAffine(frame);
  const finer = () => Math.max(pic.width / l.size.x, pic.height / l.size.y) * grid.cell;
  if (!sampled) while (finer() >= 4) pic = halved(pic);
  const { width, height, values } = pic;
  const px = width / l.size.x;
  const py = height / l.size.y;
  const n = sampled ? 1 : Math.max(1, Math.round(finer()));
  const slack = ground ? 1e-6 : -1;
  const [lastX, lastY] = [Math.max(0, width - 2), Math.max(0, height - 2)];
  for (let j = 0; j < g.height; j++) {
    const y = g.originY + j * g.cell;
    for (let i = 0; i < g.width; i++) {
      const x = g.originX + i * g.cell;
      const u0 = (a * x + c * y + e) * px + width / 2;
      const w0 = (b * x + d * y + f) * py;
      const v0 = up ? w0 + height / 2 : height / 2 - w0;
      if (u0 < 0 || v0 < 0 || u0 > width || v0 > height) continue;
      let sum = 0;
      let seen = 0;
      for (let q = 0; q < n * n; q++) {
        // Even samples over the cell, in the picture's own axes.
        const u = n === 1 ? u0 : u0 + (((q % n) + 0.5) / n - 0.5) * grid.cell * px;
        const v = n === 1 ? v0 : v0 + ((Math.floor(q / n) + 0.5) / n - 0.5) * grid.cell * py;
        const cu = u < 0.5 ? 0 : u > width - 0.5 ? width - 1 : u - 0.5;
        const cv = v < 0.5 ? 0 : v > height - 0.5 ? height - 1 : v - 0.5;
        const i0 = cu >= lastX ? lastX : Math.floor(cu);
        const j0 = cv >= lastY ? lastY : Math.floor(cv);
        const fu = cu - i0;
        const fv = cv - j0;
        const k = j0 * width + i0;
        const right = width > 1 ? 1 : 0;
        const down = height > 1 ? width : 0;
        const p00 = values[k];
        const p10 = values[k + right];
        const p01 = values[k + down];
        const p11 = values[k + down + right];
        if (p00 < 0 || p10 < 0 || p01 < 0 || p11 < 0) {
          // Beside what is left out the nearest pixel decides: nothing is mixed with the mark.
          const near = fu < 0.5 ? (fv < 0.5 ? p00 : p01) : fv < 0.5 ? p10 : p11;
          if (near === BELOW) {
            below ??= new Uint8Array(heights.length);
            below[j * g.width + i] = 1;
          }
          if (near < 0) continue;
          sum += near;
        } else sum += (p00 * (1 - fu) + p10 * fu) * (1 - fv) + (p01 * (1 - fu) + p11 * fu) * fv;
        seen++;
      }
      if (seen === 0 || seen < (n * n) / 2) continue;
      const h = sum / seen;
      if (h > slack) heights[j * g.width + i] = h * l.rise;
    }
  }
  return { window, heights, below, thinCells: 0, edge: null };
}

/** Furthest that a place inside a polygon lies from its edge, mm: searched on a grid, then around the best. */
function innerRadius(p: Polygon, near: NearestOutline): number {
  const b = polygonBounds(p);
  const N = 96;
  const out: Nearest = { distance: 0, along: 0, ring: 0 };
  let best = 0;
  let [bx, by] = [(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2];
  const probe = (x: number, y: number, row: number[]) => {
    let inside = false;
    for (const c of row) if (c <= x) inside = !inside;
    if (!inside) return;
    const d = near.find(x, y, out).distance;
    if (d > best) {
      best = d;
      bx = x;
      by = y;
    }
  };
  for (let j = 0; j < N; j++) {
    const y = b.y0 + ((j + 0.5) / N) * (b.y1 - b.y0);
    const row = crossings(p, y);
    for (let i = 0; i < N; i++) probe(b.x0 + ((i + 0.5) / N) * (b.x1 - b.x0), y, row);
  }
  for (let step = Math.max(b.x1 - b.x0, b.y1 - b.y0) / N; step > 1e-3; step /= 2) {
    const [x, y] = [bx, by];
    for (const dy of [-step, 0, step]) {
      const row = crossings(p, y + dy);
      for (const dx of [-step, 0, step]) probe(x + dx, y + dy, row);
    }
  }
  return Math.max(best, 1e-6);
}

/** A polygon of the layer's own frame with a relief on it, by exact distances from its edge. */
function polygonPiece(local: Polygon, relief: ReliefOf, l: Layer, frame: Affine, grid: Grid): Piece {
  const p = applyAffine(local, frame);
  const b = polygonBounds(p);
  const window = windowOf(grid, b.x0, b.y0, b.x1, b.y1);
  const g = windowGrid(grid, window);
  const heights = makeField(g, AIR).data;
  const need = needsOf(relief);
  const edge = l.fade > 0 ? new Float32Array(heights.length) : null;
  const near = need === 'edge' || edge ? new NearestOutline(p, 2 * grid.cell) : null;
  const half = near && need === 'edge' ? innerRadius(p, near) : 1;
  const reach = reachOf(relief);
  const [ia, ib, ic, id, ie, jf] = invertAffine(frame);
  const hit: Nearest = { distance: 0, along: 0, ring: 0 };
  const spot = { x: 0, y: 0, edge: 0, along: 0, ring: 1 };
  const level = relief.kind === 'flat' && !edge ? l.rise : null;
  const matters = Math.max(reach, l.fade);
  for (let j = 0; j < g.height; j++) {
    const y = g.originY + j * g.cell;
    const row = crossings(p, y);
    for (let c = 0; c + 1 < row.length; c += 2) {
      const i0 = Math.max(0, Math.ceil((row[c] - g.originX) / g.cell));
      const i1 = Math.min(g.width - 1, Math.floor((row[c + 1] - g.originX) / g.cell));
      if (level !== null) {
        if (i1 >= i0) heights.fill(level, j * g.width + i0, j * g.width + i1 + 1);
        continue;
      }
      for (let i = i0; i <= i1; i++) {
        const x = g.originX + i * g.cell;
        spot.x = ia * x + ic * y + ie;
        spot.y = ib * x + id * y + jf;
        if (near) {
          near.find(x, y, hit, matters);
          spot.edge = hit.distance;
          spot.along = hit.along;
          spot.ring = near.lengths[hit.ring];
          if (edge) edge[j * g.width + i] = hit.distance;
        }
        const h = spot.edge > reach && 'band' in relief && relief.band ? null : reliefAt(relief, spot, half, l.size);
        if (h !== null) heights[j * g.width + i] = h * l.rise;
      }
    }
  }
  return { window, heights, below: null, thinCells: 0, edge };
}

/** The layer's own outline in its own frame, when it is made of one. */
export function polygonOf(l: Layer, content: Content): Polygon | null {
  if (l.source.kind === 'shape') return workEdge(outlinePolygon(l.source.outline, l.size.x, l.size.y), l.source.edge);
  return l.source.kind === 'words' ? (content.polygon ?? []) : null;
}

function pieceOf(l: Layer, content: Content, frame: Affine, grid: Grid, polygon: Polygon | null): Piece {
  const s = l.source;
  if (s.kind === 'mesh') {
    if (content.mesh) return meshPiece(content.mesh, s, l, frame, grid);
    const r = content.raster!;
    return picturePiece({ width: r.width, height: r.height, values: r.data }, l, frame, grid, false, true, true);
  }
  if (s.kind === 'image') return picturePiece(content.image!, l, frame, grid, s.blackIsGround, false, false);
  return polygonPiece(polygon!, s.relief, l, frame, grid);
}

/** Several windows of one grid as the one that holds them. */
export function joinWindows(all: Window[]): Window {
  const some = all.filter((w) => w.width > 0);
  if (some.length === 0) return EMPTY;
  const i = Math.min(...some.map((w) => w.i));
  const j = Math.min(...some.map((w) => w.j));
  return {
    i,
    j,
    width: Math.max(...some.map((w) => w.i + w.width)) - i,
    height: Math.max(...some.map((w) => w.j + w.height)) - j,
  };
}

/** The copies of a layer in one window; where they overlap the highest counts. */
function gather(pieces: Piece[]): Piece {
  if (pieces.length === 1) return pieces[0];
  const window = joinWindows(pieces.map((p) => p.window));
  const heights = new Float32Array(window.width * window.height).fill(AIR);
  const below = pieces.some((p) => p.below) ? new Uint8Array(heights.length) : null;
  const edge = pieces.some((p) => p.edge) ? new Float32Array(heights.length) : null;
  for (const p of pieces) {
    for (let j = 0; j < p.window.height; j++) {
      const to = (p.window.j - window.j + j) * window.width + p.window.i - window.i;
      for (let i = 0; i < p.window.width; i++) {
        const from = j * p.window.width + i;
        if (p.heights[from] > heights[to + i]) heights[to + i] = p.heights[from];
        if (below && p.below?.[from]) below[to + i] = 1;
        if (edge && p.edge && p.edge[from] > edge[to + i]) edge[to + i] = p.edge[from];
      }
    }
  }
  return { window, heights, below, thinCells: pieces.reduce((s, p) => s + p.thinCells, 0), edge };
}

/** What a mask keeps of a window, 1 or 0. `other` is the rendered layer that a mask of a layer names. */
function maskOf(l: Layer, grid: Grid, window: Window, other: Rendered | null): Uint8Array | null {
  const m = l.mask;
  if (m.kind === 'none' || window.width === 0) return null;
  const g = windowGrid(grid, window);
  const out = new Uint8Array(g.width * g.height);
  if (m.kind === 'outline') {
    const [a, b, c, d, e, f] = frameOf(l, { dx: 0, dy: 0, turn: 0 });
    const p = applyAffine(outlinePolygon(m.outline, m.x, m.y), [
      a,
      b,
      c,
      d,
      e + a * m.dx + c * m.dy,
      f + b * m.dx + d * m.dy,
    ]);
    for (let j = 0; j < g.height; j++) {
      const row = crossings(p, g.originY + j * g.cell);
      for (let q = 0; q + 1 < row.length; q += 2) {
        const i0 = Math.max(0, Math.ceil((row[q] - g.originX) / g.cell));
        const i1 = Math.min(g.width - 1, Math.floor((row[q + 1] - g.originX) / g.cell));
        if (i1 >= i0) out.fill(1, j * g.width + i0, j * g.width + i1 + 1);
      }
    }
  } else {
    if (other) {
      for (let j = 0; j < g.height; j++) {
        const v = window.j + j - other.window.j;
        if (v < 0 || v >= other.window.height) continue;
        for (let i = 0; i < g.width; i++) {
          const u = window.i + i - other.window.i;
          if (u >= 0 && u < other.window.width && other.heights[v * other.window.width + u] !== AIR)
            out[j * g.width + i] = 1;
        }
      }
    }
    if (m.grow !== 0) {
      const d = m.grow > 0 ? distanceOutside(out, g.width, g.height) : distanceInside(out, g.width, g.height);
      const far = Math.abs(m.grow) / g.cell;
      for (let k = 0; k < out.length; k++) out[k] = (m.grow > 0 ? d[k] <= far : d[k] > far) ? 1 : 0;
    }
  }
  if (m.outside) for (let k = 0; k < out.length; k++) out[k] = 1 - out[k];
  return out;
}

/** The slopes of a layer over one of its copies: what is added at a place of the board. */
function tiltOf(l: Layer, frame: Affine): ((x: number, y: number) => number) | null {
  if (l.tilt.x === 0 && l.tilt.y === 0) return null;
  const [a, b, c, d, e, f] = invertAffine(frame);
  const tx = Math.tan((l.tilt.x * Math.PI) / 180);
  const ty = Math.tan((l.tilt.y * Math.PI) / 180);
  return (x, y) => (a * x + c * y + e) * tx + (b * x + d * y + f) * ty;
}

/**
 * A layer on the board's grid: each of its copies turned, mirrored, scaled and placed, heights 0..rise over its foot, tilted,
 * masked, with its weight fading towards its edge.
 * @param other the rendered layer that its mask names, if it names one
 */
export function renderLayer(l: Layer, content: Content, grid: Grid, other: Rendered | null = null): Rendered {
  const polygon = polygonOf(l, content);
  const pieces = copiesOf(l.copies).map((c) => {
    const frame = frameOf(l, c);
    const p = pieceOf(l, content, frame, grid, polygon);
    const h = p.heights;
    if (l.invert) for (let k = 0; k < h.length; k++) if (h[k] !== AIR) h[k] = l.rise - h[k];
    const tilt = tiltOf(l, frame);
    if (tilt) {
      const g = windowGrid(grid, p.window);
      for (let k = 0; k < h.length; k++) {
        if (h[k] !== AIR)
          h[k] += tilt(g.originX + (k % g.width) * g.cell, g.originY + Math.floor(k / g.width) * g.cell);
      }
    }
    return p;
  });
  const { window, heights, below, thinCells, edge } = gather(pieces);
  const mask = maskOf(l, grid, window, other);
  if (mask) {
    for (let k = 0; k < heights.length; k++) {
      if (mask[k]) continue;
      heights[k] = AIR;
      if (below) below[k] = 0;
    }
  }
  let weight: Float32Array | null = null;
  if (l.fade > 0 && heights.length > 0) {
    weight = edge && !mask ? edge : edgeDistance(heights, window, grid.cell);
    for (let k = 0; k < weight.length; k++) {
      const t = Math.min(1, weight[k] / l.fade);
      weight[k] = t * t * (3 - 2 * t);
    }
  }
  let covered = 0;
  let lost = 0;
  if (below) for (let k = 0; k < below.length; k++) lost += below[k];
  if (lost > 0) for (let k = 0; k < heights.length; k++) if (heights[k] !== AIR) covered++;
  return {
    window,
    heights,
    weight,
    below: lost > 0 ? below : null,
    lostPlan: lost > 0 ? lost / (lost + covered) : 0,
    thinCells,
  };
}

/** Distance of each cell from the edge of what stands, mm, measured on the grid. Beyond the window counts as nothing. */
function edgeDistance(heights: Float32Array, w: Window, cell: number): Float32Array {
  const width = w.width + 2;
  const inside = new Uint8Array(width * (w.height + 2));
  for (let j = 0; j < w.height; j++) {
    for (let i = 0; i < w.width; i++) if (heights[j * w.width + i] !== AIR) inside[(j + 1) * width + i + 1] = 1;
  }
  const d = distanceInside(inside, width, w.height + 2);
  const out = new Float32Array(heights.length);
  for (let j = 0; j < w.height; j++) {
    for (let i = 0; i < w.width; i++) out[j * w.width + i] = Math.max(0, d[(j + 1) * width + i + 1] - 0.5) * cell;
  }
  return out;
}

/** The raster of a mesh for a Content, from its heights over a plan of its own: BELOW where it lies under its base. */
export function rasterOf(mesh: Mesh, s: MeshSource, most: number): NonNullable<Content['raster']> {
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
