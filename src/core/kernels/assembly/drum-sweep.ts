// Stock removal around a drum: lowers each ray to the lowest radius at which it enters a cutter that moves along, around and in or out at once.
// See ../drum-removal.ts for the definition. Moves are straight on the drum's sheet, drawn at the radius where the cutter meets most: S.
import { BIG, cosine, cosineOf, entry, R, R2, RIM, sine, sineOf, takeCutter } from './drum-entry';
import { begin, MEASURE, PLAIN, RAPID, take, tell } from './engaged';
import { BALL, BULL, FLAT, lowestFour, profileFour, TAPERED, takeUp, VEE } from './lowest';

const SEGMENT: usize = 56, TOLD: usize = 24;
/** A move that rises or falls by less needs no second look at where a ray is met lowest. */
const LEVEL: f64 = 0.02;

// The move: direction on the sheet, length, slope, the start's radius, the lower of its ends as a height, half the sheet's chord squared, the sheet's radius and the drum's.
let ux: f32, uy: f32, long: f32, slope: f32, start: f32, floor: f32, reach2: f32, S: f32, D: f32;
// By how much a place lies nearer to the move than the sheet tells, at most: squared.
let nearer2: f32;
let amin: f64, amax: f64;

// What a lane needs of its ray: along and across the move, places from the start.
let laneX: v128 = f32x4.splat(0), laneA: v128 = f32x4.splat(0), rowY: f32;
let sineRow: f32, cosineRow: f32;

/** Where a ray enters the cutter when that has still u to go to the ray's own place along the move. */
@inline
function entryAt(shape: i32, straight: bool, u: v128): v128 {
  const gone = f32x4.sub(laneA, u);
  const dx = f32x4.sub(laneX, f32x4.mul(gone, f32x4.splat(ux)));
  const r = f32x4.add(f32x4.splat(start), f32x4.mul(f32x4.splat(slope), gone));
  if (straight) return entry(shape, f32x4.mul(dx, dx), f32x4.splat(sineRow), f32x4.splat(cosineRow), r);
  const d = f32x4.div(f32x4.sub(f32x4.splat(rowY), f32x4.mul(gone, f32x4.splat(uy))), f32x4.splat(S));
  return entry(shape, f32x4.mul(dx, dx), sineOf(d), cosineOf(d), r);
}

/**
 * Where a flat end that rises or falls leaves a ray: from the sheet's chord by Newton steps towards where the ray is met at the rim, for there
 * the end is at its lowest over it.
 */
@inline
function rimOf(straight: bool, chord: v128, forwards: bool): v128 {
  // A chord that the sheet tells too short would send the first step far beyond.
  const short = f32x4.lt(f32x4.abs(chord), f32x4.splat(0.4 * R));
  let u = v128.bitselect(f32x4.splat(forwards ? 0.4 * R : -0.4 * R), chord, short);
  const tiny = f32x4.splat(0.05 * R), zero = f32x4.splat(0);
  for (let i = 0; i < 6; i++) {
    const gone = f32x4.sub(laneA, u);
    const dx = f32x4.sub(laneX, f32x4.mul(gone, f32x4.splat(ux)));
    const r = f32x4.add(f32x4.splat(start), f32x4.mul(f32x4.splat(slope), gone));
    let tan = f32x4.splat(sineRow / cosineRow);
    if (!straight) {
      const d = f32x4.div(f32x4.sub(f32x4.splat(rowY), f32x4.mul(gone, f32x4.splat(uy))), f32x4.splat(S));
      tan = f32x4.div(sineOf(d), cosineOf(d));
    }
    const l = f32x4.mul(r, tan);
    const over = f32x4.sub(f32x4.add(f32x4.mul(dx, dx), f32x4.mul(l, l)), f32x4.splat((R - 2e-5) * (R - 2e-5)));
    // Going back along the way the tip turns away by uy / S and falls by the slope.
    const turn = f32x4.mul(f32x4.mul(r, f32x4.add(f32x4.splat(1), f32x4.mul(tan, tan))), f32x4.splat(uy / S));
    const dl = f32x4.sub(turn, f32x4.mul(tan, f32x4.splat(slope)));
    const by = f32x4.mul(f32x4.splat(2), f32x4.add(f32x4.mul(dx, f32x4.splat(ux)), f32x4.mul(l, dl)));
    const sure = f32x4.gt(f32x4.abs(by), tiny);
    u = f32x4.sub(u, v128.bitselect(f32x4.div(over, by), zero, sure));
  }
  return u;
}

/** First guess of how far behind a ray the cutter meets it lowest, from the sheet. */
@inline
function guess(shape: i32, straight: bool, b: v128, c: v128): v128 {
  if (shape != FLAT) return lowestFour(shape, b, c);
  if (straight) return slope == 0 ? f32x4.splat(0) : rimOf(true, slope > 0 ? c : f32x4.neg(c), slope > 0);
  // Its end rises by r (1 / cos d - 1) to the side, about l2 / 2S with l the way round: where that outweighs the slope lies inside of the rim.
  const u = f32x4.div(f32x4.sub(f32x4.splat(slope * S), f32x4.mul(b, f32x4.splat(ux * uy))), f32x4.splat(uy * uy));
  return f32x4.pmin(rimOf(false, c, true), f32x4.pmax(rimOf(false, f32x4.neg(c), false), u));
}

/**
 * A ball's next guess: its centre's way is taken as straight from where it is now, and the ray meets the cylinder around it, which is a quadratic. Where it
 * misses that, it is nearest to its axis there.
 */
@inline
function ballNext(straight: bool, u: v128): v128 {
  const zero = f32x4.splat(0), gone = f32x4.sub(laneA, u), fux = f32x4.splat(ux), fm = f32x4.splat(slope);
  const cx = f32x4.sub(f32x4.mul(gone, fux), laneX);
  const e = f32x4.add(f32x4.splat(start + R), f32x4.mul(fm, gone));
  let sn = f32x4.splat(sineRow), cs = f32x4.splat(cosineRow);
  if (!straight) {
    const d = f32x4.div(f32x4.sub(f32x4.splat(rowY), f32x4.mul(gone, f32x4.splat(uy))), f32x4.splat(S));
    sn = sineOf(d); cs = cosineOf(d);
  }
  const cl = f32x4.neg(f32x4.mul(e, sn)), turn = f32x4.mul(e, f32x4.splat(uy / S));
  const vl = f32x4.sub(f32x4.mul(cs, turn), f32x4.mul(fm, sn)), vh = f32x4.add(f32x4.mul(fm, cs), f32x4.mul(sn, turn));
  const v2 = f32x4.add(f32x4.splat(ux * ux), f32x4.add(f32x4.mul(vl, vl), f32x4.mul(vh, vh)));
  const k = f32x4.neg(f32x4.add(f32x4.mul(cx, fux), f32x4.mul(cl, vl)));
  const al = f32x4.pmax(f32x4.splat(1e-6), f32x4.div(f32x4.add(f32x4.splat(ux * ux), f32x4.mul(vl, vl)), v2));
  const be = f32x4.div(f32x4.mul(k, vh), v2);
  const l2 = f32x4.add(f32x4.mul(cx, cx), f32x4.mul(cl, cl));
  const ga = f32x4.sub(f32x4.sub(l2, f32x4.div(f32x4.mul(k, k), v2)), f32x4.splat(R * R));
  const root = f32x4.sqrt(f32x4.pmax(zero, f32x4.sub(f32x4.mul(be, be), f32x4.mul(al, ga))));
  const over = f32x4.div(f32x4.sub(be, root), al);
  return f32x4.sub(u, f32x4.div(f32x4.add(k, f32x4.mul(over, vh)), v2));
}

/** Samples along a way on which a ray at a cutter's rim is looked for. */
const SAMPLES: i32 = 12;

@inline
function cutRow(shape: i32, straight: bool, again: bool, at: usize, n: i32, X0: f32, cell: f32): void {
  const zero = f32x4.splat(0), fL = f32x4.splat(long), low = f32x4.splat(floor), step = f32x4.splat(4 * cell);
  const big = f32x4.splat(BIG), h = f32x4.splat(0.05 * R), most = f32x4.splat(0.25 * R);
  const fR2 = f32x4.splat(R2), fD = f32x4.splat(D), near2 = f32x4.splat(nearer2);
  const half = straight ? f32x4.splat(S * sineRow * ux) : zero;
  let X = f32x4.add(f32x4.splat(X0), f32x4.mul(f32x4(0, 1, 2, 3), f32x4.splat(cell)));
  for (const end = at + ((n as usize) << 2); at <= end; at += 16) {
    const old = v128.load(at);
    laneX = X;
    X = f32x4.add(X, step);
    if (!v128.any_true(f32x4.gt(old, low))) continue;
    laneA = f32x4.add(f32x4.mul(laneX, f32x4.splat(ux)), f32x4.splat(rowY * uy));
    const b = f32x4.sub(f32x4.splat(rowY * ux), f32x4.mul(laneX, f32x4.splat(uy)));
    // No ray is entered lower than the tip's lowest and what the profile rises to where the ray is nearest to the move.
    const bb = f32x4.mul(b, b);
    if (!v128.any_true(f32x4.gt(old, f32x4.add(low, profileFour(shape, f32x4.mul(bb, near2)))))) continue;
    const c2 = f32x4.sub(f32x4.splat(reach2), bb);
    const wide = f32x4.sqrt(f32x4.pmax(zero, c2));
    const lo = f32x4.pmax(f32x4.sub(laneA, fL), f32x4.neg(wide)), hi = f32x4.pmin(laneA, wide);
    const bs = straight ? half : b;
    const c = f32x4.sqrt(f32x4.pmax(zero, f32x4.sub(fR2, f32x4.mul(bs, bs))));
    let u = f32x4.pmin(hi, f32x4.pmax(lo, guess(shape, straight, bs, c)));
    // Along the drum a ball's centre goes straight, and the step from anywhere leads to where the ray meets its cylinder.
    if (again && shape == BALL) u = f32x4.pmin(hi, f32x4.pmax(lo, ballNext(straight, u)));
    let rho = entryAt(shape, straight, u);
    if (again && shape != BALL) {
      // A ray at the rim is met on a short part of the way only, which the sheet may not tell.
      if (v128.any_true(v128.and(f32x4.ge(rho, big), f32x4.le(lo, hi)))) {
        const from = f32x4.pmax(lo, f32x4.splat(-R)), part = f32x4.mul(f32x4.sub(f32x4.pmin(hi, f32x4.splat(R)), from), f32x4.splat(1.0 / (SAMPLES as f32)));
        for (let i = 0; i <= SAMPLES; i++) {
          const w = f32x4.pmin(hi, f32x4.pmax(lo, f32x4.add(from, f32x4.mul(part, f32x4.splat(i as f32))))), fw = entryAt(shape, straight, w), nearer = f32x4.lt(fw, rho);
          rho = f32x4.pmin(rho, fw); u = v128.bitselect(w, u, nearer);
        }
      }
      for (let i = 0; i < 2; i++) {
        const g = i == 0 ? h : f32x4.mul(h, f32x4.splat(0.2));
        const p = f32x4.pmax(lo, f32x4.sub(u, g)), q = f32x4.pmin(hi, f32x4.add(u, g));
        const fp = entryAt(shape, straight, p), fq = entryAt(shape, straight, q);
        const bend = f32x4.sub(f32x4.add(fp, fq), f32x4.add(rho, rho));
        const by = f32x4.div(f32x4.mul(f32x4.mul(f32x4.splat(0.5), g), f32x4.sub(fp, fq)), f32x4.pmax(f32x4.splat(1e-6), bend));
        const v = f32x4.pmin(hi, f32x4.pmax(lo, f32x4.add(u, f32x4.pmin(most, f32x4.pmax(f32x4.neg(most), by)))));
        const fv = entryAt(shape, straight, v);
        let nearer = f32x4.lt(fp, rho);
        rho = f32x4.pmin(rho, fp); u = v128.bitselect(p, u, nearer);
        nearer = f32x4.lt(fq, rho);
        rho = f32x4.pmin(rho, fq); u = v128.bitselect(q, u, nearer);
        nearer = f32x4.lt(fv, rho);
        rho = f32x4.pmin(rho, fv); u = v128.bitselect(v, u, nearer);
      }
    }
    const z = v128.bitselect(f32x4.sub(rho, fD), big, v128.and(f32x4.ge(c2, zero), f32x4.le(lo, hi)));
    if (!v128.any_true(f32x4.gt(old, z))) continue;
    const tip = f32x4.sub(f32x4.add(f32x4.splat(start), f32x4.mul(f32x4.splat(slope), f32x4.sub(laneA, u))), fD);
    take(at, old, z, tip, laneA, b);
  }
}

// One loop a shape and a way of moving, so that each is compiled with nothing of the others in it.
function flatStraight(at: usize, n: i32, X: f32, c: f32): void { cutRow(FLAT, true, false, at, n, X, c); }
function flatRound(at: usize, n: i32, X: f32, c: f32): void { cutRow(FLAT, false, false, at, n, X, c); }
function flatAgain(at: usize, n: i32, X: f32, c: f32): void { cutRow(FLAT, false, true, at, n, X, c); }
function ballStraight(at: usize, n: i32, X: f32, c: f32): void { cutRow(BALL, true, false, at, n, X, c); }
function ballSlanted(at: usize, n: i32, X: f32, c: f32): void { cutRow(BALL, true, true, at, n, X, c); }
function ballRound(at: usize, n: i32, X: f32, c: f32): void { cutRow(BALL, false, false, at, n, X, c); }
function ballAgain(at: usize, n: i32, X: f32, c: f32): void { cutRow(BALL, false, true, at, n, X, c); }
function bullAny(at: usize, n: i32, X: f32, c: f32): void { cutRow(BULL, false, true, at, n, X, c); }
function taperedAny(at: usize, n: i32, X: f32, c: f32): void { cutRow(TAPERED, false, true, at, n, X, c); }
function veeAny(at: usize, n: i32, X: f32, c: f32): void { cutRow(VEE, false, true, at, n, X, c); }

function row(shape: i32, straight: bool, again: bool, at: usize, n: i32, X: f32, c: f32): void {
  if (shape == BALL) {
    if (straight) { if (again) ballSlanted(at, n, X, c); else ballStraight(at, n, X, c); }
    else if (again) ballAgain(at, n, X, c);
    else ballRound(at, n, X, c);
  } else if (shape == FLAT) {
    if (straight) flatStraight(at, n, X, c);
    else if (again) flatAgain(at, n, X, c);
    else flatRound(at, n, X, c);
  } else if (shape == BULL) bullAny(at, n, X, c);
  else if (shape == TAPERED) taperedAny(at, n, X, c);
  else veeAny(at, n, X, c);
}

/** Whether q goes on to the segment after it in nearly the same direction on the sheet, both at feed. */
function goesOn(q: usize, next: usize, k: f64): bool {
  if (f64.load(q, 48) != 0 || f64.load(next, 48) != 0) return false;
  if (f64.load(q, 24) != f64.load(next) || f64.load(q, 32) != f64.load(next, 8) || f64.load(q, 40) != f64.load(next, 16)) return false;
  const ax = f64.load(q, 24) - f64.load(q), ay = (f64.load(q, 32) - f64.load(q, 8)) * k;
  const bx = f64.load(next, 24) - f64.load(next), by = (f64.load(next, 32) - f64.load(next, 8)) * k;
  const la = Math.sqrt(ax * ax + ay * ay), lb = Math.sqrt(bx * bx + by * by);
  return la > 1e-9 && lb > 1e-9 && Math.abs(ax * by - ay * bx) <= 3e-3 * la * lb && ax * bx + ay * by > 0;
}

/** How steep a segment is on the sheet. */
function steepness(q: usize, k: f64): f64 {
  const dx = f64.load(q, 24) - f64.load(q), dy = (f64.load(q, 32) - f64.load(q, 8)) * k;
  return (f64.load(q, 40) - f64.load(q, 16)) / Math.max(1e-9, Math.sqrt(dx * dx + dy * dy));
}

/** How far along a slope a ball's lowest point lies from its tip. */
@inline
function swing(v: f64, wide: f64): f64 { return wide * v / Math.sqrt(1 + v * v); }

/** The stretch along the segment whose rays it has to visit: those beyond belong to the segments that it goes on from and to; with room for what the sheet tells wrongly. */
function own(shape: i32, q: usize, first: bool, last: bool, L: f64, far: f64, k: f64, m: f64): void {
  amin = -far; amax = L + far;
  if (shape != BALL) return;
  // The sheet is wrong by the square of the angle that the cutter covers.
  const angle = (R as f64) / (S as f64), wide = (1 + angle * angle) * (R as f64);
  const room = (0.01 + 0.6 * angle * angle) * (R as f64);
  if (!first && goesOn(q - SEGMENT, q, k))
    amin = Math.max(amin, Math.min(0.0, Math.min(swing(m, wide), swing(steepness(q - SEGMENT, k), wide))) - room);
  if (!last && goesOn(q, q + SEGMENT, k))
    amax = Math.min(amax, L + Math.max(0.0, Math.max(swing(m, wide), swing(steepness(q + SEGMENT, k), wide))) + room);
}

/**
 * segs: as for sweep, y along the drum's circle from the first row's; drum: its radius; from there on as there. A segment may go round more than once: a ray is
 * cut by the turn that its row lies in, and the rows of other turns are handed over as other segments.
 */
export function drumSweep(
  grid: usize, width: i32, height: i32, stride: i32, cell: f64, drum: f64,
  segs: usize, n: i32, before: bool, after: bool, out: usize, measure: bool, limit: f64,
  shape: i32, radius: f64, p0: f64, p1: f64, p2: f64,
): void {
  takeCutter(radius, p0, p1, p2);
  D = drum as f32;
  const inv = 1.0 / cell;
  for (let s = 0; s < n; s++) {
    const q = segs + (s as usize) * SEGMENT;
    const x0 = f64.load(q), y0 = f64.load(q, 8), z1 = f64.load(q, 40);
    let z0 = f64.load(q, 16);
    const rapid = f64.load(q, 48) != 0;
    const deep = Math.max(0.05 * drum, drum + Math.min(z0, z1));
    const sheet = Math.max(deep, drum + 0.5 * (z0 + z1)) + (shape == FLAT ? 0 : shape == BALL ? radius : 0.5 * radius);
    const k = sheet / drum;
    const dx = f64.load(q, 24) - x0, dy = (f64.load(q, 32) - y0) * k;
    let L = Math.sqrt(dx * dx + dy * dy), vx = 1.0, vy = 0.0, m = 0.0;
    if (L > 1e-9) { vx = dx / L; vy = dy / L; m = (z1 - z0) / L; }
    else { L = 0; z0 = Math.min(z0, z1); }
    const straight = vy == 0;
    // As far round as a ray can meet the cutter, on the sheet.
    const round = sheet * Math.min(1.3, Math.atan2(radius + RIM, deep));
    const far = Math.max(round, radius + RIM);
    nearer2 = (0.97 * deep / sheet) ** 2 as f32;
    S = sheet as f32; ux = vx as f32; uy = vy as f32; long = L as f32; slope = m as f32; start = (z0 + drum) as f32;
    floor = (Math.min(z0, z1)) as f32; reach2 = (far * far) as f32;
    // A ray beside the tip's is entered no lower than under it: the lowest that may come is the tip's lowest.
    if (L > 0 && !rapid) own(shape, q, s == 0 && !before, s + 1 == n && !after, L, far, k, m);
    else { amin = -far; amax = L + far; }
    takeUp(shape, radius, p0, p1, p2, m);
    begin(rapid ? RAPID : measure ? MEASURE : PLAIN, radius, limit);
    const again = shape > BALL || Math.abs(m) > LEVEL;
    const lowY = Math.min(0.0, dy) - round, highY = Math.max(0.0, dy) + round;
    const j0 = max(0, Math.ceil((y0 + lowY / k) * inv - 1e-6) as i32);
    const j1 = min(height - 1, Math.floor((y0 + highY / k) * inv + 1e-6) as i32);
    for (let j = j0; j <= j1; j++) {
      const Y = ((j as f64) * cell - y0) * k;
      // Columns within the radius of the way, and those of the stretch that the segment owns.
      let xa = Math.min(0.0, dx) - radius - RIM, xb = Math.max(0.0, dx) + radius + RIM;
      if (Math.abs(vx) > 1e-12) {
        const a = (amin - Y * vy) / vx, b = (amax - Y * vy) / vx;
        xa = Math.max(xa, Math.min(a, b)); xb = Math.min(xb, Math.max(a, b));
      } else if (Y * vy < amin - 1e-6 || Y * vy > amax + 1e-6) continue;
      if (Math.abs(vy) > 1e-12) {
        const a = (Y * vx - far) / vy, b = (Y * vx + far) / vy;
        xa = Math.max(xa, Math.min(a, b)); xb = Math.min(xb, Math.max(a, b));
      } else if (Math.abs(Y) > far + 1e-6) continue;
      const i0 = max(0, Math.ceil((xa + x0) * inv - 1e-6) as i32), i1 = min(width - 1, Math.floor((xb + x0) * inv + 1e-6) as i32);
      if (i0 > i1) continue;
      rowY = Y as f32;
      if (straight) { sineRow = sine(Y / sheet) as f32; cosineRow = cosine(Y / sheet) as f32; }
      const X = ((i0 as f64) * cell - x0) as f32, at = grid + (((j * stride + i0) as usize) << 2);
      row(shape, straight, again, at, i1 - i0, X, cell as f32);
    }
    // A cell of the sheet is narrower on the wood that is taken: about where the tip is.
    if (measure || rapid) tell(out + (s as usize) * TOLD, cell * Math.sqrt(Math.max(deep, drum + 0.5 * (z0 + z1)) / drum));
  }
}
