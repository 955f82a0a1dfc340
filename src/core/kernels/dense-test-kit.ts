import { type Profile, profileHeight } from '../cutter/cutter';
import type { HeightField } from '../field/height-field';

/** Shapes that tests cut with: a flat end, a ball, a bull-nose, a tapered ball of 5.16 degrees a side, a V of 60 degrees with a flat of 0.2 mm. */
export const SHAPES: Profile[] = [
  { shape: 0, R: 1.2, p0: 0, p1: 0, p2: 0 },
  { shape: 1, R: 1.5875, p0: 0, p1: 0, p2: 0 },
  { shape: 2, R: 1.5, p0: 0.5, p1: 0, p2: 0 },
  { shape: 3, R: 1.2, p0: 0.5, p1: 0.5 * Math.cos(0.09), p2: 1 / Math.tan(0.09) },
  { shape: 4, R: 1.4, p0: 0.1, p1: 0, p2: 1.732 },
];

/** The part of a move, as shares of it, during which a place lies under the cutter; null when it never does. */
function under(p: Profile, s: ArrayLike<number>, x: number, y: number): [number, number] | null {
  const [dx, dy] = [s[3] - s[0], s[4] - s[1]];
  const A = dx * dx + dy * dy;
  const B = dx * (x - s[0]) + dy * (y - s[1]);
  const C = (x - s[0]) ** 2 + (y - s[1]) ** 2 - p.R * p.R;
  if (A === 0) return C > 0 ? null : [0, 1];
  const q = B * B - A * C;
  if (q < 0) return null;
  const from = Math.max(0, (B - Math.sqrt(q)) / A);
  const to = Math.min(1, (B + Math.sqrt(q)) / A);
  return from > to ? null : [from, to];
}

/**
 * The plain definition, by dense search: the lowest point of the cutter over a place while it runs along the move, on n
 * even steps of the part of it that is within reach, and a golden-section refinement around the best of them.
 * @returns the height there, and the tip's at that moment; null where the cutter never is
 */
export function sweptOver(
  p: Profile,
  s: ArrayLike<number>,
  x: number,
  y: number,
  n = 300,
): { z: number; tip: number } | null {
  const [dx, dy, dz] = [s[3] - s[0], s[4] - s[1], s[5] - s[2]];
  const reach = under(p, s, x, y);
  if (!reach) return null;
  const [from, to] = reach;
  const at = (l: number) => {
    const r = Math.min(p.R, Math.hypot(x - s[0] - l * dx, y - s[1] - l * dy));
    return s[2] + l * dz + profileHeight(p, r);
  };
  let best = 0;
  for (let i = 1; i <= n; i++) if (at(from + ((to - from) * i) / n) < at(from + ((to - from) * best) / n)) best = i;
  let a = from + ((to - from) * Math.max(0, best - 1)) / n;
  let b = from + ((to - from) * Math.min(n, best + 1)) / n;
  for (let i = 0; i < 40; i++) {
    const c = b - (b - a) * 0.618;
    const d = a + (b - a) * 0.618;
    if (at(c) < at(d)) b = d;
    else a = c;
  }
  const found = from + ((to - from) * best) / n;
  const l = at((a + b) / 2) < at(found) ? (a + b) / 2 : found;
  return { z: at(l), tip: s[2] + l * dz };
}

/** What one move meets, by the plain definition. */
export interface Met {
  volume: number;
  bite: number;
  /** Places across the move, mm from its axis, left positive, of wood in front of its start; null when there is none. */
  across: { from: number; to: number } | null;
  area: number;
}

/** Cuts a field with one move cell by cell, by the plain definition, and says what is met. @param met how high wood has to stand to count, mm */
export function cutPlainly(f: HeightField, p: Profile, s: ArrayLike<number>, met = 1e-4): Met {
  const L = Math.hypot(s[3] - s[0], s[4] - s[1]);
  const [ux, uy] = L > 1e-9 ? [(s[3] - s[0]) / L, (s[4] - s[1]) / L] : [1, 0];
  const out: Met = { volume: 0, bite: 0, across: null, area: 0 };
  for (let j = 0; j < f.height; j++) {
    for (let i = 0; i < f.width; i++) {
      const [x, y] = [f.originX + i * f.cell, f.originY + j * f.cell];
      const k = j * f.width + i;
      const old = f.data[k];
      const swept = sweptOver(p, s, x, y);
      if (!swept || old - swept.z <= met) continue;
      f.data[k] = swept.z;
      out.volume += (old - swept.z) * f.cell ** 2;
      out.area += f.cell ** 2;
      out.bite = Math.max(out.bite, old - swept.tip);
      const [a, b] = [(x - s[0]) * ux + (y - s[1]) * uy, (y - s[1]) * ux - (x - s[0]) * uy];
      if (a < 0) continue;
      out.across = { from: Math.min(out.across?.from ?? b, b), to: Math.max(out.across?.to ?? b, b) };
    }
  }
  return out;
}
