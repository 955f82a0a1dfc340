// Rows of cells under a segment, four at a time. X: place of the first cell from the segment's start; Y: of the row.
import { BALL, BULL, FLAT, lowestFour, lowestOne, profileFour, TAPERED, VEE } from './lowest';
import { take } from './engaged';

const BIG: f32 = 1e30;

// The segment at hand: direction, length, slope, start's height, the lower of its ends, radius and its square with the rim.
let ux: f32, uy: f32, long: f32, slope: f32, start: f32, floor: f32, R2: f32;

/** Takes up a segment for the rows that follow. */
export function aim(dirX: f64, dirY: f64, L: f64, m: f64, z0: f64, square: f64): void {
  ux = dirX as f32; uy = dirY as f32; long = L as f32; slope = m as f32; start = z0 as f32;
  floor = min(z0, z0 + m * L) as f32; R2 = square as f32;
}

@inline
function lanes(X: f32, dX: f32): v128 {
  return f32x4.add(f32x4.splat(X), f32x4.mul(f32x4(0, 1, 2, 3), f32x4.splat(dX)));
}

@inline
function across(shape: i32, at: usize, n: i32, X0: f32, dX: f32, Y: f32): void {
  const zero = f32x4.splat(0), big = f32x4.splat(BIG), fL = f32x4.splat(long), fm = f32x4.splat(slope);
  const fR2 = f32x4.splat(R2), fux = f32x4.splat(ux), fuy = f32x4.splat(uy), base = f32x4.splat(start);
  const Yuy = f32x4.splat(Y * uy), Yux = f32x4.splat(Y * ux), low = f32x4.splat(floor), step = f32x4.splat(4 * dX);
  let X = lanes(X0, dX);
  for (const end = at + ((n as usize) << 2); at <= end; at += 16) {
    const old = v128.load(at);
    const here = X;
    X = f32x4.add(X, step);
    if (!v128.any_true(f32x4.gt(old, low))) continue;
    const a = f32x4.add(f32x4.mul(here, fux), Yuy);
    const b = f32x4.sub(Yux, f32x4.mul(here, fuy));
    const c2 = f32x4.sub(fR2, f32x4.mul(b, b));
    const c = f32x4.sqrt(f32x4.pmax(zero, c2));
    const lo = f32x4.pmax(f32x4.sub(a, fL), f32x4.neg(c)), hi = f32x4.pmin(a, c);
    const u = f32x4.pmin(hi, f32x4.pmax(lo, lowestFour(shape, b, c)));
    const tip = f32x4.add(base, f32x4.mul(fm, f32x4.sub(a, u)));
    let z = f32x4.add(tip, profileFour(shape, f32x4.add(f32x4.mul(u, u), f32x4.mul(b, b))));
    z = v128.bitselect(z, big, v128.and(f32x4.ge(c2, zero), f32x4.le(lo, hi)));
    if (v128.any_true(f32x4.gt(old, z))) take(at, old, z, tip, a, b);
  }
}

@inline
function along(shape: i32, at: usize, n: i32, X0: f32, dX: f32, Y: f32): void {
  const bs = Y * ux, c2 = R2 - bs * bs;
  if (c2 < 0) return;
  const cs = Mathf.sqrt(c2);
  const big = f32x4.splat(BIG), fL = f32x4.splat(long), fm = f32x4.splat(slope), base = f32x4.splat(start);
  const b = f32x4.splat(bs), bb = f32x4.mul(b, b), c = f32x4.splat(cs), nc = f32x4.splat(-cs);
  const best = f32x4.splat(lowestOne(shape, bs, cs) as f32), low = f32x4.splat(floor), step = f32x4.splat(4 * dX * ux);
  let a = lanes(X0 * ux, dX * ux);
  for (const end = at + ((n as usize) << 2); at <= end; at += 16) {
    const old = v128.load(at);
    const here = a;
    a = f32x4.add(a, step);
    if (!v128.any_true(f32x4.gt(old, low))) continue;
    const lo = f32x4.pmax(f32x4.sub(here, fL), nc), hi = f32x4.pmin(here, c);
    const u = f32x4.pmin(hi, f32x4.pmax(lo, best));
    const tip = f32x4.add(base, f32x4.mul(fm, f32x4.sub(here, u)));
    let z = f32x4.add(tip, profileFour(shape, f32x4.add(f32x4.mul(u, u), bb)));
    z = v128.bitselect(z, big, f32x4.le(lo, hi));
    if (v128.any_true(f32x4.gt(old, z))) take(at, old, z, tip, here, b);
  }
}

/** A flat end on the level: all cells of the row go down to one height. */
export function level(at: usize, n: i32, X0: f32, dX: f32, Y: f32): void {
  const z0 = f32x4.splat(start), big = f32x4.splat(BIG), last = i32x4.splat(n);
  const fux = f32x4.splat(ux), fuy = f32x4.splat(uy), Yuy = f32x4.splat(Y * uy), Yux = f32x4.splat(Y * ux);
  for (let i = 0; i <= n; i += 4, at += 16) {
    const old = v128.load(at);
    if (!v128.any_true(f32x4.gt(old, z0))) continue;
    const z = v128.bitselect(z0, big, i32x4.le_s(i32x4.add(i32x4.splat(i), i32x4(0, 1, 2, 3)), last));
    const X = lanes(X0 + (i as f32) * dX, dX);
    const a = f32x4.add(f32x4.mul(X, fux), Yuy), b = f32x4.sub(Yux, f32x4.mul(X, fuy));
    take(at, old, z, z0, a, b);
  }
}

// One loop a shape, so that each is compiled with nothing of the others in it.
function flatAcross(at: usize, n: i32, X: f32, dX: f32, Y: f32): void { across(FLAT, at, n, X, dX, Y); }
function ballAcross(at: usize, n: i32, X: f32, dX: f32, Y: f32): void { across(BALL, at, n, X, dX, Y); }
function bullAcross(at: usize, n: i32, X: f32, dX: f32, Y: f32): void { across(BULL, at, n, X, dX, Y); }
function taperedAcross(at: usize, n: i32, X: f32, dX: f32, Y: f32): void { across(TAPERED, at, n, X, dX, Y); }
function veeAcross(at: usize, n: i32, X: f32, dX: f32, Y: f32): void { across(VEE, at, n, X, dX, Y); }
function flatAlong(at: usize, n: i32, X: f32, dX: f32, Y: f32): void { along(FLAT, at, n, X, dX, Y); }
function ballAlong(at: usize, n: i32, X: f32, dX: f32, Y: f32): void { along(BALL, at, n, X, dX, Y); }
function bullAlong(at: usize, n: i32, X: f32, dX: f32, Y: f32): void { along(BULL, at, n, X, dX, Y); }
function taperedAlong(at: usize, n: i32, X: f32, dX: f32, Y: f32): void { along(TAPERED, at, n, X, dX, Y); }
function veeAlong(at: usize, n: i32, X: f32, dX: f32, Y: f32): void { along(VEE, at, n, X, dX, Y); }

/** Lowers n + 1 cells of a row under the segment. */
export function cutRow(shape: i32, at: usize, n: i32, X: f32, dX: f32, Y: f32): void {
  if (uy == 0) {
    if (shape == FLAT) flatAlong(at, n, X, dX, Y);
    else if (shape == BALL) ballAlong(at, n, X, dX, Y);
    else if (shape == BULL) bullAlong(at, n, X, dX, Y);
    else if (shape == TAPERED) taperedAlong(at, n, X, dX, Y);
    else veeAlong(at, n, X, dX, Y);
  } else if (shape == FLAT) flatAcross(at, n, X, dX, Y);
  else if (shape == BALL) ballAcross(at, n, X, dX, Y);
  else if (shape == BULL) bullAcross(at, n, X, dX, Y);
  else if (shape == TAPERED) taperedAcross(at, n, X, dX, Y);
  else veeAcross(at, n, X, dX, Y);
}
