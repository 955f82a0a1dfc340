// The offset of a flat-ended cutter around a drum: what holds it is a window's highest ray but at its rim. See ../drum-offset.ts.
import { lowest } from './offset';

const BIG: f32 = 1e30;

/** Raises a row of results by one pair of source rows where rays end beyond the cutter's side: at the offsets from `d` on, as far as any can raise them. */
@inline
function rim(out: usize, above: usize, below: usize, star: usize, first: i32, cosine: f32, width16: i32): void {
  const c = f32x4.splat(cosine), most = f32.load(star + ((first as usize) << 2)) * cosine;
  for (let x: usize = 0, e: usize = (width16 as usize) << 2; x < e; x += 64) {
    const o = out + x;
    let a0 = v128.load(o), a1 = v128.load(o, 16), a2 = v128.load(o, 32), a3 = v128.load(o, 48);
    const least = lowest(a0, a1, a2, a3);
    if (most <= least) continue;
    for (let d = first; ; d++) {
      const s = f32.load(star + ((d as usize) << 2));
      if (s < 0 || s * cosine <= least) break;
      const s4 = f32x4.splat(s), by = (d as usize) << 2;
      const al = above + x - by, ar = above + x + by, bl = below + x - by, br = below + x + by;
      a0 = f32x4.pmax(a0, f32x4.mul(c, f32x4.pmin(s4, f32x4.pmax(f32x4.pmax(v128.load(al), v128.load(ar)), f32x4.pmax(v128.load(bl), v128.load(br))))));
      a1 = f32x4.pmax(a1, f32x4.mul(c, f32x4.pmin(s4, f32x4.pmax(f32x4.pmax(v128.load(al, 16), v128.load(ar, 16)), f32x4.pmax(v128.load(bl, 16), v128.load(br, 16))))));
      a2 = f32x4.pmax(a2, f32x4.mul(c, f32x4.pmin(s4, f32x4.pmax(f32x4.pmax(v128.load(al, 32), v128.load(ar, 32)), f32x4.pmax(v128.load(bl, 32), v128.load(br, 32))))));
      a3 = f32x4.pmax(a3, f32x4.mul(c, f32x4.pmin(s4, f32x4.pmax(f32x4.pmax(v128.load(al, 48), v128.load(ar, 48)), f32x4.pmax(v128.load(bl, 48), v128.load(br, 48))))));
    }
    v128.store(o, a0);
    v128.store(o, a1, 16);
    v128.store(o, a2, 32);
    v128.store(o, a3, 48);
  }
}

/**
 * As drumBand, for a flat end. maxima: for every source row `levels` rows as rowMaxima writes them; whole: for each of the J + 1 angles up to how many
 * cells along the axis every ray of the band ends inside the cutter, -1 for none.
 */
export function drumFlatBand(
  src: usize, maxima: usize, whole: usize, stars: usize, turns: usize, dst: usize,
  stride: i32, pad: i32, width16: i32, rows: i32, J: i32, tStride: i32, levels: i32,
): void {
  for (let y = 0; y < rows; y++) {
    const out = dst + (((y * width16) as usize) << 2);
    const low = f32x4.splat(-BIG);
    const e: usize = (width16 as usize) << 2;
    for (let i: usize = 0; i < e; i += 16) v128.store(out + i, low);
    for (let j = 0; j <= J; j++) {
      const above = y + J - j, below = y + J + j;
      const cosine = f32.load(turns + ((j as usize) << 3)), c = f32x4.splat(cosine);
      const w = i32.load(whole + ((j as usize) << 2));
      if (w >= 0) {
        const k = 31 - clz(2 * w + 1);
        const left = ((pad - w) as usize) << 2, right = ((pad + w + 1 - (1 << k)) as usize) << 2;
        const a = maxima + ((((above * levels + k) * stride) as usize) << 2), b = maxima + ((((below * levels + k) * stride) as usize) << 2);
        for (let i: usize = 0; i < e; i += 16) {
          const high = f32x4.pmax(f32x4.pmax(v128.load(a + left + i), v128.load(a + right + i)), f32x4.pmax(v128.load(b + left + i), v128.load(b + right + i)));
          v128.store(out + i, f32x4.pmax(v128.load(out + i), f32x4.mul(c, high)));
        }
      }
      const star = stars + (((j * tStride) as usize) << 2);
      if (f32.load(star + (((w + 1) as usize) << 2)) < 0) continue;
      const at = (pad as usize) << 2;
      rim(out, src + (((above * stride) as usize) << 2) + at, src + (((below * stride) as usize) << 2) + at, star, w + 1, cosine, width16);
    }
  }
}
