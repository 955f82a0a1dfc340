import type { Layer } from '../doc/layer';
import type { ReliefOf } from '../doc/relief-of';
import { AIR, type Grid, makeField } from '../field/height-field';
import { type Nearest, NearestOutline } from '../outline/nearest';
import { type Affine, crossings, invertAffine, type Polygon, polygonBounds, rowCrossings } from '../outline/polygon';
import { formOf, needsOf, reachOf } from './relief-of';
import { type Piece, windowGrid, windowOf } from './window';

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

/** What is known of an outline: its nearest points, and its inner radius where that was asked for, mm. */
interface Lately {
  polygon: Polygon;
  near: NearestOutline;
  half?: number;
}

/** Outlines that were drawn lately: where a layer is drawn window after window, they are the same again. */
const LATELY: Lately[] = [];
const KEPT = 32;
/** How far beyond an outline's bounds nearest points are asked for, mm. */
const MARGIN = 1;

const same = (a: Polygon, b: Polygon) =>
  a === b || (a.length === b.length && a.every((r, i) => r.length === b[i].length && r.every((v, k) => v === b[i][k])));

function outlineOf(polygon: Polygon): Lately {
  const at = LATELY.findIndex((l) => same(l.polygon, polygon));
  const found = at >= 0 ? LATELY.splice(at, 1)[0] : { polygon, near: new NearestOutline(polygon, MARGIN) };
  LATELY.unshift(found);
  LATELY.length = Math.min(LATELY.length, KEPT);
  return found;
}

/** What a layer's relief is like on an outline that lies on the board. */
function shaped(p: Polygon, relief: ReliefOf, l: Layer) {
  const need = needsOf(relief);
  const lately = need === 'edge' || l.thin > 0 ? outlineOf(p) : null;
  const near = lately?.near ?? null;
  const half = lately && need === 'edge' ? (lately.half ??= innerRadius(p, lately.near)) : 1;
  const reach = reachOf(relief, l.rise);
  const form = formOf(relief, half, { ...l.size, rise: l.rise });
  // Beyond its reach a form is level, or nothing.
  const far = { x: 0, y: 0, edge: Number.MAX_VALUE, along: 0, ring: 1 };
  const plateau = Number.isFinite(reach) ? form(far) : null;
  return { near, reach, form, beyond: plateau === null ? AIR : plateau * l.rise };
}

/** A polygon on the board with a relief on it, by exact distances from its edge; `frame` is that of the layer's copy. */
export function polygonPiece(p: Polygon, relief: ReliefOf, l: Layer, frame: Affine, grid: Grid): Piece {
  const b = polygonBounds(p);
  const window = windowOf(grid, b.x0, b.y0, b.x1, b.y1);
  const g = windowGrid(grid, window);
  const heights = makeField(g, AIR).data;
  const edge = l.thin > 0 ? new Float32Array(heights.length) : null;
  if (heights.length === 0) return { window, heights, below: null, thinCells: 0, edge };
  const { near, reach, form, beyond } = shaped(p, relief, l);
  const [ia, ib, ic, id, ie, jf] = invertAffine(frame);
  const hit: Nearest = { distance: 0, along: 0, ring: 0 };
  const spot = { x: 0, y: 0, edge: 0, along: 0, ring: 1 };
  const level = relief.kind === 'flat' && !edge ? l.rise : null;
  const matters = Math.max(reach, l.thin);
  const rows = rowCrossings(p, g.originY, g.cell, g.height);
  for (let j = 0; j < g.height; j++) {
    const y = g.originY + j * g.cell;
    const row = rows[j];
    for (let c = 0; c + 1 < row.length; c += 2) {
      const i0 = Math.max(0, Math.ceil((row[c] - g.originX) / g.cell));
      const i1 = Math.min(g.width - 1, Math.floor((row[c + 1] - g.originX) / g.cell));
      if (level !== null) {
        if (i1 >= i0) heights.fill(level, j * g.width + i0, j * g.width + i1 + 1);
        continue;
      }
      for (let i = i0; i <= i1; i++) {
        const x = g.originX + i * g.cell;
        if (near && !edge) {
          const to = Math.min(i1, Math.floor((near.clearTo(x, y, reach) - g.originX) / g.cell));
          if (to > i) {
            heights.fill(beyond, j * g.width + i, j * g.width + to + 1);
            i = to;
            continue;
          }
        }
        spot.x = ia * x + ic * y + ie;
        spot.y = ib * x + id * y + jf;
        if (near) {
          near.find(x, y, hit, matters);
          spot.edge = hit.distance;
          spot.along = hit.along;
          spot.ring = near.lengths[hit.ring];
          if (edge) edge[j * g.width + i] = hit.distance;
        }
        if (spot.edge > reach) {
          heights[j * g.width + i] = beyond;
          continue;
        }
        const h = form(spot);
        if (h !== null) heights[j * g.width + i] = h * l.rise;
      }
    }
  }
  return { window, heights, below: null, thinCells: 0, edge };
}
