// The cutter offset around a drum: rays instead of columns. See ../drum-offset.ts for the definition and the layout.
import { BALL, FLAT, profileFour, takeUp } from './lowest';
import { lowest, maxRows, slideBlocks } from './offset';

const BIG: f32 = 1e30;

// The row of rays at hand, as it lies to the tip's: cosine and sine of the angle between them.
let cosine: f32, sine2: f32;
let R2: f32, ball: f32, grown: f32;

/**
 * How high over the axis a tip is held by rays that reach out to v: at the radius that holds it most, `star` at most.
 * @param dx2 square of how far along the axis they lie from the tip
 */
@inline
function held(shape: i32, v: v128, star: v128, dx2: v128): v128 {
  const m = f32x4.pmin(v, star), up = f32x4.mul(m, f32x4.splat(cosine));
  if (shape == FLAT) return up;
  const l2 = f32x4.mul(f32x4.mul(m, m), f32x4.splat(sine2));
  if (shape == BALL && grown == 0) {
    const w2 = f32x4.sub(f32x4.sub(f32x4.splat(R2), dx2), l2);
    return f32x4.sub(f32x4.add(up, f32x4.sqrt(f32x4.pmax(f32x4.splat(0), w2))), f32x4.splat(ball));
  }
  let q = f32x4.add(dx2, l2);
  if (grown > 0) {
    const r = f32x4.pmax(f32x4.splat(0), f32x4.sub(f32x4.sqrt(q), f32x4.splat(grown)));
    q = f32x4.mul(r, r);
  }
  return f32x4.sub(up, profileFour(shape, q));
}

@inline
function heldOne(shape: i32, v: f32, star: f32, dx: f32): f32 {
  const m = min(v, star);
  if (shape == FLAT) return m * cosine;
  if (shape == BALL && grown == 0) return m * cosine - ball + Mathf.sqrt(max<f32>(0, R2 - dx * dx - m * m * sine2));
  return f32x4.extract_lane(held(shape, f32x4.splat(v), f32x4.splat(star), f32x4.splat(dx * dx)), 0);
}

// Raises a row of results by one pair of source rows; chunks of offsets that cannot raise any of sixteen columns are skipped: what holds a
// tip rises with the ray's length and falls along the axis, so that the highest of a chunk's rays at its first offset bounds it.
@inline
function accumulate(shape: i32, out: usize, m: usize, s3: usize, s6: usize, star: usize, width16: i32, pad: i32, R: i32, cell: f32): void {
  for (let x = 0; x < width16; x += 16) {
    const o = out + ((x as usize) << 2);
    let a0 = v128.load(o), a1 = v128.load(o + 16), a2 = v128.load(o + 32), a3 = v128.load(o + 48);
    let least = lowest(a0, a1, a2, a3);
    const X = x + pad;
    const B = X >> 3;
    let touched = false;
    for (let g = 0; g <= R; g += 32) {
      const sg = f32.load(star + ((g as usize) << 2));
      if (sg < 0) break;
      const gb = g >> 3;
      const reach = max(f32.load(s6 + (((B - gb - 4) as usize) << 2)), f32.load(s6 + (((B + gb) as usize) << 2)));
      if (reach * cosine <= least || heldOne(shape, reach, sg, (g as f32) * cell) <= least) continue;
      for (let d = g; d < g + 32; d += 8) {
        const sd = f32.load(star + ((d as usize) << 2));
        if (sd < 0) break;
        const db = d >> 3;
        const r3 = max(f32.load(s3 + (((B - db - 1) as usize) << 2)), f32.load(s3 + (((B + db) as usize) << 2)));
        if (r3 * cosine <= least || heldOne(shape, r3, sd, (d as f32) * cell) <= least) continue;
        const lp = m + (((X - d) as usize) << 2);
        const rp = m + (((X + d) as usize) << 2);
        for (let k: usize = 0; k < 32; k += 4) {
          const sv = f32.load(star + ((d as usize) << 2) + k);
          if (sv < 0) break;
          const s4 = f32x4.splat(sv), dx = ((d as f32) + ((k >> 2) as f32)) * cell, dx2 = f32x4.splat(dx * dx);
          a0 = f32x4.pmax(a0, held(shape, f32x4.pmax(v128.load(lp - k), v128.load(rp + k)), s4, dx2));
          a1 = f32x4.pmax(a1, held(shape, f32x4.pmax(v128.load(lp - k, 16), v128.load(rp + k, 16)), s4, dx2));
          a2 = f32x4.pmax(a2, held(shape, f32x4.pmax(v128.load(lp - k, 32), v128.load(rp + k, 32)), s4, dx2));
          a3 = f32x4.pmax(a3, held(shape, f32x4.pmax(v128.load(lp - k, 48), v128.load(rp + k, 48)), s4, dx2));
        }
        least = lowest(a0, a1, a2, a3);
        touched = true;
      }
    }
    if (touched) {
      v128.store(o, a0);
      v128.store(o, a1, 16);
      v128.store(o, a2, 32);
      v128.store(o, a3, 48);
    }
  }
}

@inline
function band(
  shape: i32, src: usize, blocks: usize, stars: usize, turns: usize, scratch: usize, dst: usize,
  stride: i32, pad: i32, width16: i32, rows: i32, J: i32, R: i32, tStride: i32, cell: f32,
): void {
  const nb = stride >> 3;
  const m = scratch;
  const bm = scratch + ((stride as usize) << 2);
  const s3 = bm + ((nb as usize) << 2);
  const s6 = s3 + ((nb as usize) << 2);
  for (let y = 0; y < rows; y++) {
    const out = dst + (((y * width16) as usize) << 2);
    const low = f32x4.splat(-BIG);
    for (let i: usize = 0, e: usize = (width16 as usize) << 2; i < e; i += 16) v128.store(out + i, low);
    for (let j = 0; j <= J; j++) {
      const above = (y + J - j), below = (y + J + j);
      cosine = f32.load(turns + ((j as usize) << 3));
      const s = f32.load(turns + ((j as usize) << 3), 4);
      sine2 = s * s;
      maxRows(src + (((above * stride) as usize) << 2), src + (((below * stride) as usize) << 2), stride, m);
      for (let b = 0; b < nb; b++) {
        const o = (b as usize) << 2;
        f32.store(bm + o, max(f32.load(blocks + (((above * nb) as usize) << 2) + o), f32.load(blocks + (((below * nb) as usize) << 2) + o)));
      }
      slideBlocks(bm, nb, s3, s6);
      accumulate(shape, out, m, s3, s6, stars + (((j * tStride) as usize) << 2), width16, pad, R, cell);
    }
  }
}

/**
 * r(x, a) = max over rays of what holds a tip there, for one band of rows. src: rows of `stride` floats, radii, J rows above and below; blocks:
 * blockMax8 of each; stars: (J + 1) rows of `tStride` floats, -1 where a ray lies outside of the cutter; turns: cosine and sine of J + 1 angles;
 * scratch: stride + 3 * stride / 8 floats; dst: `rows` rows of `width16` floats. radius, p0, p1, p2: the cutter's; wider: by how much it is grown.
 */
export function drumBand(
  src: usize, blocks: usize, stars: usize, turns: usize, scratch: usize, dst: usize,
  stride: i32, pad: i32, width16: i32, rows: i32, J: i32, R: i32, tStride: i32, cell: f64,
  shape: i32, radius: f64, p0: f64, p1: f64, p2: f64, wider: f64,
): void {
  takeUp(shape, radius, p0, p1, p2, 0);
  const c = cell as f32;
  R2 = (radius * radius) as f32; ball = radius as f32; grown = wider as f32;
  if (shape == FLAT) band(FLAT, src, blocks, stars, turns, scratch, dst, stride, pad, width16, rows, J, R, tStride, c);
  else if (shape == BALL && wider == 0) band(BALL, src, blocks, stars, turns, scratch, dst, stride, pad, width16, rows, J, R, tStride, c);
  else band(shape, src, blocks, stars, turns, scratch, dst, stride, pad, width16, rows, J, R, tStride, c);
}
