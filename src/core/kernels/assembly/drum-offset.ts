// The cutter offset around a drum: rays instead of columns. See ../drum-offset.ts for the definition and the layout.
import { BALL, BULL, profileFour, TAPERED, takeUp, VEE } from './lowest';
import { lowest, slideBlocks } from './offset';

const BIG: f32 = 1e30;

// A tapered cutter's ball and its cone, each worked out alone where a run of offsets meets no other part of it.
const TIP = 5, CONE = 6;
// Any cutter grown outwards.
const GROWN = 7;

// The row of rays at hand, as it lies to the tip's: the square of the tangent of the angle between them. Its rays are kept as they stand over the
// drum's axis along the tip's ray, so that a row is turned once and not at every offset.
let tan2: f32;
// Of the cutter: its ball's radius and the square of it (0 without one); its shape where it is grown, and by how much.
let ball: f32, ball2: f32, kind: i32, grown: f32;
// Of a tapered one: distance from the axis and its square where ball and cone meet, the cone's slope, and how high its point lies over the ball's middle.
let rim: f32, rim2: f32, slope: f32, point: f32;

/**
 * How high over the axis a tip is held by rays that reach out to v: with the place that holds it most, `star` at most. By a ball: how high its middle.
 * @param v how high they reach along the tip's ray
 * @param dx2 square of how far along the drum's axis they lie from the tip
 */
@inline
function held(shape: i32, v: v128, star: v128, dx2: f32, turn: v128): v128 {
  const up = f32x4.pmin(v, star), l2 = f32x4.mul(f32x4.mul(up, up), turn);
  if (shape == BALL || shape == TIP) return f32x4.add(up, f32x4.sqrt(f32x4.pmax(f32x4.splat(0), f32x4.sub(f32x4.splat(ball2 - dx2), l2))));
  const q = f32x4.add(f32x4.splat(dx2), l2);
  if (shape == CONE) return f32x4.sub(f32x4.add(up, f32x4.splat(point)), f32x4.mul(f32x4.sqrt(q), f32x4.splat(slope)));
  if (shape == TAPERED) return v128.bitselect(held(TIP, v, star, dx2, turn), held(CONE, v, star, dx2, turn), f32x4.le(q, f32x4.splat(rim2)));
  if (shape != GROWN) return f32x4.sub(up, profileFour(shape, q));
  const r = f32x4.pmax(f32x4.splat(0), f32x4.sub(f32x4.sqrt(q), f32x4.splat(grown)));
  return f32x4.sub(up, profileFour(kind, f32x4.mul(r, r)));
}

@inline
function heldOne(shape: i32, v: f32, star: f32, dx: f32): f32 {
  if (shape != BALL && shape != TAPERED)
    return f32x4.extract_lane(held(shape, f32x4.splat(v), f32x4.splat(star), dx * dx, f32x4.splat(tan2)), 0);
  const up = min(v, star), l2 = up * up * tan2, q = dx * dx + l2;
  return shape == TAPERED && q > rim2 ? up + point - Mathf.sqrt(q) * slope : up + Mathf.sqrt(max<f32>(0, ball2 - dx * dx - l2));
}

/** Raises sixteen results by eight offsets either side, from the d-th on. */
@inline
function raise(shape: i32, o: usize, lp: usize, rp: usize, star: usize, d: i32, cell: f32): void {
  const turn = f32x4.splat(tan2);
  let a0 = v128.load(o), a1 = v128.load(o, 16), a2 = v128.load(o, 32), a3 = v128.load(o, 48);
  for (let k: usize = 0; k < 32; k += 4) {
    const sv = f32.load(star + k);
    if (sv < 0) break;
    const s4 = f32x4.splat(sv), dx = ((d as f32) + ((k >> 2) as f32)) * cell, dx2 = dx * dx;
    a0 = f32x4.pmax(a0, held(shape, f32x4.pmax(v128.load(lp - k), v128.load(rp + k)), s4, dx2, turn));
    a1 = f32x4.pmax(a1, held(shape, f32x4.pmax(v128.load(lp - k, 16), v128.load(rp + k, 16)), s4, dx2, turn));
    a2 = f32x4.pmax(a2, held(shape, f32x4.pmax(v128.load(lp - k, 32), v128.load(rp + k, 32)), s4, dx2, turn));
    a3 = f32x4.pmax(a3, held(shape, f32x4.pmax(v128.load(lp - k, 48), v128.load(rp + k, 48)), s4, dx2, turn));
  }
  v128.store(o, a0);
  v128.store(o, a1, 16);
  v128.store(o, a2, 32);
  v128.store(o, a3, 48);
}

// Each a function of its own: the compiler keeps its values in registers.
function raiseBall(o: usize, lp: usize, rp: usize, star: usize, d: i32, cell: f32): void { raise(BALL, o, lp, rp, star, d, cell); }
function raiseTip(o: usize, lp: usize, rp: usize, star: usize, d: i32, cell: f32): void { raise(TIP, o, lp, rp, star, d, cell); }
function raiseCone(o: usize, lp: usize, rp: usize, star: usize, d: i32, cell: f32): void { raise(CONE, o, lp, rp, star, d, cell); }
function raiseTapered(o: usize, lp: usize, rp: usize, star: usize, d: i32, cell: f32): void { raise(TAPERED, o, lp, rp, star, d, cell); }
function raiseVee(o: usize, lp: usize, rp: usize, star: usize, d: i32, cell: f32): void { raise(VEE, o, lp, rp, star, d, cell); }
function raiseBull(o: usize, lp: usize, rp: usize, star: usize, d: i32, cell: f32): void { raise(BULL, o, lp, rp, star, d, cell); }
function raiseGrown(o: usize, lp: usize, rp: usize, star: usize, d: i32, cell: f32): void { raise(GROWN, o, lp, rp, star, d, cell); }

// Raises a row of results by one pair of source rows; chunks of offsets that cannot raise any of sixteen columns are skipped: what holds a
// tip rises with the ray's length and falls along the axis, so that the highest of a chunk's rays at its first offset bounds it.
@inline
function accumulate(shape: i32, out: usize, m: usize, s3: usize, s6: usize, star: usize, width16: i32, pad: i32, R: i32, cell: f32, beside: f32): void {
  for (let x = 0; x < width16; x += 16) {
    const o = out + ((x as usize) << 2);
    let least = lowest(v128.load(o), v128.load(o, 16), v128.load(o, 32), v128.load(o, 48));
    const X = x + pad;
    const B = X >> 3;
    for (let g = 0; g <= R; g += 32) {
      const sg = f32.load(star + ((g as usize) << 2));
      if (sg < 0) break;
      const gb = g >> 3;
      const reach = max(f32.load(s6 + (((B - gb - 4) as usize) << 2)), f32.load(s6 + (((B + gb) as usize) << 2)));
      if (reach + ball <= least || heldOne(shape, reach, sg, (g as f32) * cell) <= least) continue;
      for (let d = g; d < g + 32; d += 8) {
        const at = star + ((d as usize) << 2), sd = f32.load(at), dx = (d as f32) * cell;
        if (sd < 0) break;
        const db = d >> 3;
        const r3 = max(f32.load(s3 + (((B - db - 1) as usize) << 2)), f32.load(s3 + (((B + db) as usize) << 2)));
        if (r3 + ball <= least || heldOne(shape, r3, sd, dx) <= least) continue;
        const lp = m + (((X - d) as usize) << 2);
        const rp = m + (((X + d) as usize) << 2);
        if (shape == TAPERED) {
          const far = dx + 7 * cell, up = min(r3, sd);
          if (far * far + up * up * tan2 <= rim2) raiseTip(o, lp, rp, at, d, cell);
          else if (max(dx, beside) >= rim) raiseCone(o, lp, rp, at, d, cell);
          else raiseTapered(o, lp, rp, at, d, cell);
        } else if (shape == BALL) raiseBall(o, lp, rp, at, d, cell);
        else if (shape == VEE) raiseVee(o, lp, rp, at, d, cell);
        else if (shape == BULL) raiseBull(o, lp, rp, at, d, cell);
        else raiseGrown(o, lp, rp, at, d, cell);
        least = lowest(v128.load(o), v128.load(o, 16), v128.load(o, 32), v128.load(o, 48));
      }
    }
  }
}

// The higher of two rows, turned by an angle; `n` is a multiple of four.
@inline
function turned(a: usize, b: usize, n: i32, cosine: f32, dst: usize): void {
  const c = f32x4.splat(cosine);
  for (let i: usize = 0, e: usize = (n as usize) << 2; i < e; i += 16)
    v128.store(dst + i, f32x4.mul(c, f32x4.pmax(v128.load(a + i), v128.load(b + i))));
}

@inline
function band(
  shape: i32, src: usize, blocks: usize, stars: usize, turns: usize, scratch: usize, dst: usize,
  stride: i32, pad: i32, width16: i32, rows: i32, J: i32, R: i32, tStride: i32, cell: f32, low: f32,
): void {
  const nb = stride >> 3;
  const m = scratch;
  const bm = scratch + ((stride as usize) << 2);
  const s3 = bm + ((nb as usize) << 2);
  const s6 = s3 + ((nb as usize) << 2);
  const end: usize = (width16 as usize) << 2, down = f32x4.splat(ball);
  for (let y = 0; y < rows; y++) {
    const out = dst + (((y * width16) as usize) << 2);
    for (let i: usize = 0; i < end; i += 16) v128.store(out + i, f32x4.splat(-BIG));
    for (let j = 0; j <= J; j++) {
      const above = (y + J - j), below = (y + J + j);
      const cosine = f32.load(turns + ((j as usize) << 3)), sine = f32.load(turns + ((j as usize) << 3), 4);
      tan2 = (sine / cosine) * (sine / cosine);
      turned(src + (((above * stride) as usize) << 2), src + (((below * stride) as usize) << 2), stride, cosine, m);
      for (let b = 0; b < nb; b++) {
        const o = (b as usize) << 2;
        f32.store(bm + o, cosine * max(f32.load(blocks + (((above * nb) as usize) << 2) + o), f32.load(blocks + (((below * nb) as usize) << 2) + o)));
      }
      slideBlocks(bm, nb, s3, s6);
      accumulate(shape, out, m, s3, s6, stars + (((j * tStride) as usize) << 2), width16, pad, R, cell, low * sine);
    }
    for (let i: usize = 0; i < end; i += 16) v128.store(out + i, f32x4.sub(v128.load(out + i), down));
  }
}

/**
 * r(x, a) = max over rays of what holds a tip there, for one band of rows. src: rows of `stride` floats, radii, J rows above and below; blocks:
 * blockMax8 of each; stars: (J + 1) rows of `tStride` floats, how high along the tip's ray the place of a ray stands that holds it most, -1 where a
 * ray lies outside of the cutter; turns: cosine and sine of J + 1 angles; scratch: stride + 3 * stride / 8 floats; dst: `rows` rows of `width16`
 * floats. low: the least radius of the rows; radius, p0, p1, p2: the cutter's, which has no flat end; wider: by how much it is grown.
 */
export function drumBand(
  src: usize, blocks: usize, stars: usize, turns: usize, scratch: usize, dst: usize,
  stride: i32, pad: i32, width16: i32, rows: i32, J: i32, R: i32, tStride: i32, cell: f64, low: f64,
  shape: i32, radius: f64, p0: f64, p1: f64, p2: f64, wider: f64,
): void {
  takeUp(shape, radius, p0, p1, p2, 0);
  const c = cell as f32, l = low as f32;
  kind = shape; grown = wider as f32;
  const round = wider > 0 ? 0 : shape == BALL ? radius : shape == TAPERED ? p0 : 0;
  ball = round as f32; ball2 = (round * round) as f32;
  rim = p1 as f32; rim2 = (p1 * p1) as f32; slope = p2 as f32; point = (Math.sqrt(max(0.0, p0 * p0 - p1 * p1)) + p1 * p2) as f32;
  if (wider > 0) band(GROWN, src, blocks, stars, turns, scratch, dst, stride, pad, width16, rows, J, R, tStride, c, l);
  else if (shape == BALL) band(BALL, src, blocks, stars, turns, scratch, dst, stride, pad, width16, rows, J, R, tStride, c, l);
  else if (shape == TAPERED) band(TAPERED, src, blocks, stars, turns, scratch, dst, stride, pad, width16, rows, J, R, tStride, c, l);
  else if (shape == VEE) band(VEE, src, blocks, stars, turns, scratch, dst, stride, pad, width16, rows, J, R, tStride, c, l);
  else band(BULL, src, blocks, stars, turns, scratch, dst, stride, pad, width16, rows, J, R, tStride, c, l);
}
