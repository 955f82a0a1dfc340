import { MASK } from '../arrange/target';
import { goesRound, type HeightField } from '../field/height-field';
import { surfaceDistance } from '../field/surface-distance';

/** Slope of a cliff: steeper than 75 degrees, where an error is judged sideways. */
export const CLIFF = Math.tan((75 * Math.PI) / 180);

export interface Deviation {
  /** Per cell, mm along the surface's normal: above the target positive, cut too deep negative; 0 on waste. */
  map: Float32Array;
  /** Lowest value over the cells to be met, and where (cell index, or -1). */
  deepest: number;
  deepestAt: number;
  /** How far the kept board was cut, mm, and where. */
  keepCut: number;
  keepAt: number;
  left: LeftOver;
}

/** What stands more than `NOTABLE` mm over the target. */
export interface LeftOver {
  /** Share of the plan that is to be met, and how large that is, mm2. */
  share: number;
  met: number;
  /** Wood over the target, mm3. */
  volume: number;
  /** Most that stands upright over the target, mm, and where (cell index, or -1). */
  deepest: number;
  at: number;
}

/** What is told of it. */
export type LeftFigures = Omit<LeftOver, 'at' | 'met'>;

/** What is left over of all parts of a board together. */
export function joinLeft(parts: LeftOver[]): LeftFigures {
  const met = parts.reduce((s, p) => s + p.met, 0);
  return {
    share: met > 0 ? parts.reduce((s, p) => s + p.share * p.met, 0) / met : 0,
    volume: parts.reduce((s, p) => s + p.volume, 0),
    deepest: Math.max(...parts.map((p) => p.deepest)),
  };
}

/** Along the normal, mm: less than this is sanded off. */
export const NOTABLE = 0.1;

/** From this on a cut below the target is measured to the nearest of its surface, mm. */
const SUSPECT = 0.005;
/** More than this is too deep whatever lies beside it, mm; walls are measured at any depth. */
const CERTAIN = 0.5;

/** A cell's neighbours, as steps from it; 0 beyond the field's edge. */
interface Around {
  w: number;
  e: number;
  south: number;
  north: number;
}

/** How far a surface lies outside the range of the nine target cells around one, mm: above positive, below negative. */
function beyondNine(surface: number, t: Float32Array, k: number, { w, e, south, north }: Around): number {
  let low = t[k];
  let high = t[k];
  for (const row of [south, 0, north]) {
    for (const col of [w, 0, e]) {
      const v = t[k + row + col];
      if (v < low) low = v;
      if (v > high) high = v;
    }
  }
  return surface < low ? surface - low : surface > high ? surface - high : 0;
}

/** How far a surface lies over a target at a cell, mm: upright, beyond the cells around at a cliff; and along the normal, to the nearest where it lies too deep. */
function offTarget(surface: number, target: HeightField, k: number, around: Around): { over: number; d: number } {
  const { cell, data: t } = target;
  const { w, e, south, north } = around;
  const h = t[k];
  const steep = Math.max(
    Math.abs(t[k + e] - h),
    Math.abs(t[k + w] - h),
    Math.abs(t[k + north] - h),
    Math.abs(t[k + south] - h),
  );
  // A point of waste between two cuts may touch the next cell of it by a corner only.
  const askew = Math.max(
    Math.abs(t[k + north + e] - h),
    Math.abs(t[k + north + w] - h),
    Math.abs(t[k + south + e] - h),
    Math.abs(t[k + south + w] - h),
  );
  const wall = steep > CLIFF * cell || askew > Math.SQRT2 * CLIFF * cell;
  const over = wall ? beyondNine(surface, t, k, around) : surface - h;
  let d = over;
  if (!wall) {
    const gx = (t[k + e] - t[k + w]) / (cell * Math.max(1, e - w));
    const gy = (t[k + north] - t[k + south]) / (cell * Math.max(1, (north !== 0 ? 1 : 0) + (south !== 0 ? 1 : 0)));
    d /= Math.sqrt(1 + gx * gx + gy * gy);
  }
  if (d < -SUSPECT && (d > -CERTAIN || wall)) d = -surfaceDistance(target, k, surface, -d);
  return { over, d };
}

/**
 * Compares a cut surface with the target. On slopes up to 75 degrees the vertical difference is taken along the normal
 * (times the cosine of the slope); at steeper places one cell sideways is allowed: too deep is measured from the lowest,
 * left over from the highest of the nine target cells around. A place that lies too deep by that is then measured to the nearest of the
 * target's surface, so that beside edges and walls it counts sideways.
 */
export function compareSurfaces(cut: HeightField, target: HeightField, mask: Uint8Array): Deviation {
  const { width, height, cell } = target;
  const t = target.data;
  const s = cut.data;
  const map = new Float32Array(t.length);
  const left: LeftOver = { share: 0, met: 0, volume: 0, deepest: 0, at: -1 };
  const out: Deviation = { map, deepest: 0, deepestAt: -1, keepCut: 0, keepAt: -1, left };
  let met = 0;
  let high = 0;
  const beyond = goesRound(target) ? (height - 1) * width : 0;
  for (let j = 0; j < height; j++) {
    const north = j + 1 < height ? width : -beyond;
    const south = j > 0 ? -width : beyond;
    for (let i = 0; i < width; i++) {
      const k = j * width + i;
      if (mask[k] === MASK.waste) continue;
      const around = { w: i > 0 ? -1 : 0, e: i + 1 < width ? 1 : 0, south, north };
      const { over, d } = offTarget(s[k], target, k, around);
      map[k] = d;
      if (mask[k] === MASK.keep) {
        if (t[k] - s[k] > out.keepCut) {
          out.keepCut = t[k] - s[k];
          out.keepAt = k;
        }
        continue;
      }
      met++;
      if (d > NOTABLE) {
        high++;
        left.volume += over * cell * cell;
        if (over > left.deepest) {
          left.deepest = over;
          left.at = k;
        }
      }
      if (d < out.deepest) {
        out.deepest = d;
        out.deepestAt = k;
      }
    }
  }
  left.share = met > 0 ? high / met : 0;
  left.met = met * cell * cell;
  return out;
}
