import svgpath from 'svgpath';
import type { Polygon, Ring } from './polygon';

/** A drawn path: absolute moves, lines, quadratic and cubic Bezier curves, closings. */
export type PathStep =
  | ['M' | 'L', number, number]
  | ['Q', number, number, number, number]
  | ['C', number, number, number, number, number, number]
  | ['Z'];

/** Most segments that a curve is brought to. */
const MOST = 400;

/** A drawn line: its points x0 y0 x1 y1 ..., and whether it closes; then the first is not repeated. */
export interface Drawn {
  points: Float64Array;
  closed: boolean;
}

/** Points of a path's rings, none further than `tolerance` from the curve; open ends are closed by a straight line. */
export function flattenPath(steps: Iterable<PathStep>, tolerance: number): Polygon {
  return flattenLines(steps, tolerance)
    .filter((l) => l.points.length >= 6)
    .map((l) => l.points);
}

/** Points of a path's lines, open ones as they are, none further than `tolerance` from the curve. */
export function flattenLines(steps: Iterable<PathStep>, tolerance: number): Drawn[] {
  const lines: Drawn[] = [];
  let pts: number[] = [];
  const close = (shut: boolean) => {
    const n = pts.length;
    const meets = n >= 4 && pts[0] === pts[n - 2] && pts[1] === pts[n - 1];
    if (meets) pts.length -= 2;
    if (pts.length >= 4) lines.push({ points: Float64Array.from(pts), closed: shut || meets });
    pts = [];
  };
  const put = (x: number, y: number) => {
    const n = pts.length;
    if (n >= 2 && pts[n - 2] === x && pts[n - 1] === y) return;
    pts.push(x, y);
  };
  const cubic = (x1: number, y1: number, x2: number, y2: number, x3: number, y3: number) => {
    const [x0, y0] = pts.slice(-2);
    // The chord error of n even steps of a cubic is at most |second differences| * sqrt(3)/18 * ... <= m / (8 n^2) with
    // m the greatest second derivative (error of linear interpolation, any text on numerical analysis).
    const m =
      6 * Math.max(Math.hypot(x0 - 2 * x1 + x2, y0 - 2 * y1 + y2), Math.hypot(x1 - 2 * x2 + x3, y1 - 2 * y2 + y3));
    const n = Math.min(MOST, Math.max(1, Math.ceil(Math.sqrt(m / (8 * tolerance)))));
    for (let i = 1; i <= n; i++) {
      const t = i / n;
      const s = 1 - t;
      const [a, b, c, d] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
      put(i === n ? x3 : a * x0 + b * x1 + c * x2 + d * x3, i === n ? y3 : a * y0 + b * y1 + c * y2 + d * y3);
    }
  };
  for (const step of steps) {
    if (step[0] === 'M') {
      close(false);
      put(step[1], step[2]);
    } else if (step[0] === 'L') put(step[1], step[2]);
    else if (step[0] === 'Q') {
      const [x0, y0] = pts.slice(-2);
      const [, qx, qy, x, y] = step;
      cubic(x0 + (2 / 3) * (qx - x0), y0 + (2 / 3) * (qy - y0), x + (2 / 3) * (qx - x), y + (2 / 3) * (qy - y), x, y);
    } else if (step[0] === 'C') cubic(step[1], step[2], step[3], step[4], step[5], step[6]);
    else {
      const [x, y] = pts;
      close(true);
      // A drawing may go on from where it closed.
      if (x !== undefined) put(x, y);
    }
  }
  close(false);
  return lines;
}

/**
 * Reads an SVG path ("M 0 0 L 10 0 A ..."), its y downwards as SVG has it, into steps with y upwards. Arcs come as cubic
 * curves of a quarter turn at most, which lie within 3e-4 of their radius.
 * @throws RangeError
 */
export function readSvgPath(d: string): PathStep[] {
  const path = svgpath(d).abs().unshort().unarc();
  const err = (path as unknown as { err?: string }).err;
  if (err) throw new RangeError(`the path cannot be read: ${err}`);
  const out: PathStep[] = [];
  path.iterate((s, _i, x, y) => {
    if (s[0] === 'M' || s[0] === 'L') out.push([s[0], s[1] as number, -(s[2] as number)]);
    else if (s[0] === 'H') out.push(['L', s[1] as number, -y]);
    else if (s[0] === 'V') out.push(['L', x, -(s[1] as number)]);
    else if (s[0] === 'Q') out.push(['Q', s[1] as number, -(s[2] as number), s[3] as number, -(s[4] as number)]);
    else if (s[0] === 'C') {
      const [, a, b, c, e, f, g] = s as [string, number, number, number, number, number, number];
      out.push(['C', a, -b, c, -e, f, -g]);
    } else if (s[0] === 'Z' || s[0] === 'z') out.push(['Z']);
  });
  return out;
}

/** Lengths along a ring at each of its points, and the whole; the last edge closes it. */
export function ringLengths(r: Ring): { at: Float64Array; total: number } {
  const n = r.length / 2;
  const at = new Float64Array(n);
  let total = 0;
  for (let i = 0; i < n; i++) {
    at[i] = total;
    const q = (i + 1) % n;
    total += Math.hypot(r[2 * q] - r[2 * i], r[2 * q + 1] - r[2 * i + 1]);
  }
  return { at, total };
}

/** The place `s` mm along a ring from its first point (any number, also below 0), and the point that it lies behind. */
export function ringPlace(r: Ring, at: Float64Array, total: number, s: number): { x: number; y: number; i: number } {
  const u = ((s % total) + total) % total;
  let i = 0;
  let hi = at.length - 1;
  while (i < hi) {
    const m = (i + hi + 1) >> 1;
    if (at[m] <= u) i = m;
    else hi = m - 1;
  }
  const q = (i + 1) % at.length;
  const long = (q === 0 ? total : at[q]) - at[i];
  const t = long > 0 ? (u - at[i]) / long : 0;
  return { x: r[2 * i] + t * (r[2 * q] - r[2 * i]), y: r[2 * i + 1] + t * (r[2 * q + 1] - r[2 * i + 1]), i };
}
