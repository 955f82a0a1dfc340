import type { Target } from '../../arrange/target';
import { MASK } from '../../arrange/target';
import { type Cutter, profileOf } from '../../cutter/cutter';
import { distanceInside, distanceOutside } from '../../field/distance';
import { AIR, padField } from '../../field/height-field';
import type { PassContext } from '../context';

/** Heights within this of where a field was entered belong to it, mm: a field is level within twice as much. */
export const LEVEL = 0.005;

/** A level field of the target, and where a bit's tip may run to clear it. */
export interface Flat {
  /** Height that it is cut to, mm: its highest cell's, so that nothing of it is cut too deep. */
  z: number;
  /** First cell and size of the window of the target's grid that it is described on. */
  i: number;
  j: number;
  width: number;
  height: number;
  /** 1 where the tip's middle may be at z. */
  tip: Uint8Array;
  /** 1 where the bit's flat bottom then passes over the field. */
  cleared: Uint8Array;
  /** Area that is cleared, mm2. */
  area: number;
}

/** Radius of the flat under a bit, mm; 0 for one without. */
export function flatRadius(c: Cutter): number {
  if (c.shape === 'endmill') return c.diameter / 2;
  return c.shape === 'bullnose' ? c.diameter / 2 - c.cornerRadius : 0;
}

interface Region {
  cells: number[];
  i0: number;
  i1: number;
  j0: number;
  j1: number;
  z: number;
}

/** Fields of at least `least` cells whose heights lie within LEVEL of the cell that they were entered at. */
function levelRegions(target: Target, least: number, within: (k: number) => boolean): Region[] {
  const { field, mask } = target;
  const { width, height, data } = field;
  const seen = new Uint8Array(data.length);
  const out: Region[] = [];
  const usable = (k: number) => mask[k] === MASK.cut && data[k] < -LEVEL && within(k);
  for (let j = 1; j + 1 < height; j++) {
    for (let i = 1; i + 1 < width; i++) {
      const start = j * width + i;
      const z0 = data[start];
      if (seen[start] || z0 >= -LEVEL) continue;
      const near = (k: number) => Math.abs(data[k] - z0) <= LEVEL;
      // A field is entered where it is level all around, not on a slope's contour; whether it may be worked on is asked last.
      if (!near(start - 1) || !near(start + 1) || !near(start - width) || !near(start + width)) continue;
      if (!usable(start)) continue;
      const r: Region = { cells: [], i0: i, i1: i, j0: j, j1: j, z: z0 };
      const stack = [start];
      seen[start] = 1;
      while (stack.length > 0) {
        const k = stack.pop()!;
        r.cells.push(k);
        const a = k % width;
        const b = (k - a) / width;
        if (a < r.i0) r.i0 = a;
        if (a > r.i1) r.i1 = a;
        if (b < r.j0) r.j0 = b;
        if (b > r.j1) r.j1 = b;
        if (data[k] > r.z) r.z = data[k];
        for (const q of [a > 0 ? k - 1 : -1, a + 1 < width ? k + 1 : -1, k - width, k + width]) {
          if (q < 0 || q >= data.length || seen[q] || !near(q) || !usable(q)) continue;
          seen[q] = 1;
          stack.push(q);
        }
      }
      if (r.cells.length >= least) out.push(r);
    }
  }
  return out;
}

/** A mask with all that it encloses: what cannot be reached from the edge of its window without crossing it. */
function withHoles(mask: Uint8Array, width: number, height: number): Uint8Array {
  const out = new Uint8Array(mask.length).fill(1);
  const stack: number[] = [];
  const reach = (k: number) => {
    if (mask[k] || !out[k]) return;
    out[k] = 0;
    stack.push(k);
  };
  for (let i = 0; i < width; i++) {
    reach(i);
    reach((height - 1) * width + i);
  }
  for (let j = 0; j < height; j++) {
    reach(j * width);
    reach((j + 1) * width - 1);
  }
  while (stack.length > 0) {
    const k = stack.pop()!;
    const a = k % width;
    if (a > 0) reach(k - 1);
    if (a + 1 < width) reach(k + 1);
    if (k >= width) reach(k - width);
    if (k + width < mask.length) reach(k + width);
  }
  return out;
}

/**
 * The level fields of a target that a bit with a flat bottom can clear: found where the target is level within 2 LEVEL, and
 * where the whole bit, its radius grown by `slack` mm, stands on nothing higher.
 * @param within whether a cell of the target belongs to the pass's area
 */
export async function findFlats(
  { target, planning, host }: Pick<PassContext, 'target' | 'planning' | 'host'>,
  cutter: Cutter,
  slack: number,
  within: (k: number) => boolean,
): Promise<Flat[]> {
  const bottom = flatRadius(cutter);
  const { cell, width, height } = planning;
  const regions = levelRegions(target, Math.ceil((Math.PI * bottom * bottom) / (cell * cell)), within);
  if (regions.length === 0) return [];
  const pad = Math.ceil((cutter.diameter / 2 + slack) / cell) + 1;
  const lowest = await host.offset(padField(planning, pad, AIR), profileOf(cutter), slack);
  const row = width + 2 * pad;
  const out: Flat[] = [];
  const reach = Math.ceil(bottom / cell) + 1;
  const fits = (k: number, z: number) => lowest[(Math.floor(k / width) + pad) * row + (k % width) + pad] <= z + 1e-4;
  for (const r of regions) {
    // Most level places are narrower than the bit.
    if (!r.cells.some((k) => fits(k, r.z))) continue;
    const i = Math.max(0, r.i0 - reach);
    const j = Math.max(0, r.j0 - reach);
    const w = Math.min(width, r.i1 + reach + 1) - i;
    const h = Math.min(height, r.j1 + reach + 1) - j;
    const field = new Uint8Array(w * h);
    const tip = new Uint8Array(w * h);
    let any = false;
    for (const k of r.cells) {
      const a = k % width;
      field[((k - a) / width - j) * w + a - i] = 1;
    }
    // Over grooves in the field the bit runs on: nothing there stands higher.
    const ground = withHoles(field, w, h);
    for (let q = 0; q < ground.length; q++) {
      if (!ground[q] || lowest[(j + Math.floor(q / w) + pad) * row + i + (q % w) + pad] > r.z + 1e-4) continue;
      tip[q] = 1;
      any = true;
    }
    if (!any) continue;
    // The tip runs half a cell inside its area, and its sweep is taken a cell smaller than it is.
    const away = distanceOutside(tip, w, h);
    const cleared = new Uint8Array(w * h);
    let n = 0;
    for (let q = 0; q < cleared.length; q++) if (field[q] && away[q] * cell <= bottom - 1.5 * cell) n += cleared[q] = 1;
    if (n > 0) out.push({ z: r.z, i, j, width: w, height: h, tip, cleared, area: n * cell * cell });
  }
  return out;
}

/** Marks in `all`, on the target's grid, what of a cleared field lies further than `overlap` mm from where it ends. */
export function markCleared(all: Uint8Array, gridWidth: number, f: Flat, overlap: number, cell: number): void {
  // One more cell on every side: what lies beyond the window is not cleared.
  const w = f.width + 2;
  const inside = new Uint8Array(w * (f.height + 2));
  for (let j = 0; j < f.height; j++) {
    inside.set(f.cleared.subarray(j * f.width, (j + 1) * f.width), (j + 1) * w + 1);
  }
  const d = distanceInside(inside, w, f.height + 2);
  for (let j = 0; j < f.height; j++) {
    for (let i = 0; i < f.width; i++)
      if (d[(j + 1) * w + i + 1] * cell > overlap) all[(f.j + j) * gridWidth + f.i + i] = 1;
  }
}
