import type { Profile } from '../cutter/cutter';
import { reachRound, unrolled } from '../field/drum';
import { AIR, type HeightField } from '../field/height-field';
import { ENGAGED, joinEngaged } from './engagement';
import { SEGMENT } from './segment';
import { kernels, layOut } from './wasm';

/** Segments handed to the kernel at a time: bounds the memory it takes for them to 3 MB. */
const BATCH = 32768;
/** Cells of a window that may lie beside what its moves touch: so many, or this share more. */
const IDLE = { cells: 65536, share: 3 };

/** Cells of a field, the upper ends left out. */
interface Window {
  i0: number;
  i1: number;
  j0: number;
  j1: number;
}

const cellsOf = (w: Window) => Math.max(0, w.i1 - w.i0) * Math.max(0, w.j1 - w.j0);

/** How far along y a cutter meets cells at most: round a drum further the deeper it goes, mm. */
function reachAlongY({ drum }: HeightField, R: number, low: number): number {
  return drum ? reachRound(drum, R, low) : R;
}

/** The cells around segments from..to, and how many of them the cutter passes over. */
function windowOf({ f, profile: { R }, segments, shift }: Task, [from, to]: [number, number]) {
  let [x0, x1, y0, y1, low, touched] = [Infinity, -Infinity, Infinity, -Infinity, Infinity, 0];
  for (let s = from * SEGMENT; s < to * SEGMENT; s += SEGMENT) {
    for (const k of [0, 3]) {
      x0 = Math.min(x0, segments[s + k]);
      x1 = Math.max(x1, segments[s + k]);
      y0 = Math.min(y0, segments[s + k + 1] + shift);
      y1 = Math.max(y1, segments[s + k + 1] + shift);
      low = Math.min(low, segments[s + k + 2]);
    }
    const L = Math.hypot(segments[s + 3] - segments[s], segments[s + 4] - segments[s + 1]);
    touched += (Math.PI * R * R + 2 * R * L) / f.cell ** 2;
  }
  const beside = reachAlongY(f, R, low);
  const clamp = (v: number, most: number) => Math.max(0, Math.min(most, v));
  const window: Window = {
    i0: clamp(Math.floor((x0 - R - f.originX) / f.cell), f.width),
    i1: clamp(Math.ceil((x1 + R - f.originX) / f.cell) + 1, f.width),
    j0: clamp(Math.floor((y0 - beside - f.originY) / f.cell), f.height),
    j1: clamp(Math.ceil((y1 + beside - f.originY) / f.cell) + 1, f.height),
  };
  return { window, touched };
}

/** The cells of row j of a window that a segment can reach, the upper end left out. */
function reachOf(f: HeightField, R: number, segment: Float64Array, w: Window, j: number) {
  const [x0, y0, , x1, y1] = segment;
  const y = f.originY + j * f.cell;
  const r = R + f.cell;
  // The part of the segment that is within r of the row.
  let [t0, t1] = [0, 1];
  if (y1 !== y0) {
    const [a, b] = [(y - r - y0) / (y1 - y0), (y + r - y0) / (y1 - y0)];
    t0 = Math.max(0, Math.min(a, b));
    t1 = Math.min(1, Math.max(a, b));
  }
  const [xa, xb] = [x0 + (x1 - x0) * t0, x0 + (x1 - x0) * t1];
  const i0 = Math.floor((Math.min(xa, xb) - r - f.originX) / f.cell);
  const i1 = Math.ceil((Math.max(xa, xb) + r - f.originX) / f.cell) + 1;
  return [Math.max(w.i0, i0), Math.min(w.i1, i1)];
}

/** How far from its axis a V bit can meet anything at all, mm: beyond, its cone is higher than the highest cell even at the lowest tip. */
function radiusThatCuts(cell: number, { shape, R, p0, p2 }: Profile, low: number, top: number): number {
  return shape === 4 ? Math.min(R, p0 + Math.max(0, top - low) / p2 + cell) : R;
}

/** What is cut of a field: segments from..to of all, with a cutter. */
interface Task {
  f: HeightField;
  profile: Profile;
  segments: Float64Array;
  told: Told | null;
  /** How far along y the segments are moved, mm: round a drum each turn of a way is another. */
  shift: number;
}

/** Where what segments meet goes, and how high wood over the tip counts as high, mm. */
interface Told {
  engaged: Float32Array;
  limit: number;
}

/** Cuts segments from..to in a window of the field. @param spans for each row the cells that are worked on, of the field */
function cutWindow(
  { f, profile, segments, told, shift }: Task,
  [from, to]: [number, number],
  w: Window,
  spans: ((j: number) => number[]) | null,
): void {
  const k = kernels();
  const width = w.i1 - w.i0;
  const height = w.j1 - w.j0;
  const stride = (width + 7) & ~3;
  const count = to - from;
  // The moves before and after say what of its ends the first and the last one own.
  const before = from > 0 ? 1 : 0;
  const after = (to + 1) * SEGMENT <= segments.length ? 1 : 0;
  const [grid, segAt, outAt] = layOut([
    stride * height * 4 + 64,
    (before + count + after) * SEGMENT * 8,
    count * ENGAGED * 4,
  ]);
  const view = new Float32Array(k.memory.buffer, grid, stride * height);
  let top = AIR;
  const rows = Array.from({ length: height }, (_, j) => (spans ? spans(w.j0 + j) : [w.i0, w.i1]));
  for (const [j, [a, b]] of rows.entries()) {
    const row = (w.j0 + j) * f.width;
    if (b <= a) continue;
    view.set(f.data.subarray(row + a, row + b), j * stride + a - w.i0);
    // Four cells go at a time: those beyond a row's end must look like air, or they would count as wood.
    view.fill(AIR, j * stride + b - w.i0, Math.min((j + 1) * stride, j * stride + b - w.i0 + 4));
    if (profile.shape === 4) for (let i = row + a; i < row + b; i++) if (f.data[i] > top) top = f.data[i];
  }
  const segs = new Float64Array(k.memory.buffer, segAt, (before + count + after) * SEGMENT);
  const [ox, oy] = [f.originX + w.i0 * f.cell, f.originY + w.j0 * f.cell];
  let low = Infinity;
  for (let o = 0, q = (from - before) * SEGMENT; o < segs.length; o += SEGMENT, q += SEGMENT) {
    segs[o] = segments[q] - ox;
    segs[o + 1] = segments[q + 1] + shift - oy;
    segs[o + 2] = segments[q + 2];
    segs[o + 3] = segments[q + 3] - ox;
    segs[o + 4] = segments[q + 4] + shift - oy;
    segs[o + 5] = segments[q + 5];
    segs[o + 6] = segments[q + 6];
    low = Math.min(low, segs[o + 2], segs[o + 5]);
  }
  const { shape, p0, p1, p2 } = profile;
  const moves = [segAt + before * SEGMENT * 8, count, before, after, outAt, told ? 1 : 0, told?.limit ?? 0];
  if (f.drum) k.drumSweep(grid, width, height, stride, f.cell, f.drum.radius, ...moves, shape, profile.R, p0, p1, p2);
  else {
    const R = radiusThatCuts(f.cell, profile, low, top);
    k.sweep(grid, width, height, stride, f.cell, ...moves, profile.R, shape, R, p0, p1, p2);
  }
  for (const [j, [a, b]] of rows.entries()) {
    const at = j * stride - w.i0;
    if (b > a) f.data.set(view.subarray(at + a, at + b), (w.j0 + j) * f.width + a);
  }
  if (!told) return;
  const own = new Float32Array(k.memory.buffer, outAt, count * ENGAGED);
  // Round a drum a move may come by more than once.
  if (f.drum) joinEngaged(told.engaged.subarray(from * ENGAGED, to * ENGAGED), own);
  else told.engaged.set(own, from * ENGAGED);
}

/** Cuts segments from..to; where the window around them holds far more than they touch, in halves. */
function cut(task: Task, [from, to]: [number, number]): void {
  const { f, segments } = task;
  const { R } = task.profile;
  const { window, touched } = windowOf(task, [from, to]);
  const cells = cellsOf(window);
  if (cells === 0) return;
  const wide = cells > IDLE.cells && cells > IDLE.share * touched;
  if (wide && to - from > 1) {
    const half = (from + to) >> 1;
    cut(task, [from, half]);
    cut(task, [half, to]);
    return;
  }
  const spans = wide && !f.drum ? (j: number) => reachOf(f, R, segments.subarray(from * SEGMENT), window, j) : null;
  cutWindow(task, [from, to], window, spans);
}

/**
 * Cuts all segments, of a field round a drum as they lie there and as often as they come by it. Those that are cut together come by no ray in more than one
 * turn, so that each ray is cut in their order: what a move meets is what those before it have left.
 */
function cutAll(task: Omit<Task, 'shift'>): void {
  const { f, segments, profile } = task;
  const n = segments.length / SEGMENT;
  if (!f.drum) {
    for (let from = 0; from < n; from += BATCH) cut({ ...task, shift: 0 }, [from, Math.min(n, from + BATCH)]);
    return;
  }
  const turn = unrolled(f.drum.radius);
  const [top, bottom] = [f.originY + f.height * f.cell, f.originY - f.cell];
  for (let from = 0, to = 0; from < n; from = to) {
    let [first, last, beside] = [Infinity, -Infinity, 0];
    for (; to < n && to - from < BATCH; to++) {
      const [y0, z0, y1, z1] = [1, 2, 4, 5].map((k) => segments[to * SEGMENT + k]);
      const wider = Math.max(beside, reachAlongY(f, profile.R, Math.min(z0, z1)));
      const [low, high] = [Math.min(first, y0, y1), Math.max(last, y0, y1)];
      if (to > from && high - low + 2 * wider + f.cell >= turn) break;
      [first, last, beside] = [low, high, wider];
    }
    for (let t = Math.ceil((bottom - beside - last) / turn); t * turn <= top + beside - first; t++)
      cut({ ...task, shift: t * turn }, [from, to]);
  }
}

/**
 * Lowers the field by the exact swept volume of the cutter along straight segments: each cell ends at the lowest point
 * of the cutter's surface over the cell's centre, min over l of z(l) + t(distance from the axis at l). A cell belongs
 * to the cutter when its centre lies within R + 1e-6 mm. Rapids remove nothing. Costs the cells under the moves, whatever
 * the size of the field.
 *
 * Round a drum a cell is a ray, and ends at the lowest radius at which it enters the cutter: min over l of the least rho with
 * rho cos a >= r(l) + t(sqrt(dx^2 + (rho sin a)^2)), a and dx from the bit at l, r its tip. A cutter's rim is taken 1e-4 mm wider; flat and ball are
 * within 3e-3 mm of it, others on steep moves within 0.03 mm at their rim, always above. What then hangs over the bit beside its way counts as gone.
 * @param segments SEGMENT numbers each, board coordinates, mm, tip positions
 */
export function removeStock(f: HeightField, profile: Profile, segments: Float64Array): void {
  cutAll({ f, profile, segments, told: null });
}

/** Lowers the field as removeStock does and tells what every segment meets; see engagement.ts. @param limit height over the tip above which wood counts as high, mm */
export function engageStock(f: HeightField, profile: Profile, segments: Float64Array, limit: number): Float32Array {
  const n = segments.length / SEGMENT;
  const engaged = new Float32Array(n * ENGAGED);
  cutAll({ f, profile, segments, told: { engaged, limit } });
  return engaged;
}
