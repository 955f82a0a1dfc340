// Stock removal: lowers a height field by the exact swept volume of a cutter along slanted segments.
// See ../stock-removal.ts for the layout, the shapes and the plain definition.

const BIG: f32 = 1e30;
const FLAT = 0, BALL = 1, BULL = 2, TAPERED = 3, VEE = 4;

// Radial profile t(r) above the tip, r <= R. p0: corner radius (bull), sphere radius (tapered), flat radius (V);
// p1: radius where the cone starts (tapered); p2: cone slope dz/dr.
@inline
function profile(shape: i32, R: f64, p0: f64, p1: f64, p2: f64, r: f64): f64 {
  if (shape == BALL) return R - Math.sqrt(max(0.0, R * R - r * r));
  if (shape == BULL) {
    const e = r - (R - p0);
    return e <= 0 ? 0 : p0 - Math.sqrt(max(0.0, p0 * p0 - e * e));
  }
  if (shape == TAPERED) {
    if (r <= p1) return p0 - Math.sqrt(max(0.0, p0 * p0 - r * r));
    return p0 - Math.sqrt(max(0.0, p0 * p0 - p1 * p1)) + (r - p1) * p2;
  }
  if (shape == VEE) return r <= p0 ? 0 : (r - p0) * p2;
  return 0;
}

// Unclamped minimiser over u of -m u + t(sqrt(u^2 + b^2)) for m >= 0; the caller mirrors for m < 0. `top` = largest u.
@inline
function minimiser(shape: i32, R: f64, p0: f64, p1: f64, p2: f64, b: f64, m: f64, top: f64): f64 {
  const bb = b * b;
  if (shape == TAPERED) {
    const c2 = p0 * p0 - bb;
    if (c2 > 0) {
      const u = Math.sqrt(c2) * m / Math.sqrt(1 + m * m);
      if (u * u + bb <= p1 * p1) return u;
    }
    if (m >= p2) return top;
    return Math.abs(b) * m / Math.sqrt(p2 * p2 - m * m);
  }
  if (shape == VEE) {
    const kink = Math.sqrt(max(0.0, p0 * p0 - bb));
    if (m >= p2) return top;
    return max(kink, Math.abs(b) * m / Math.sqrt(p2 * p2 - m * m));
  }
  // Bull-nose: t'(r) u / r = m on the torus; bisect, the left side being strictly increasing in u.
  const f = R - p0;
  let lo = Math.sqrt(max(0.0, f * f - bb)), hi = top;
  if (lo >= hi) return hi;
  for (let i = 0; i < 40; i++) {
    const u = 0.5 * (lo + hi);
    const r = Math.sqrt(u * u + bb);
    const e = r - f;
    const q = p0 * p0 - e * e;
    const slope = q <= 0 ? 1e30 : e / Math.sqrt(q) * (r > 0 ? u / r : 0);
    if (slope < m) lo = u; else hi = u;
  }
  return 0.5 * (lo + hi);
}

@inline
function greatest(v: v128): f32 {
  const a = f32x4.pmax(v, v128.shuffle<f32>(v, v, 2, 3, 0, 1));
  const b = f32x4.pmax(a, v128.shuffle<f32>(a, a, 1, 0, 3, 2));
  return f32x4.extract_lane(b, 0);
}

// Four cells of a row at a time. X: place of the first cell from the segment's start, dX: spacing; base: the ball's
// centre height at the start. Returns the bite.
function ballRow(
  at: usize, n: i32, X0: f32, dX: f32, ux: f32, uy: f32, Yuy: f32, Yux: f32, L: f32, m: f32, sine: f32, R2: f32,
  near: f32, base: f32, rapid: bool,
): f32 {
  const zero = f32x4.splat(0), big = f32x4.splat(BIG), fL = f32x4.splat(L), fm = f32x4.splat(m), fR2 = f32x4.splat(R2);
  const fux = f32x4.splat(ux), fuy = f32x4.splat(uy), fYuy = f32x4.splat(Yuy), fYux = f32x4.splat(Yux);
  const kappa = f32x4.splat(sine), fbase = f32x4.splat(base), fnear = f32x4.splat(near), step = f32x4.splat(4 * dX);
  let X = f32x4.add(f32x4.splat(X0), f32x4.mul(f32x4(0, 1, 2, 3), f32x4.splat(dX)));
  let most = zero;
  for (const end = at + ((n as usize) << 2); at <= end; at += 16) {
    const a = f32x4.add(f32x4.mul(X, fux), fYuy);
    const b = f32x4.sub(fYux, f32x4.mul(X, fuy));
    X = f32x4.add(X, step);
    const c2 = f32x4.sub(fR2, f32x4.mul(b, b));
    const c = f32x4.sqrt(f32x4.pmax(zero, c2));
    const lo = f32x4.pmax(f32x4.sub(a, fL), f32x4.neg(c)), hi = f32x4.pmin(a, c);
    const u = f32x4.pmin(hi, f32x4.pmax(lo, f32x4.mul(c, kappa)));
    const d2 = f32x4.pmax(zero, f32x4.sub(c2, f32x4.mul(u, u)));
    let z = f32x4.sub(f32x4.add(fbase, f32x4.mul(fm, f32x4.sub(a, u))), f32x4.sqrt(d2));
    z = v128.bitselect(z, big, v128.and(f32x4.ge(c2, zero), f32x4.le(lo, hi)));
    const old = v128.load(at);
    const cut = f32x4.pmax(zero, f32x4.sub(old, z));
    if (rapid) most = f32x4.pmax(most, cut);
    else {
      most = f32x4.pmax(most, v128.and(cut, f32x4.le(f32x4.abs(b), fnear)));
      v128.store(at, f32x4.pmin(old, z));
    }
  }
  return greatest(most);
}

// The same along a row of the grid, where the distance across is one for all its cells.
function ballRowAlong(
  at: usize, n: i32, a0: f32, da: f32, b: f32, L: f32, m: f32, sine: f32, R2: f32, near: f32, base: f32, rapid: bool,
): f32 {
  const c2 = R2 - b * b;
  if (c2 < 0) return 0;
  const c = Mathf.sqrt(c2);
  const zero = f32x4.splat(0), big = f32x4.splat(BIG), fL = f32x4.splat(L), fm = f32x4.splat(m), fc2 = f32x4.splat(c2);
  const fc = f32x4.splat(c), nc = f32x4.splat(-c), best = f32x4.splat(c * sine), fbase = f32x4.splat(base);
  const step = f32x4.splat(4 * da);
  let a = f32x4.add(f32x4.splat(a0), f32x4.mul(f32x4(0, 1, 2, 3), f32x4.splat(da)));
  let most = zero;
  for (const end = at + ((n as usize) << 2); at <= end; at += 16) {
    const lo = f32x4.pmax(f32x4.sub(a, fL), nc), hi = f32x4.pmin(a, fc);
    const u = f32x4.pmin(hi, f32x4.pmax(lo, best));
    const d2 = f32x4.pmax(zero, f32x4.sub(fc2, f32x4.mul(u, u)));
    let z = f32x4.sub(f32x4.add(fbase, f32x4.mul(fm, f32x4.sub(a, u))), f32x4.sqrt(d2));
    z = v128.bitselect(z, big, f32x4.le(lo, hi));
    a = f32x4.add(a, step);
    const old = v128.load(at);
    most = f32x4.pmax(most, f32x4.sub(old, z));
    if (!rapid) v128.store(at, f32x4.pmin(old, z));
  }
  return rapid || Mathf.abs(b) <= near ? greatest(most) : 0;
}

// A flat end on a slope: the end of its reach that lies lower. Cells already at or under the segment are passed over.
function flatRow(
  at: usize, n: i32, X0: f32, dX: f32, ux: f32, uy: f32, Yuy: f32, Yux: f32, L: f32, m: f32, R2: f32,
  near: f32, z0: f32, rapid: bool,
): f32 {
  const zero = f32x4.splat(0), big = f32x4.splat(BIG), fL = f32x4.splat(L), fm = f32x4.splat(m), fR2 = f32x4.splat(R2);
  const fux = f32x4.splat(ux), fuy = f32x4.splat(uy), fYuy = f32x4.splat(Yuy), fYux = f32x4.splat(Yux);
  const base = f32x4.splat(z0), fnear = f32x4.splat(near), step = f32x4.splat(4 * dX);
  const floor = f32x4.splat(min(z0, z0 + m * L));
  let X = f32x4.add(f32x4.splat(X0), f32x4.mul(f32x4(0, 1, 2, 3), f32x4.splat(dX)));
  let most = zero;
  for (const end = at + ((n as usize) << 2); at <= end; at += 16) {
    const old = v128.load(at);
    const here = X;
    X = f32x4.add(X, step);
    if (!v128.any_true(f32x4.gt(old, floor))) continue;
    const a = f32x4.add(f32x4.mul(here, fux), fYuy);
    const b = f32x4.sub(fYux, f32x4.mul(here, fuy));
    const c2 = f32x4.sub(fR2, f32x4.mul(b, b));
    const c = f32x4.sqrt(f32x4.pmax(zero, c2));
    const lo = f32x4.pmax(f32x4.sub(a, fL), f32x4.neg(c)), hi = f32x4.pmin(a, c);
    let z = f32x4.add(base, f32x4.mul(fm, f32x4.sub(a, m > 0 ? hi : lo)));
    z = v128.bitselect(z, big, v128.and(f32x4.ge(c2, zero), f32x4.le(lo, hi)));
    const cut = f32x4.pmax(zero, f32x4.sub(old, z));
    if (rapid) most = f32x4.pmax(most, cut);
    else {
      most = f32x4.pmax(most, v128.and(cut, f32x4.le(f32x4.abs(b), fnear)));
      v128.store(at, f32x4.pmin(old, z));
    }
  }
  return greatest(most);
}

// Lowers cells i0..i1 of a row to z where they stand higher; returns the deepest bite.
@inline
function fillRow(row: usize, i0: i32, i1: i32, z: f32, store: bool): f32 {
  let bite: f32 = 0;
  const zv = f32x4.splat(z);
  let most = f32x4.splat(0);
  let i = i0;
  for (; i + 3 <= i1; i += 4) {
    const p = row + ((i as usize) << 2);
    const old = v128.load(p);
    most = f32x4.pmax(most, f32x4.sub(old, zv));
    if (store) v128.store(p, f32x4.pmin(old, zv));
  }
  for (; i <= i1; i++) {
    const p = row + ((i as usize) << 2);
    const old = f32.load(p);
    if (old > z) {
      bite = max(bite, old - z);
      if (store) f32.store(p, z);
    }
  }
  return max(bite, greatest(most));
}

/**
 * segs: n rows of 7 doubles x0 y0 z0 x1 y1 z1 rapid(0|1), lengths in mm from the first cell's centre.
 * out: n floats, the deepest bite into the stock: for a rapid anywhere under the cutter (nothing is removed), for a
 * feed within a quarter of the radius of the axis, where it is the depth of cut.
 */
export function sweep(
  grid: usize, width: i32, height: i32, stride: i32, cell: f64,
  segs: usize, n: i32, out: usize,
  shape: i32, R: f64, p0: f64, p1: f64, p2: f64,
): void {
  const inv = 1.0 / cell;
  for (let s = 0; s < n; s++) {
    const q = segs + (s as usize) * 56;
    const x0 = f64.load(q), y0 = f64.load(q, 8), x1 = f64.load(q, 24), y1 = f64.load(q, 32);
    let z0 = f64.load(q, 16);
    const z1 = f64.load(q, 40);
    const rapid = f64.load(q, 48) != 0;
    const dx = x1 - x0, dy = y1 - y0;
    let L = Math.sqrt(dx * dx + dy * dy);
    let ux = 1.0, uy = 0.0, m = 0.0;
    if (L > 1e-9) { ux = dx / L; uy = dy / L; m = (z1 - z0) / L; }
    else { L = 0; z0 = min(z0, z1); }
    const sine = m / Math.sqrt(1 + m * m);
    let amin = -R, amax = L + R;
    if (!rapid && L > 0 && (shape == BALL || (shape == FLAT && m == 0))) {
      // What the neighbours on the same line cut need not be visited again: only the crescent that this segment owns.
      if (s > 0) {
        const p = q - 56;
        if (f64.load(p, 48) == 0 && f64.load(p, 24) == x0 && f64.load(p, 32) == y0 && f64.load(p, 40) == z0) {
          const ex = x0 - f64.load(p), ey = y0 - f64.load(p, 8);
          const l = Math.sqrt(ex * ex + ey * ey);
          if (shape == FLAT) amin = 0; // its end disc has covered the start
          else if (l > 1e-9 && Math.abs(ex * uy - ey * ux) <= 3e-3 * l && ex * ux + ey * uy > 0) {
            const pm = (z0 - f64.load(p, 16)) / l;
            amin = R * min(0.0, min(sine, pm / Math.sqrt(1 + pm * pm)));
          } else if (l > 1e-9 || f64.load(p, 16) >= z0) amin = R * min(0.0, sine);
        }
      }
      if (shape == BALL && s + 1 < n) {
        const p = q + 56;
        if (f64.load(p, 48) == 0 && f64.load(p) == x1 && f64.load(p, 8) == y1 && f64.load(p, 16) == z1) {
          const ex = f64.load(p, 24) - x1, ey = f64.load(p, 32) - y1;
          const l = Math.sqrt(ex * ex + ey * ey);
          if (l > 1e-9 && Math.abs(ex * uy - ey * ux) <= 3e-3 * l && ex * ux + ey * uy > 0) {
            const nm = (f64.load(p, 40) - z1) / l;
            amax = L + R * max(0.0, max(sine, nm / Math.sqrt(1 + nm * nm)));
          }
        }
      }
      if (shape == BALL) amin -= cell * 0.01, amax += cell * 0.01;
    }
    let ylo = y0 + min(amin * uy, amax * uy) - R * Math.abs(ux);
    let yhi = y0 + max(amin * uy, amax * uy) + R * Math.abs(ux);
    const j0 = max(0, Math.ceil(ylo * inv - 1e-6) as i32), j1 = min(height - 1, Math.floor(yhi * inv + 1e-6) as i32);
    const R2 = (R + 1e-6) * (R + 1e-6);
    let bite: f32 = 0;
    for (let j = j0; j <= j1; j++) {
      const Y = (j as f64) * cell - y0;
      let xa = -1e30, xb = 1e30;
      if (Math.abs(ux) > 1e-12) {
        const a = (amin - Y * uy) / ux, b = (amax - Y * uy) / ux;
        xa = max(xa, min(a, b)); xb = min(xb, max(a, b));
      } else if (Y * uy < amin - 1e-6 || Y * uy > amax + 1e-6) continue;
      if (Math.abs(uy) > 1e-12) {
        const a = (Y * ux - R) / uy, b = (Y * ux + R) / uy;
        xa = max(xa, min(a, b)); xb = min(xb, max(a, b));
      } else if (Math.abs(Y) > R + 1e-6) continue;
      const row = grid + (((j * stride) as usize) << 2);
      if (shape == FLAT) {
        // The ends are half discs, not the box that bounds them: join the row's cut of the strip between and of the discs.
        let sa = -1e30, sb = 1e30;
        if (Math.abs(ux) > 1e-12) {
          const a = -Y * uy / ux, b = (L - Y * uy) / ux;
          sa = min(a, b); sb = max(a, b);
        } else if (Y * uy < -1e-6 || Y * uy > L + 1e-6) { sa = 1e30; sb = -1e30; }
        if (Math.abs(uy) > 1e-12) {
          const a = (Y * ux - R) / uy, b = (Y * ux + R) / uy;
          sa = max(sa, min(a, b)); sb = min(sb, max(a, b));
        }
        if (sa > sb) { sa = 1e30; sb = -1e30; }
        const e = R2 - (Y - dy) * (Y - dy);
        if (e >= 0) { const w = Math.sqrt(e); sa = min(sa, dx - w); sb = max(sb, dx + w); }
        if (amin < 0) {
          const e0 = R2 - Y * Y;
          if (e0 >= 0) { const w = Math.sqrt(e0); sa = min(sa, -w); sb = max(sb, w); }
        }
        xa = max(xa, sa); xb = min(xb, sb);
        if (xa > xb) continue;
        if (m == 0) {
          const k0 = max(0, Math.ceil((xa + x0) * inv - 1e-6) as i32), k1 = min(width - 1, Math.floor((xb + x0) * inv + 1e-6) as i32);
          if (k0 > k1) continue;
          if (rapid) { bite = max(bite, fillRow(row, k0, k1, z0 as f32, false)); continue; }
          // Cells within a quarter of the radius of the axis tell the depth of cut.
          let na = xa, nb = xb;
          const q = 0.25 * R;
          if (Math.abs(uy) > 1e-12) {
            const a = (Y * ux - q) / uy, b = (Y * ux + q) / uy;
            na = max(na, min(a, b)); nb = min(nb, max(a, b));
          } else if (Math.abs(Y) > q) nb = na - 1;
          const n0 = max(k0, Math.ceil((na + x0) * inv) as i32), n1 = min(k1, Math.floor((nb + x0) * inv) as i32);
          if (n0 <= n1) bite = max(bite, fillRow(row, n0, n1, z0 as f32, false));
          fillRow(row, k0, k1, z0 as f32, true);
          continue;
        }
      }
      const i0 = max(0, Math.ceil((xa + x0) * inv - 1e-6) as i32), i1 = min(width - 1, Math.floor((xb + x0) * inv + 1e-6) as i32);
      if (i0 > i1) continue;
      if (shape <= BALL) {
        const X0 = ((i0 as f64) * cell - x0) as f32;
        const at = row + ((i0 as usize) << 2);
        const most = shape == FLAT
          ? flatRow(at, i1 - i0, X0, cell as f32, ux as f32, uy as f32, (Y * uy) as f32, (Y * ux) as f32, L as f32, m as f32, R2 as f32, (0.25 * R) as f32, z0 as f32, rapid)
          : uy == 0
            ? ballRowAlong(at, i1 - i0, (X0 * (ux as f32)), (cell * ux) as f32, (Y * ux) as f32, L as f32, m as f32, sine as f32, R2 as f32, (0.25 * R) as f32, (z0 + R) as f32, rapid)
            : ballRow(at, i1 - i0, X0, cell as f32, ux as f32, uy as f32, (Y * uy) as f32, (Y * ux) as f32, L as f32, m as f32, sine as f32, R2 as f32, (0.25 * R) as f32, (z0 + R) as f32, rapid);
        bite = max(bite, most);
      } else {
        for (let i = i0; i <= i1; i++) {
          const X = (i as f64) * cell - x0;
          const a = X * ux + Y * uy, b = Y * ux - X * uy;
          const c2 = R2 - b * b;
          if (c2 < 0) continue;
          const c = Math.sqrt(c2);
          const lo = max(a - L, -c), hi = min(a, c);
          if (lo > hi) continue;
          let u = m >= 0 ? minimiser(shape, R, p0, p1, p2, b, m, c) : -minimiser(shape, R, p0, p1, p2, b, -m, c);
          u = min(hi, max(lo, m == 0 ? min(max(0.0, lo), hi) : u));
          const z = (z0 + m * (a - u) + profile(shape, R, p0, p1, p2, Math.sqrt(u * u + b * b))) as f32;
          const p = row + ((i as usize) << 2);
          const old = f32.load(p);
          if (z < old) {
            if (rapid) bite = max(bite, old - z);
            else {
              if (Math.abs(b) <= 0.25 * R) bite = max(bite, old - z);
              f32.store(p, z);
            }
          }
        }
      }
    }
    f32.store(out + ((s as usize) << 2), bite);
  }
}
