import type { Layer, SeenLayer } from '../doc/layer';
import type { Turning } from '../doc/parts';
import { distanceInside } from '../field/distance';
import { unrolled } from '../field/drum';
import { AIR, type Grid } from '../field/height-field';
import { type Affine, applyAffine, invertAffine, type Polygon, polygonBounds } from '../outline/polygon';
import { turnedCells, turnedGrid } from '../setup/frame';
import { copiesAsOne, copiesOf } from './copies';
import type { Content } from './kinds/kind';
import { sourceKind } from './kinds/registry';
import { maskOf } from './mask';
import type { Rendered } from './rendered';
import { type DrawingGrid, frameOf, joinWindows, type Piece, type Window, windowGrid } from './window';

/** The frame of what is drawn where it lies already. */
const ON_BOARD: Affine = [1, 0, 0, 1, 0, 0];

/** The layer's own outline in its own frame; null when it is not made of one. */
export const polygonOf = (l: Layer, content: Content): Polygon | null => sourceKind(l).outline?.(l, content) ?? null;

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

/** The slopes of a layer over one of its copies: what is added at a place of the board. */
function slopeOf(l: Layer, frame: Affine): ((x: number, y: number) => number) | null {
  if (l.slope.x === 0 && l.slope.y === 0) return null;
  const [a, b, c, d, e, f] = invertAffine(frame);
  const tx = Math.tan((l.slope.x * Math.PI) / 180);
  const ty = Math.tan((l.slope.y * Math.PI) / 180);
  return (x, y) => (a * x + c * y + e) * tx + (b * x + d * y + f) * ty;
}

/** One copy of a layer: its own frame on the board, and its outline there, when it is made of one. */
export interface Placed {
  frame: Affine;
  polygon: Polygon | null;
}

/**
 * What of a layer is put on the grid one by one: its copies; but V grooves that overlap are one groove, as a bit cuts them, deeper where
 * they meet than each by itself.
 */
export function placedOf(l: Layer, content: Content): Placed[] {
  const polygon = polygonOf(l, content);
  const copies = copiesOf(l.copies);
  const sloped = l.slope.x !== 0 || l.slope.y !== 0;
  if (polygon && copies.length > 1 && !sloped && sourceKind(l).relief?.(l)?.kind === 'vee')
    return [{ frame: ON_BOARD, polygon: copiesAsOne(l, polygon) }];
  return copies.map((c) => {
    const frame = frameOf(l, c);
    return { frame, polygon: polygon && applyAffine(polygon, frame) };
  });
}

/** Copies as they lie on a grid: round a drum each lies there once every turn, so that what reaches over the seam comes back on the other side. */
function onGrid(l: Layer, placed: Placed[], { drum }: Grid): Placed[] {
  if (!drum) return placed;
  const turn = unrolled(drum.radius);
  const half = Math.hypot(l.size.x, l.size.y) / 2;
  return placed.flatMap((p) => {
    const [a, b, c, d, x, y] = p.frame;
    // A groove of several copies is drawn where it lies already.
    const box = p.polygon ? polygonBounds(p.polygon) : { y0: y - half, y1: y + half };
    const [low, high] = [box.y0, box.y1];
    const turns: number[] = [];
    for (let t = Math.floor(-high / turn) + 1; low + t * turn < turn; t++) turns.push(t);
    return turns.map(
      (t): Placed => ({
        frame: t === 0 ? p.frame : [a, b, c, d, x, y + t * turn],
        polygon: p.polygon && (t === 0 ? p.polygon : applyAffine(p.polygon, [1, 0, 0, 1, 0, t * turn])),
      }),
    );
  });
}

/**
 * A layer on the board's grid: each of its copies turned, mirrored, scaled and placed, heights 0..rise over its foot, sloped,
 * masked, thinned towards its edge.
 * @param other the rendered layer that its mask names, if it names one
 * @param placed its copies, where they are known: who draws window after window places them once
 */
export function renderLayer(
  l: SeenLayer,
  content: Content,
  grid: DrawingGrid,
  other: Rendered | null = null,
  placed = placedOf(l, content),
): Rendered {
  if (l.turnedIn) return renderTurned(l, l.turnedIn, content, grid, { other, placed });
  const pieces = onGrid(l, placed, grid).map(({ frame, polygon }) => {
    const p = sourceKind(l).piece({ layer: l, content, frame, grid, polygon });
    const h = p.heights;
    if (l.invert) for (let k = 0; k < h.length; k++) if (h[k] !== AIR) h[k] = l.rise - h[k];
    const slope = slopeOf(l, frame);
    if (slope) {
      const g = windowGrid(grid, p.window);
      for (let k = 0; k < h.length; k++) {
        if (h[k] !== AIR)
          h[k] += slope(g.originX + (k % g.width) * g.cell, g.originY + Math.floor(k / g.width) * g.cell);
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
  if (l.thin > 0 && heights.length > 0) {
    weight = edge && !mask ? edge : edgeDistance(heights, window, grid.cell);
    for (let k = 0; k < weight.length; k++) {
      const t = Math.min(1, weight[k] / l.thin);
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

/** A layer of the board's other side, drawn there and turned over with the board. */
function renderTurned(
  l: SeenLayer,
  turning: Turning,
  content: Content,
  grid: DrawingGrid,
  { other, placed }: { other: Rendered | null; placed: Placed[] },
): Rendered {
  const { turnedIn: _, ...own } = l;
  const mask = other && turnRendered(other, grid, turning);
  return turnRendered(renderLayer(own, content, turnedGrid(grid, turning), mask, placed), grid, turning);
}

/** A rendered layer as it is seen from the board's other side, on that side's grid. */
function turnRendered(r: Rendered, { width, height }: Grid, turning: Turning): Rendered {
  const { window: w, heights, weight, below } = r;
  const turned = <T extends Float32Array | Uint8Array>(data: T) => turnedCells(data, w.width, turning);
  return {
    ...r,
    window: turning.about === 'about-y' ? { ...w, i: width - w.i - w.width } : { ...w, j: height - w.j - w.height },
    heights: turned(heights),
    weight: weight && turned(weight),
    below: below && turned(below),
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
