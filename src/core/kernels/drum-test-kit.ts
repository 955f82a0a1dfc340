import { type Profile, profileHeight } from '../cutter/cutter';
import { drumGrid, type HeightField, makeField } from '../field/height-field';
import { holdsMost, holdsTip } from './drum-offset';

/** A drum of a length and a radius whose rays reach out by what a function says of their places, mm over the circle (negative into it). */
export function drumOf(x: number, radius: number, cell: number, height: (x: number, a: number) => number) {
  const f = makeField(drumGrid(x, radius, cell));
  for (let j = 0; j < f.height; j++)
    for (let i = 0; i < f.width; i++)
      f.data[j * f.width + i] = height(f.originX + i * f.cell, (f.originY + j * f.cell) / radius);
  return f as HeightField & { drum: { radius: number; rows: number } };
}

/**
 * The plain definition of the offset at one place: the highest over all rays, and over `n` even points of each and a golden-section search around
 * the best of them, at which the point holds a tip; not -Infinity where any ray lies under the cutter.
 */
export function heldAt(f: HeightField, p: Profile, wider: number, at: { x: number; a: number }, n = 60): number {
  const radius = f.drum?.radius ?? 0;
  let best = -Infinity;
  const R = p.R + wider;
  for (let j = 0; j < f.height; j++) {
    const da = (f.originY + j * f.cell) / radius - at.a;
    if (Math.cos(da) <= 1e-9) continue;
    for (let i = 0; i < f.width; i++) {
      const dx = f.originX + i * f.cell - at.x;
      if (Math.abs(dx) > R + 1e-6) continue;
      const own = radius + f.data[j * f.width + i];
      if (own <= 0) continue;
      const s = Math.abs(Math.sin(da));
      const most = Math.min(own, s > 1e-9 ? Math.sqrt(Math.max(0, R * R - dx * dx)) / s : own);
      const held = (rho: number) =>
        rho * Math.cos(da) - profileHeight(p, Math.max(0, Math.min(R, Math.hypot(dx, rho * s)) - wider));
      // Nothing on it can be higher than its end.
      if (most * Math.cos(da) <= best) continue;
      let at1 = 0;
      for (let q = 1; q <= n; q++) if (held((most * q) / n) > held((most * at1) / n)) at1 = q;
      let [from, to] = [(most * Math.max(0, at1 - 1)) / n, (most * Math.min(n, at1 + 1)) / n];
      for (let q = 0; q < 40; q++) {
        const [c, d] = [to - (to - from) * 0.618, from + (to - from) * 0.618];
        if (held(c) < held(d)) from = c;
        else to = d;
      }
      best = Math.max(best, held((from + to) / 2), held(most));
    }
  }
  return best - radius;
}

/** The least radius at which a ray enters a cutter, by bisection: what is over the tip rises up to where the ray holds it most. Infinity where it misses it. */
function entered(p: Profile, r: number, a: number, dx: number): number {
  if (Math.cos(a) <= 1e-9) return Infinity;
  // What misses it at its own angle misses it at any radius.
  if (dx > p.R || Math.tan(Math.min(a, 1.5)) * r > p.R) return Infinity;
  const most = Math.min(holdsMost(p, 0, a, dx), 1e6);
  if (most < 0 || holdsTip(p, 0, most, a, dx) < r) return Infinity;
  let [from, to] = [0, most];
  for (let i = 0; i < 36; i++) {
    const middle = (from + to) / 2;
    if (holdsTip(p, 0, middle, a, dx) < r) from = middle;
    else to = middle;
  }
  return to;
}

/**
 * The plain definition of removal at one place: the least radius at which its ray enters the cutter at any moment of a move, on `n` even
 * moments and a golden-section search around the best of them, as a height. All turns of the move are looked at.
 */
export function enteredAt(f: HeightField, p: Profile, s: number[], at: { x: number; y: number }, n = 160) {
  const radius = f.drum?.radius ?? 0;
  const when = (l: number) => {
    const y = s[1] + (s[4] - s[1]) * l;
    let a = ((at.y - y) / radius) % (2 * Math.PI);
    if (a > Math.PI) a -= 2 * Math.PI;
    if (a < -Math.PI) a += 2 * Math.PI;
    return entered(p, radius + s[2] + (s[5] - s[2]) * l, Math.abs(a), Math.abs(at.x - s[0] - (s[3] - s[0]) * l));
  };
  let best = 0;
  let least = when(0);
  for (let q = 1; q <= n; q++) {
    const v = when(q / n);
    if (v < least) [best, least] = [q / n, v];
  }
  // Where it is not met at all counts as the higher the further it is from where it is.
  const near = (l: number) => {
    const v = when(l);
    if (v < least) least = v;
    return v === Infinity ? 1e3 + Math.abs(l - best) : v;
  };
  let [from, to] = [Math.max(0, best - 1 / n), Math.min(1, best + 1 / n)];
  for (let q = 0; q < 26; q++) {
    const [c, d] = [to - (to - from) * 0.618, from + (to - from) * 0.618];
    if (near(c) < near(d)) to = d;
    else from = c;
  }
  return { z: least - radius };
}
