// Where the lowest point of a cutter over a cell lies while it runs along a slanted segment, and the cutter's profile:
// one cell at a time in f64 for rows along the segment, four cells at a time in f32 for the others.
// Shapes and parameters as in ../../cutter/cutter.ts.

export const FLAT = 0, BALL = 1, BULL = 2, TAPERED = 3, VEE = 4;

// Of the segment at hand: steepness (never negative) and its sign, and what follows from them and the shape.
let steep: f64, sign: f64, kappa: f64, cone: f64, wall: bool;
let R: f64, p0: f64, p1: f64, p2: f64;
// Bull-nose: start of the search, and the two factors of its equation.
let reach: f32, whole: f32, part: f32;

/** Takes up a shape and the slope m of a segment. */
export function takeUp(shape: i32, radius: f64, q0: f64, q1: f64, q2: f64, m: f64): void {
  R = radius; p0 = q0; p1 = q1; p2 = q2;
  steep = Math.abs(m); sign = m < 0 ? -1 : 1;
  kappa = steep / Math.sqrt(1 + steep * steep);
  wall = steep >= p2;
  cone = wall ? 0 : steep / Math.sqrt(p2 * p2 - steep * steep);
  if (shape == BULL) {
    reach = Math.cbrt(0.5 * steep * steep * R * p0 * p0) as f32;
    whole = (1 + steep * steep) as f32;
    part = (steep * steep * p0 * p0) as f32;
  }
}

// Bull-nose: t'(r) u / r = m on the torus. With e the distance from the flat's rim, r = e + f, squared and multiplied out:
// (1 + m2) e2 r2 - b2 e2 - m2 p0^2 r2 = 0 has no roots in it. Newton steps from the largest e that can be.
function bullOne(b: f64): f64 {
  const bb = b * b, f = R - p0, w = 1 + steep * steep, p = steep * steep * p0 * p0;
  const least = max(0.0, Math.abs(b) - f);
  let e = min(p0, least + (reach as f64));
  for (let i = 0; i < 8; i++) {
    const r = e + f;
    const g = w * e * e * r * r - bb * e * e - p * r * r;
    const d = 2 * (w * e * r * (r + e) - bb * e - p * r);
    e = min(p0, max(least, e - g / max(1e-12, d)));
  }
  const r = e + f;
  return Math.sqrt(max(0.0, r * r - bb));
}

/** How far behind a cell, along the segment, the cutter's lowest point over it lies when nothing bounds it. b: distance across; c: half the cutter's chord there. */
export function lowestOne(shape: i32, b: f64, c: f64): f64 {
  if (steep == 0) return 0;
  const bb = b * b;
  if (shape == BALL) return sign * c * kappa;
  if (shape == BULL) return sign * bullOne(b);
  if (shape == TAPERED) {
    const c2 = p0 * p0 - bb;
    if (c2 > 0) {
      const u = Math.sqrt(c2) * kappa;
      if (u * u + bb <= p1 * p1) return sign * u;
    }
    return sign * (wall ? c : Math.abs(b) * cone);
  }
  if (shape == VEE) return sign * (wall ? c : max(Math.sqrt(max(0.0, p0 * p0 - bb)), Math.abs(b) * cone));
  return sign * c;
}

// The same in three steps for four cells: within 1e-3 mm of the lowest point's place, and of second order in its height.
@inline
function bullFour(b: v128): v128 {
  const zero = f32x4.splat(0), f = f32x4.splat((R - p0) as f32), most = f32x4.splat(p0 as f32);
  const fw = f32x4.splat(whole), fp = f32x4.splat(part), two = f32x4.splat(2), tiny = f32x4.splat(1e-12);
  const least = f32x4.pmax(zero, f32x4.sub(f32x4.abs(b), f));
  const bb = f32x4.mul(b, b);
  let e = f32x4.pmin(most, f32x4.add(least, f32x4.splat(reach)));
  for (let i = 0; i < 3; i++) {
    const r = f32x4.add(e, f), er = f32x4.mul(e, r), be = f32x4.mul(bb, e), wer = f32x4.mul(fw, er);
    const g = f32x4.sub(f32x4.sub(f32x4.mul(wer, er), f32x4.mul(be, e)), f32x4.mul(fp, f32x4.mul(r, r)));
    const d = f32x4.mul(two, f32x4.sub(f32x4.sub(f32x4.mul(wer, f32x4.add(r, e)), be), f32x4.mul(fp, r)));
    e = f32x4.pmin(most, f32x4.pmax(least, f32x4.sub(e, f32x4.div(g, f32x4.pmax(tiny, d)))));
  }
  const r = f32x4.add(e, f);
  return f32x4.sqrt(f32x4.pmax(zero, f32x4.sub(f32x4.mul(r, r), bb)));
}

/** The same for four cells; see lowestOne. */
@inline
export function lowestFour(shape: i32, b: v128, c: v128): v128 {
  const s = f32x4.splat(sign as f32), zero = f32x4.splat(0);
  if (shape == BALL) return f32x4.mul(c, f32x4.splat((sign * kappa) as f32));
  if (steep == 0) return zero;
  if (shape == FLAT) return f32x4.mul(s, c);
  if (shape == BULL) return f32x4.mul(s, bullFour(b));
  const bb = f32x4.mul(b, b), c2 = f32x4.sub(f32x4.splat((p0 * p0) as f32), bb);
  const round = f32x4.sqrt(f32x4.pmax(zero, c2));
  const far = wall ? c : f32x4.mul(f32x4.abs(b), f32x4.splat(cone as f32));
  if (shape == VEE) return f32x4.mul(s, wall ? c : f32x4.pmax(round, far));
  const u = f32x4.mul(round, f32x4.splat(kappa as f32));
  const onBall = v128.and(f32x4.gt(c2, zero), f32x4.le(f32x4.add(f32x4.mul(u, u), bb), f32x4.splat((p1 * p1) as f32)));
  return f32x4.mul(s, v128.bitselect(u, far, onBall));
}

/** Height of the cutter's surface over its tip at the distance whose square is q, four cells. */
@inline
export function profileFour(shape: i32, q: v128): v128 {
  const zero = f32x4.splat(0);
  if (shape == BALL) {
    const r = f32x4.splat(R as f32);
    return f32x4.sub(r, f32x4.sqrt(f32x4.pmax(zero, f32x4.sub(f32x4.mul(r, r), q))));
  }
  if (shape == BULL) {
    const corner = f32x4.splat(p0 as f32);
    const e = f32x4.pmax(zero, f32x4.sub(f32x4.sqrt(q), f32x4.splat((R - p0) as f32)));
    return f32x4.sub(corner, f32x4.sqrt(f32x4.pmax(zero, f32x4.sub(f32x4.mul(corner, corner), f32x4.mul(e, e)))));
  }
  if (shape == TAPERED) {
    const ball = f32x4.splat(p0 as f32), rim = f32x4.splat(p1 as f32);
    const low = f32x4.sub(ball, f32x4.sqrt(f32x4.pmax(zero, f32x4.sub(f32x4.mul(ball, ball), q))));
    const start = f32x4.splat((p0 - Math.sqrt(max(0.0, p0 * p0 - p1 * p1))) as f32);
    const high = f32x4.add(start, f32x4.mul(f32x4.sub(f32x4.sqrt(q), rim), f32x4.splat(p2 as f32)));
    return v128.bitselect(low, high, f32x4.le(q, f32x4.mul(rim, rim)));
  }
  if (shape == VEE)
    return f32x4.pmax(zero, f32x4.mul(f32x4.sub(f32x4.sqrt(q), f32x4.splat(p0 as f32)), f32x4.splat(p2 as f32)));
  return zero;
}
