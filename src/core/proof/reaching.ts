import { distanceInside } from '../field/distance';
import { flagsOf } from '../field/flags';
import { AIR, type HeightField } from '../field/height-field';
import { cutterOffset } from '../kernels/cutter-offset';

/** Radii of the narrowest and the widest ball that is looked for, mm. */
const LEAST = 0.2;
const MOST = 8;
/** A bit reaches a place when it leaves at most this share of what stands there, and what is sanded off, mm. */
const SHARE = 0.1;
const SANDED = 0.1;
/** Ground that stands so high, as a share of the highest, is of one place with it. */
const NEARLY = 0.9;

/** The square of cells within r mm of a cell, air beyond the field. */
function around(f: HeightField, k: number, r: number): HeightField {
  const n = Math.ceil(r / f.cell);
  const width = 2 * n + 1;
  const data = new Float32Array(width * width).fill(AIR);
  const [i, j] = [k % f.width, Math.floor(k / f.width)];
  const [a, b] = [Math.max(0, i - n), Math.min(f.width, i + n + 1)];
  for (let y = Math.max(0, j - n); y < Math.min(f.height, j + n + 1); y++)
    data.set(f.data.subarray(y * f.width + a, y * f.width + b), (y - j + n) * width + a - i + n);
  return { width, height: width, cell: f.cell, originX: 0, originY: 0, data };
}

/**
 * The middle of the ground around a cell that stands nearly as high over a target as that cell: the corner of a slot is reached by no bit,
 * its middle by one of its width. Looked for as far as the widest ball reaches.
 */
export function middleOf(cut: HeightField, target: HeightField, k: number): number {
  const [high, low] = [cut, target].map((f) => around(f, k, MOST));
  const n = (high.width - 1) / 2;
  const over = cut.data[k] - target.data[k];
  const mask = flagsOf(high.data, (v, i) => low.data[i] > AIR && v - low.data[i] > NEARLY * over);
  const inside = distanceInside(mask, high.width, high.width);
  let [best, most] = [n * high.width + n, 0];
  // Only ground that hangs together with the cell, going up to the middle from it.
  for (let at = best; ; at = best) {
    for (const d of [-high.width - 1, -high.width, -high.width + 1, -1, 1, high.width - 1, high.width, high.width + 1])
      if (inside[at + d] > Math.max(most, inside[best])) best = at + d;
    if (best === at) break;
    most = inside[best];
  }
  return k + (Math.floor(best / high.width) - n) * cut.width + (best % high.width) - n;
}

/** How high a ball leaves wood over one cell, whatever its path: its offset surface cut by it again. mm, of the field's heights */
function leftBy(f: HeightField, k: number, R: number): number {
  const t = (r: number) => R - Math.sqrt(Math.max(0, R * R - r * r));
  const square = around(f, k, 2 * R);
  const tips = cutterOffset(square, R, t);
  const n = (square.width - 1) / 2;
  const reach = Math.floor(R / f.cell);
  let low = Infinity;
  for (let y = -reach; y <= reach; y++) {
    for (let x = -reach; x <= reach; x++) {
      const r = Math.hypot(x, y) * f.cell;
      if (r <= R) low = Math.min(low, tips[(n + y) * square.width + n + x] + t(r));
    }
  }
  return low;
}

/**
 * Diameter of the widest ball that reaches a place of a surface where `over` mm stand, mm; 0 when none does. Found by halving: what a wider
 * ball reaches a narrower one does too (closing by a ball holds that by a smaller one, Serra, "Image analysis and mathematical morphology",
 * 1982).
 */
export function widestThere(target: HeightField, k: number, over: number): number {
  const reaches = (R: number) => leftBy(target, k, R) - target.data[k] <= SHARE * over + SANDED;
  let [low, high] = [Math.max(LEAST, 1.5 * target.cell), MOST];
  if (!reaches(low)) return 0;
  if (reaches(high)) return 2 * high;
  for (let i = 0; i < 7; i++) {
    const m = (low + high) / 2;
    if (reaches(m)) low = m;
    else high = m;
  }
  return 2 * low;
}
