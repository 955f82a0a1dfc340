import { flattenLines, readSvgPath } from './flatten';

/** A stroke walked by its length: points x0 y0 x1 y1 ..., lengths up to each, and the whole. */
export interface Stroke {
  points: Float64Array;
  at: Float64Array;
  total: number;
}

/** An open stroke of SVG path data (its first, y down as SVG has it), y upwards, in mm. @throws RangeError */
export function readStroke(d: string, tolerance: number): Stroke {
  const [first] = flattenLines(readSvgPath(d), tolerance);
  if (!first) throw new RangeError('the stroke has no length; draw it as "M 0 0 C 20 -10 40 -10 60 0"');
  const points = first.closed ? Float64Array.from([...first.points, first.points[0], first.points[1]]) : first.points;
  const at = new Float64Array(points.length / 2);
  for (let i = 1; i < at.length; i++)
    at[i] = at[i - 1] + Math.hypot(points[2 * i] - points[2 * i - 2], points[2 * i + 1] - points[2 * i - 1]);
  return { points, at, total: at[at.length - 1] };
}

/** The place `s` mm along a stroke and the way it runs there (a unit vector); beyond its ends it goes on straight. */
export function alongStroke({ points: p, at }: Stroke, s: number): { x: number; y: number; c: number; n: number } {
  let i = 0;
  while (i + 2 < at.length && at[i + 1] < s) i++;
  const [dx, dy] = [p[2 * i + 2] - p[2 * i], p[2 * i + 3] - p[2 * i + 1]];
  const l = Math.hypot(dx, dy) || 1;
  const t = s - at[i];
  return { x: p[2 * i] + (dx / l) * t, y: p[2 * i + 1] + (dy / l) * t, c: dx / l, n: dy / l };
}
