import { MASK } from '../arrange/target';
import type { HeightField } from '../field/height-field';

/** Slope of a cliff: steeper than 75 degrees, where an error is judged sideways. */
const CLIFF = Math.tan((75 * Math.PI) / 180);

export interface Deviation {
  /** Per cell, mm along the surface's normal: above the target positive, cut too deep negative; 0 on waste. */
  map: Float32Array;
  /** Lowest value over the cells to be met, and where (cell index, or -1). */
  deepest: number;
  deepestAt: number;
  /** How far the kept board was cut, mm, and where. */
  keepCut: number;
  keepAt: number;
  /** Share of the cells to be met that stand more than `notable` mm above the target. */
  leftShare: number;
  notable: number;
}

/**
 * Compares a cut surface with the target. On slopes up to 75 degrees the vertical difference is taken along the normal
 * (times the cosine of the slope); at steeper places one cell sideways is allowed: too deep is measured from the lowest,
 * left over from the highest of the nine target cells around.
 */
export function compareSurfaces(cut: HeightField, target: HeightField, mask: Uint8Array, notable = 0.1): Deviation {
  const { width, height, cell } = target;
  const t = target.data;
  const s = cut.data;
  const map = new Float32Array(t.length);
  const out: Deviation = { map, deepest: 0, deepestAt: -1, keepCut: 0, keepAt: -1, leftShare: 0, notable };
  let met = 0;
  let left = 0;
  for (let j = 0; j < height; j++) {
    const north = j + 1 < height ? width : 0;
    const south = j > 0 ? -width : 0;
    for (let i = 0; i < width; i++) {
      const k = j * width + i;
      if (mask[k] === MASK.waste) continue;
      const e = i + 1 < width ? 1 : 0;
      const w = i > 0 ? -1 : 0;
      const h = t[k];
      const steep = Math.max(
        Math.abs(t[k + e] - h),
        Math.abs(t[k + w] - h),
        Math.abs(t[k + north] - h),
        Math.abs(t[k + south] - h),
      );
      let d = s[k] - h;
      if (steep > CLIFF * cell) {
        let low = h;
        let high = h;
        for (const row of [south, 0, north]) {
          for (const col of [w, 0, e]) {
            const v = t[k + row + col];
            if (v < low) low = v;
            if (v > high) high = v;
          }
        }
        d = s[k] < low ? s[k] - low : s[k] > high ? s[k] - high : 0;
      } else {
        const gx = (t[k + e] - t[k + w]) / (cell * Math.max(1, e - w));
        const gy = (t[k + north] - t[k + south]) / (cell * Math.max(1, (north > 0 ? 1 : 0) + (south < 0 ? 1 : 0)));
        d /= Math.sqrt(1 + gx * gx + gy * gy);
      }
      map[k] = d;
      if (mask[k] === MASK.keep) {
        if (h - s[k] > out.keepCut) {
          out.keepCut = h - s[k];
          out.keepAt = k;
        }
        continue;
      }
      met++;
      if (d > notable) left++;
      if (d < out.deepest) {
        out.deepest = d;
        out.deepestAt = k;
      }
    }
  }
  out.leftShare = met > 0 ? left / met : 0;
  return out;
}
