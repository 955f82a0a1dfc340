import type { Layer, Seat } from '../doc/layer';
import { AIR, type Grid } from '../field/height-field';
import { compose, emptySurface, type Op } from './compose';
import { copiesOf } from './copies';
import type { Rendered } from './rendered';
import { frameOf } from './window';

/** A straight line on the board, mm, from its first sample to its last. */
export interface Line {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** Share of a layer's own extent that its section shows beyond each of its ends. */
const BEYOND = 0.12;

/** The line through a layer's middle along its own x or y, a little beyond both ends; of its first copy where it has several. */
export function lineThrough(l: Layer, axis: 'x' | 'y'): Line {
  const [a, b, c, d, e, f] = frameOf(l, copiesOf(l.copies)[0]);
  const half = (0.5 + BEYOND) * l.size[axis];
  const [u, v] = axis === 'x' ? [a * half, b * half] : [c * half, d * half];
  return { x0: e - u, y0: f - v, x1: e + u, y1: f + v };
}

/** The value of a rendered layer at a place by its nearest cells: between four that stand, else of the nearest; AIR where that is air. */
function heightAt(r: Rendered, values: Float32Array, x: number, y: number): number {
  const { window: w, heights } = r;
  const [u, v] = [x - w.i, y - w.j];
  const near = at(w, Math.round(u), Math.round(v));
  if (near < 0 || heights[near] === AIR) return AIR;
  const [i, j] = [Math.floor(u), Math.floor(v)];
  const four = [at(w, i, j), at(w, i + 1, j), at(w, i, j + 1), at(w, i + 1, j + 1)];
  if (four.some((k) => k < 0 || heights[k] === AIR)) return values[near];
  const [s, t] = [u - i, v - j];
  const [p, q, m, n] = four.map((k) => values[k]);
  return (1 - t) * ((1 - s) * p + s * q) + t * ((1 - s) * m + s * n);
}

const at = (w: Rendered['window'], i: number, j: number) =>
  i < 0 || j < 0 || i >= w.width || j >= w.height ? -1 : j * w.width + i;

/** A rendered layer along a line of its grid, as a layer on a grid of one row. */
export function rowOf(r: Rendered, grid: Grid, line: Line, samples: number): Rendered {
  const heights = new Float32Array(samples);
  const weight = r.weight && new Float32Array(samples);
  for (let k = 0; k < samples; k++) {
    const t = k / (samples - 1);
    const x = (line.x0 + t * (line.x1 - line.x0) - grid.originX) / grid.cell;
    const y = (line.y0 + t * (line.y1 - line.y0) - grid.originY) / grid.cell;
    heights[k] = heightAt(r, r.heights, x, y);
    if (weight && heights[k] !== AIR) weight[k] = heightAt(r, r.weight!, x, y);
  }
  return { ...r, window: { i: 0, j: 0, width: samples, height: 1 }, heights, weight, below: null };
}

/** Heights over the base plane along a line, mm: beneath some of the layers, up to the highest of them, and in the end. */
export interface Section {
  /** Its length, mm. */
  length: number;
  beneath: Float32Array;
  withThem: Float32Array;
  end: Float32Array;
  /** The first of these layers by itself: its heights over its foot, AIR where it has nothing, and its weight from 0 to 1. */
  own: Float32Array;
  weight: Float32Array;
}

/**
 * A section through joined layers along a line, each sample for itself: what lies beneath the chosen ones, what they make of it,
 * and what shows in the end. Grooves count by their distance alone, as on level ground.
 * @param ops all layers that are shown, from the lowest up
 * @param chosen places among them, from the lowest up, at least one
 */
export function sectionAlong(
  ops: Op[],
  chosen: number[],
  { grid, seat }: { grid: Grid; seat: Seat },
  line: Line,
  samples: number,
): Section {
  const row = { width: samples, height: 1, cell: 1, originX: 0, originY: 0 };
  const rows = ops.map((o) => ({ ...o, rendered: rowOf(o.rendered, grid, line, samples), walls: null }));
  const heights = (list: Op[]) => {
    const s = emptySurface(row);
    compose(s, list, seat, { i: 0, j: 0, width: samples, height: 1 });
    return s.z;
  };
  const top = chosen[chosen.length - 1];
  const { rendered } = rows[chosen[0]];
  return {
    length: Math.hypot(line.x1 - line.x0, line.y1 - line.y0),
    beneath: heights(rows.filter((_, i) => i < top && !chosen.includes(i))),
    withThem: heights(rows.slice(0, top + 1)),
    end: heights(rows),
    own: rendered.heights,
    weight: rendered.weight ?? new Float32Array(samples).fill(1),
  };
}
