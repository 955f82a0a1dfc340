// Where a ray from a drum's axis enters a cutter. See ../drum-removal.ts for the definition.
import { BALL, BULL, FLAT, profileFour, TAPERED } from './lowest';

export const BIG: f32 = 1e30;
/** A cutter's rim belongs to it by so much, mm. */
export const RIM: f64 = 1e-4;

/** The cutter: radius, its square with the rim; corner, sphere or flat radius, cone's start and rise. */
export let R: f32, R2: f32;
let q0: f32, q1: f32, q2: f32;

export function takeCutter(radius: f64, p0: f64, p1: f64, p2: f64): void {
  R = radius as f32; R2 = ((radius + RIM) * (radius + RIM)) as f32;
  q0 = p0 as f32; q1 = p1 as f32; q2 = p2 as f32;
}

// Sine and cosine of angles up to 1.3: the series, within 2e-6.
@inline
export function sineOf(d: v128): v128 {
  const d2 = f32x4.mul(d, d);
  let p = f32x4.add(f32x4.splat(-1.0 / 5040.0), f32x4.mul(d2, f32x4.splat(1.0 / 362880.0)));
  p = f32x4.add(f32x4.splat(1.0 / 120.0), f32x4.mul(d2, p));
  p = f32x4.add(f32x4.splat(-1.0 / 6.0), f32x4.mul(d2, p));
  return f32x4.mul(d, f32x4.add(f32x4.splat(1), f32x4.mul(d2, p)));
}
@inline
export function cosineOf(d: v128): v128 {
  const d2 = f32x4.mul(d, d);
  let p = f32x4.add(f32x4.splat(1.0 / 40320.0), f32x4.mul(d2, f32x4.splat(-1.0 / 3628800.0)));
  p = f32x4.add(f32x4.splat(-1.0 / 720.0), f32x4.mul(d2, p));
  p = f32x4.add(f32x4.splat(1.0 / 24.0), f32x4.mul(d2, p));
  p = f32x4.add(f32x4.splat(-0.5), f32x4.mul(d2, p));
  return f32x4.add(f32x4.splat(1), f32x4.mul(d2, p));
}

/** The same of one angle, within 1e-9: the library's is slower by far and is asked for every row of every move. */
@inline
export function sine(d: f64): f64 {
  const d2 = d * d;
  return d * (1 + d2 * (-1.0 / 6 + d2 * (1.0 / 120 + d2 * (-1.0 / 5040 + d2 * (1.0 / 362880 + d2 * (-1.0 / 39916800 + d2 / 6227020800.0))))));
}
@inline
export function cosine(d: f64): f64 {
  const d2 = d * d;
  return 1 + d2 * (-0.5 + d2 * (1.0 / 24 + d2 * (-1.0 / 720 + d2 * (1.0 / 40320 + d2 * (-1.0 / 3628800 + d2 * (1.0 / 479001600.0 - d2 / 87178291200.0))))));
}

// How steeply the profile rises at a distance from the axis.
@inline
function rise(shape: i32, q: v128): v128 {
  const zero = f32x4.splat(0), tiny = f32x4.splat(1e-6);
  if (shape == BULL) {
    const e = f32x4.pmax(zero, f32x4.sub(q, f32x4.splat(R - q0)));
    return f32x4.div(e, f32x4.sqrt(f32x4.pmax(tiny, f32x4.sub(f32x4.splat(q0 * q0), f32x4.mul(e, e)))));
  }
  if (shape == TAPERED) {
    const round = f32x4.div(q, f32x4.sqrt(f32x4.pmax(tiny, f32x4.sub(f32x4.splat(q0 * q0), f32x4.mul(q, q)))));
    return v128.bitselect(round, f32x4.splat(q2), f32x4.le(q, f32x4.splat(q1)));
  }
  return v128.bitselect(zero, f32x4.splat(q2), f32x4.le(q, f32x4.splat(q0)));
}

/**
 * The lowest radius at which a ray enters a cutter whose tip is at radius r; BIG where it misses it. sn, cs: of the angle between the ray and the
 * bit; dx2: square of its distance along the axis. Shapes other than flat and ball by Newton steps from below, where what is over the
 * tip is a concave function of the radius, so that each step falls short of it.
 */
@inline
export function entry(shape: i32, dx2: v128, sn: v128, cs: v128, r: v128): v128 {
  const zero = f32x4.splat(0), big = f32x4.splat(BIG);
  if (shape == BALL) {
    const e = f32x4.add(r, f32x4.splat(R)), l = f32x4.mul(e, sn);
    const w2 = f32x4.sub(f32x4.sub(f32x4.splat(R2), dx2), f32x4.mul(l, l));
    const rho = f32x4.sub(f32x4.mul(e, cs), f32x4.sqrt(f32x4.pmax(zero, w2)));
    return v128.bitselect(f32x4.pmax(zero, rho), big, f32x4.ge(w2, zero));
  }
  let rho = f32x4.div(r, cs);
  if (shape == FLAT) {
    const l = f32x4.mul(rho, sn);
    const w2 = f32x4.sub(f32x4.sub(f32x4.splat(R2), dx2), f32x4.mul(l, l));
    return v128.bitselect(f32x4.pmax(zero, rho), big, f32x4.ge(w2, zero));
  }
  const sn2 = f32x4.mul(sn, sn), tiny = f32x4.splat(1e-9), least = f32x4.splat(0.02);
  let misses = f32x4.lt(cs, zero);
  let q = zero;
  for (let i = 0; i < 6; i++) {
    const l2 = f32x4.mul(f32x4.mul(rho, rho), sn2), s2 = f32x4.add(dx2, l2);
    q = f32x4.sqrt(s2);
    const over = f32x4.sub(f32x4.mul(rho, cs), profileFour(shape, s2));
    const up = f32x4.sub(cs, f32x4.div(f32x4.mul(rise(shape, q), f32x4.mul(rho, sn2)), f32x4.pmax(tiny, q)));
    misses = v128.or(misses, f32x4.lt(up, least));
    rho = f32x4.add(rho, f32x4.div(f32x4.pmax(zero, f32x4.sub(r, over)), f32x4.pmax(least, up)));
  }
  const inside = f32x4.ge(f32x4.splat(R2), f32x4.add(dx2, f32x4.mul(f32x4.mul(rho, rho), sn2)));
  return v128.bitselect(f32x4.pmax(zero, rho), big, v128.andnot(inside, misses));
}
