import { type Cutter, type Profile, profileHeight, profileOf } from '../cutter/cutter';
import { type Drum, inTurn } from '../field/drum';
import type { HeightField } from '../field/height-field';
import { holdsMost, holdsTip } from '../kernels/drum-offset';

/** Cells along a side of the squares whose highest cell is known. */
const BLOCK = 8;

/**
 * Lowest that the tip may be at a place so that the bit goes below no cell of the target, or `floor` where that is higher.
 * Squares of cells that even at their nearest and highest cannot lift the tip are passed over.
 */
export function lowestTip(f: HeightField, cutter: Cutter): (x: number, y: number, floor: number) => number {
  const profile = profileOf(cutter);
  if (f.drum) return lowestRound(f, f.drum, profile);
  const { R } = profile;
  const across = Math.ceil(f.width / BLOCK);
  const tops = new Float32Array(across * Math.ceil(f.height / BLOCK)).fill(-Infinity);
  for (let k = 0; k < f.data.length; k++) {
    const b = Math.floor(Math.floor(k / f.width) / BLOCK) * across + Math.floor((k % f.width) / BLOCK);
    if (f.data[k] > tops[b]) tops[b] = f.data[k];
  }
  const side = (BLOCK - 1) * f.cell;
  /** From a place along an axis to the nearest cell of the square that begins at `from`. */
  const gap = (v: number, from: number) => Math.max(0, from - v, v - from - side);
  return (x, y, floor) => {
    let low = floor;
    const scan = (bi: number, bj: number) => {
      const j1 = Math.min(f.height, (bj + 1) * BLOCK);
      const i1 = Math.min(f.width, (bi + 1) * BLOCK);
      for (let j = bj * BLOCK; j < j1; j++) {
        const dy = f.originY + j * f.cell - y;
        for (let i = bi * BLOCK; i < i1; i++) {
          const h = f.data[j * f.width + i];
          if (h <= low) continue;
          const dx = f.originX + i * f.cell - x;
          const r = Math.sqrt(dx * dx + dy * dy);
          if (r > R) continue;
          const z = h - profileHeight(profile, r);
          if (z > low) low = z;
        }
      }
    };
    const first = (v: number, origin: number) => Math.max(0, Math.floor((v - R - origin) / f.cell / BLOCK));
    const last = (v: number, origin: number, n: number) =>
      Math.min(Math.ceil(n / BLOCK) - 1, Math.floor((v + R - origin) / f.cell / BLOCK));
    const i0 = first(x, f.originX);
    const i1 = last(x, f.originX, f.width);
    const j1 = last(y, f.originY, f.height);
    for (let bj = first(y, f.originY); bj <= j1; bj++) {
      const dy = gap(y, f.originY + bj * BLOCK * f.cell);
      for (let bi = i0; bi <= i1; bi++) {
        const top = tops[bj * across + bi];
        if (top <= low) continue;
        const dx = gap(x, f.originX + bi * BLOCK * f.cell);
        const r = Math.sqrt(dx * dx + dy * dy);
        if (r > R || top - profileHeight(profile, r) <= low) continue;
        scan(bi, bj);
      }
    }
    return low;
  };
}

/** The same round a drum, where whole rays hold a tip up; its field has the rows beyond the seam on either side. */
function lowestRound(f: HeightField, drum: Drum, profile: Profile): ReturnType<typeof lowestTip> {
  const { radius } = drum;
  const { R } = profile;
  return (x, y, floor) => {
    let low = radius + floor;
    const v = (inTurn(drum, y) - f.originY) / f.cell;
    // Further round no ray holds a tip as high as the floor is.
    const rows = (radius * Math.atan2(R, Math.max(1e-9, low))) / f.cell;
    const i0 = Math.max(0, Math.ceil((x - R - f.originX) / f.cell));
    const i1 = Math.min(f.width - 1, Math.floor((x + R - f.originX) / f.cell));
    for (let j = Math.max(0, Math.ceil(v - rows)); j <= Math.min(f.height - 1, Math.floor(v + rows)); j++) {
      const a = Math.abs((j - v) * f.cell) / radius;
      for (let i = i0; i <= i1; i++) {
        const rho = radius + f.data[j * f.width + i];
        if (rho * Math.cos(a) <= low) continue;
        const dx = Math.abs(f.originX + i * f.cell - x);
        const most = holdsMost(profile, 0, a, dx);
        if (most >= 0) low = Math.max(low, holdsTip(profile, 0, Math.min(rho, most), a, dx));
      }
    }
    return low - radius;
  };
}
