import type { Profile } from '../cutter/cutter';
import { AIR, type HeightField } from '../field/height-field';
import { kernels, layOut } from './wasm';

/** Numbers a segment: x0 y0 z0 x1 y1 z1 and 1 for a rapid. */
export const SEGMENT = 7;
/** Segments handed to the kernel at a time: bounds the memory it takes for them to 2 MB. */
const BATCH = 32768;

/** How far from its axis a V bit can meet anything at all, mm: beyond, its cone is higher than the highest cell even at the lowest tip. */
function radiusThatCuts(f: HeightField, { shape, R, p0, p2 }: Profile, segments: Float64Array): number {
  if (shape !== 4) return R;
  let low = Infinity;
  for (let k = 0; k < segments.length; k += SEGMENT) low = Math.min(low, segments[k + 2], segments[k + 5]);
  let top = AIR;
  for (let k = 0; k < f.data.length; k++) if (f.data[k] > top) top = f.data[k];
  return Math.min(R, p0 + Math.max(0, top - low) / p2 + f.cell);
}

/**
 * Lowers the field by the exact swept volume of the cutter along straight segments: each cell ends at the lowest point
 * of the cutter's surface over the cell's centre, min over l of z(l) + t(distance from the axis at l). A cell belongs
 * to the cutter when its centre lies within R + 1e-6 mm. Rapids remove nothing; their bite is how deep they reach into
 * material. The bite of a feed is the depth of cut near the axis.
 * @param segments SEGMENT numbers each, board coordinates, mm, tip positions
 * @returns the bite of every segment, mm
 */
export function removeStock(f: HeightField, profile: Profile, segments: Float64Array): Float32Array {
  const k = kernels();
  const n = segments.length / SEGMENT;
  const stride = (f.width + 7) & ~3;
  const [grid, segAt, outAt] = layOut([stride * f.height * 4 + 64, BATCH * SEGMENT * 8, BATCH * 4]);
  let view = new Float32Array(k.memory.buffer, grid, stride * f.height);
  // Four cells go at a time: those beyond a row's end must look like air, or they would count as wood.
  view.fill(AIR);
  for (let y = 0; y < f.height; y++) view.set(f.data.subarray(y * f.width, (y + 1) * f.width), y * stride);
  const R = radiusThatCuts(f, profile, segments);
  const bites = new Float32Array(n);
  for (let s = 0; s < n; s += BATCH) {
    const count = Math.min(BATCH, n - s);
    const segs = new Float64Array(k.memory.buffer, segAt, count * SEGMENT);
    for (let i = 0; i < count; i++) {
      const q = (s + i) * SEGMENT;
      const o = i * SEGMENT;
      segs[o] = segments[q] - f.originX;
      segs[o + 1] = segments[q + 1] - f.originY;
      segs[o + 2] = segments[q + 2];
      segs[o + 3] = segments[q + 3] - f.originX;
      segs[o + 4] = segments[q + 4] - f.originY;
      segs[o + 5] = segments[q + 5];
      segs[o + 6] = segments[q + 6];
    }
    const { shape, p0, p1, p2 } = profile;
    k.sweep(grid, f.width, f.height, stride, f.cell, segAt, count, outAt, shape, R, p0, p1, p2);
    bites.set(new Float32Array(k.memory.buffer, outAt, count), s);
  }
  view = new Float32Array(k.memory.buffer, grid, stride * f.height);
  for (let y = 0; y < f.height; y++) f.data.set(view.subarray(y * stride, y * stride + f.width), y * f.width);
  return bites;
}
