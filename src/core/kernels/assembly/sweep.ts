// Stock removal: lowers a height field by the exact swept volume of a cutter along slanted segments.
// See ../stock-removal.ts for the layout, the shapes and the plain definition.
import { begin, MEASURE, PLAIN, RAPID, tell } from './engaged';
import { BALL, BULL, FLAT, TAPERED, takeUp } from './lowest';
import { aim, cutRow, level } from './rows';

/** Numbers a segment and figures given out a segment. */
const SEGMENT: usize = 56, TOLD: usize = 24;

// The stretch along the segment, from its start, whose cells it has to visit: what the neighbours on the same line cut need
// not be visited again, only the crescent that this segment owns.
let amin: f64, amax: f64;

@inline
function dropAt(q: usize): bool { return f64.load(q, 48) != 0; }

/**
 * How far from its tip, along a segment of slope m, a cutter's lowest point over any cell lies at most, with the slope's sign. On a ball and
 * on a bull-nose's corner it is furthest right ahead; on a cone at the rim, where the chord ends.
 */
function swing(shape: i32, R: f64, p0: f64, p2: f64, m: f64): f64 {
  const steep = Math.abs(m), sine = m / Math.sqrt(1 + m * m);
  if (steep == 0 || shape == BALL) return R * sine;
  if (shape == BULL) return (m < 0 ? -1.0 : 1.0) * (R - p0) + p0 * sine;
  const cone = R * min(1.0, steep / p2);
  const far = shape == TAPERED ? max(p0 * Math.abs(sine), cone) : max(p0, cone);
  return m < 0 ? -far : far;
}

function own(shape: i32, q: usize, first: bool, last: bool, R: f64, L: f64, ux: f64, uy: f64, p0: f64, p2: f64, m: f64, cell: f64): void {
  const x0 = f64.load(q), y0 = f64.load(q, 8), z0 = f64.load(q, 16);
  const x1 = f64.load(q, 24), y1 = f64.load(q, 32), z1 = f64.load(q, 40);
  const far = swing(shape, R, p0, p2, m);
  if (!first) {
    const p = q - SEGMENT;
    if (!dropAt(p) && f64.load(p, 24) == x0 && f64.load(p, 32) == y0 && f64.load(p, 40) == z0) {
      const ex = x0 - f64.load(p), ey = y0 - f64.load(p, 8);
      const l = Math.sqrt(ex * ex + ey * ey);
      if (shape == FLAT) amin = 0; // its end disc has covered the start
      else if (l > 1e-9 && Math.abs(ex * uy - ey * ux) <= 3e-3 * l && ex * ux + ey * uy > 0) {
        const pm = (z0 - f64.load(p, 16)) / l;
        amin = min(0.0, min(far, swing(shape, R, p0, p2, pm)));
      } else if (l > 1e-9 || f64.load(p, 16) >= z0) amin = min(0.0, far);
    }
  }
  if (shape == FLAT) return;
  if (!last) {
    const p = q + SEGMENT;
    if (!dropAt(p) && f64.load(p) == x1 && f64.load(p, 8) == y1 && f64.load(p, 16) == z1) {
      const ex = f64.load(p, 24) - x1, ey = f64.load(p, 32) - y1;
      const l = Math.sqrt(ex * ex + ey * ey);
      if (l > 1e-9 && Math.abs(ex * uy - ey * ux) <= 3e-3 * l && ex * ux + ey * uy > 0) {
        const nm = (f64.load(p, 40) - z1) / l;
        amax = L + max(0.0, max(far, swing(shape, R, p0, p2, nm)));
      }
    }
  }
  amin -= cell * 0.01; amax += cell * 0.01;
}

// The cells of a row that lie under a flat end: the strip between the two half discs, and the discs.
let flatFrom: f64, flatTo: f64;

function flatReach(Y: f64, L: f64, ux: f64, uy: f64, dx: f64, dy: f64, R: f64, R2: f64): void {
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
  flatFrom = sa; flatTo = sb;
}

/**
 * segs: n rows of 7 doubles x0 y0 z0 x1 y1 z1 rapid(0|1), lengths in mm from the first cell's centre; before and after:
 * whether one more lies before the first and behind the last, which are cut another time.
 * out: 6 floats a segment (see engaged.ts) when `measure` is set, wood higher than `limit` over the tip told apart; rapids are told always, and remove nothing.
 * whole: the cutter's radius; R: as much of it as can meet anything.
 */
export function sweep(
  grid: usize, width: i32, height: i32, stride: i32, cell: f64,
  segs: usize, n: i32, before: bool, after: bool, out: usize, measure: bool, limit: f64, whole: f64,
  shape: i32, R: f64, p0: f64, p1: f64, p2: f64,
): void {
  const inv = 1.0 / cell, R2 = (R + 1e-6) * (R + 1e-6);
  for (let s = 0; s < n; s++) {
    const q = segs + (s as usize) * SEGMENT;
    const x0 = f64.load(q), y0 = f64.load(q, 8), z1 = f64.load(q, 40);
    let z0 = f64.load(q, 16);
    const rapid = dropAt(q);
    const dx = f64.load(q, 24) - x0, dy = f64.load(q, 32) - y0;
    let L = Math.sqrt(dx * dx + dy * dy);
    let ux = 1.0, uy = 0.0, m = 0.0;
    if (L > 1e-9) { ux = dx / L; uy = dy / L; m = (z1 - z0) / L; }
    else { L = 0; z0 = min(z0, z1); }
    amin = -R; amax = L + R;
    if (!rapid && L > 0 && (shape != FLAT || m == 0))
      own(shape, q, s == 0 && !before, s + 1 == n && !after, R, L, ux, uy, p0, p2, m, cell);
    takeUp(shape, R, p0, p1, p2, m);
    aim(ux, uy, L, m, z0, R2);
    begin(rapid ? RAPID : measure ? MEASURE : PLAIN, whole, limit);
    const ylo = y0 + min(amin * uy, amax * uy) - R * Math.abs(ux);
    const yhi = y0 + max(amin * uy, amax * uy) + R * Math.abs(ux);
    const j0 = max(0, Math.ceil(ylo * inv - 1e-6) as i32), j1 = min(height - 1, Math.floor(yhi * inv + 1e-6) as i32);
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
      if (shape == FLAT) {
        flatReach(Y, L, ux, uy, dx, dy, R, R2);
        xa = max(xa, flatFrom); xb = min(xb, flatTo);
        if (xa > xb) continue;
      }
      const i0 = max(0, Math.ceil((xa + x0) * inv - 1e-6) as i32), i1 = min(width - 1, Math.floor((xb + x0) * inv + 1e-6) as i32);
      if (i0 > i1) continue;
      const X = ((i0 as f64) * cell - x0) as f32, at = grid + (((j * stride + i0) as usize) << 2);
      if (shape == FLAT && m == 0) level(at, i1 - i0, X, cell as f32, Y as f32);
      else cutRow(shape, at, i1 - i0, X, cell as f32, Y as f32);
    }
    if (measure || rapid) tell(out + (s as usize) * TOLD, cell);
  }
}
