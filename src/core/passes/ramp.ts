import { sinkingFeed } from '../motion/path';
import type { Tool } from './context';

const rad = Math.PI / 180;

/** A walk along a polyline of x y z points: forwards for ever on a ring, to and fro on an open line. */
function* walk(points: Float64Array, closed: boolean): Generator<[number, number, number]> {
  const n = points.length / 3;
  const at = (i: number): [number, number, number] => [points[3 * i], points[3 * i + 1], points[3 * i + 2]];
  for (;;) {
    for (let i = 1; i < n; i++) yield at(i);
    if (closed) yield at(0);
    else for (let i = n - 2; i >= 0; i--) yield at(i);
  }
}

/** The first `reach` mm of an open polyline of x y z points. */
function headOf(points: Float64Array, reach: number): Float64Array {
  const out = [points[0], points[1], points[2]];
  for (let i = 3, gone = 0; i < points.length && gone < reach; i += 3) {
    gone += Math.hypot(points[i] - points[i - 3], points[i + 1] - points[i - 2]);
    out.push(points[i], points[i + 1], points[i + 2]);
  }
  return Float64Array.from(out);
}

/** How a ramp goes: around a ring or to and fro, from which height, how steeply (degrees). */
export interface Ramp {
  closed: boolean;
  from: number;
  angle: number;
}

/**
 * Enters solid material along the path that is about to be cut, sinking at `angle` degrees from `from` until the tip is
 * on the path: round and round a ring (a helix on a small one), to and fro over the first stretch of an open line. The
 * tip must stand at the first point; it ends on the path, at the first point of an open line, and anywhere on a ring.
 * @param points x y z of the path
 * @returns index of the ring's point where the ramp ended; 0 for an open line
 */
export function rampOnto(
  { path, cutter }: Pick<Tool, 'path' | 'cutter'>,
  points: Float64Array,
  { closed, from, angle }: Ramp,
): number {
  const slope = Math.tan(angle * rad);
  const line = closed ? points : headOf(points, Math.max(4 * cutter.diameter, 10));
  let floor = Infinity;
  for (let i = 2; i < line.length; i += 3) floor = Math.min(floor, line[i]);
  // Nothing to sink along: straight down.
  if (line.every((v, i) => i % 3 === 2 || v === line[i % 3])) {
    path.feed(line[0], line[1], floor, cutter.plunge, 'plunge');
    return 0;
  }
  let z = from;
  let x = line[0];
  let y = line[1];
  let index = 0;
  const n = line.length / 3;
  path.feed(x, y, from, cutter.plunge, 'plunge');
  for (const [nx, ny, nz] of walk(line, closed)) {
    const l = Math.hypot(nx - x, ny - y);
    const next = Math.max(nz, z - l * slope, floor);
    // Over a wall the tip has stood higher than the ramp: what it really goes down counts.
    const drop = next - path.z;
    path.feed(nx, ny, next, sinkingFeed(cutter.feed, cutter.plunge, drop, Math.hypot(l, drop)), 'ramp');
    x = nx;
    y = ny;
    z = Math.min(z, Math.max(z - l * slope, floor));
    index++;
    const there = closed || index % (2 * (n - 1)) === 0;
    if (z <= floor && there) break;
  }
  return closed ? index % n : 0;
}
