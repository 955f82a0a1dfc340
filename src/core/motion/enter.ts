import type { Cutter } from '../cutter/cutter';
import { type Path, sinkingFeed } from './path';

const rad = Math.PI / 180;
/** Over the wood at which a ramp begins, mm: what stands is known to a part of a cell. */
const OVER = 0.3;

/** Share by which a ramp is longer than it needs, so that rounding does not send it round once more. */
const HAIR = 1e-6;

/** What of a bit counts where it goes into the wood. */
export type Entering = Pick<Cutter, 'diameter' | 'feed' | 'plunge' | 'maxPlungeDepth'>;

/** Where a bit goes into the wood: along a ring or an open line, where it meets the wood over its first point, and how steeply it sinks, degrees. */
export interface Entry {
  closed: boolean;
  top: number;
  angle: number;
}

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

/** The first `reach` mm of an open polyline of x y z points, measured in the plane. */
export function headOf(points: Float64Array, reach: number): Float64Array {
  const out = [points[0], points[1], points[2]];
  for (let i = 3, gone = 0; i < points.length && gone < reach; i += 3) {
    const long = Math.hypot(points[i] - points[i - 3], points[i + 1] - points[i - 2]);
    const share = long > 0 ? Math.min(1, (reach - gone) / long) : 1;
    for (let k = 0; k < 3; k++) out.push(points[i - 3 + k] + share * (points[i + k] - points[i - 3 + k]));
    gone += long;
  }
  return Float64Array.from(out);
}

/** Length of a polyline of x y z points in the plane, mm. */
function lengthOf(p: Float64Array): number {
  let sum = 0;
  for (let i = 3; i < p.length; i += 3) sum += Math.hypot(p[i] - p[i - 3], p[i + 1] - p[i - 2]);
  return sum;
}

/** Least room to go to and fro in, as a share of the diameter. */
const ROOM = 0.25;

/**
 * A polyline up to where it rises over a height, or up a wall that is higher than the bit may plunge: a ramp that went on over a wall would come
 * straight down behind it.
 */
function before(points: Float64Array, height: number, { maxPlungeDepth }: Entering): Float64Array {
  let foot = 3;
  for (let i = 3; i < points.length; i += 3) {
    const rise = points[i + 2] - points[i - 1];
    const steep = rise > Math.hypot(points[i] - points[i - 3], points[i + 1] - points[i - 2]);
    if (points[i + 2] > height || (steep && points[i + 2] - points[foot - 1] > maxPlungeDepth))
      return points.subarray(0, foot);
    if (!steep) foot = i + 3;
  }
  return points;
}

/** Where a ramp begins over wood. */
const startOf = (path: Path, top: number) => Math.min(path.z, top + OVER);

/** Whether a bit has room on an open line of x y z points to go down into wood that begins at `top` over its first point. */
export function hasRoom(path: Path, bit: Entering, points: Float64Array, top: number): boolean {
  return (
    top - points[2] <= bit.maxPlungeDepth || lengthOf(before(points, startOf(path, top), bit)) >= ROOM * bit.diameter
  );
}

/** The part of a line on which a ramp turns before a wall; all of it where there is next to no room before the wall. */
function roomFor(points: Float64Array, height: number, bit: Entering): Float64Array {
  const room = before(points, height, bit);
  return lengthOf(room) >= ROOM * bit.diameter ? room : points;
}

/** How far along an open line a ramp goes before it turns: so that it is down when it comes back, and at least a diameter. */
const reachOf = (deep: number, slope: number, diameter: number) => Math.max(diameter, (1 + HAIR) * (deep / slope / 2));

/**
 * Brings a bit that stands over the first point of a path onto it: straight down through what it may plunge into, else by a ramp along the
 * path that is about to be cut, round and round a ring (a helix on a small one), to and fro over the first stretch of an open line. It ends on
 * the path, at the first point of an open line, and anywhere on a ring.
 * @param points x y z of the path
 * @returns index of the ring's point where it ended; 0 for an open line
 */
export function enterWood(path: Path, bit: Entering, points: Float64Array, { closed, top, angle }: Entry): number {
  const [x0, y0, z0] = points;
  if (top - z0 <= bit.maxPlungeDepth) {
    if (top > z0 && path.z > top) path.feed(x0, y0, top, bit.plunge, 'plunge');
    path.feed(x0, y0, z0, bit.plunge, 'plunge');
    return 0;
  }
  const from = startOf(path, top);
  const slope = Math.tan(angle * rad);
  const room = closed ? points : roomFor(points, from, bit);
  const line = closed ? points : headOf(room, reachOf(from - z0, slope, bit.diameter));
  let floor = Infinity;
  for (let i = 2; i < line.length; i += 3) floor = Math.min(floor, line[i]);
  path.feed(x0, y0, from, bit.plunge, 'plunge');
  if (!closed && lengthOf(line) < bit.diameter) {
    stepDown(path, bit, line, from);
    return 0;
  }
  return ramp(path, bit, line, { closed, from, slope, floor });
}

/**
 * Down onto an open line that is too short for a ramp: as deep as the bit may plunge, along it and back, and again. Where there is next to no
 * line it goes straight down, which the proof judges.
 */
function stepDown(path: Path, bit: Entering, line: Float64Array, from: number): void {
  const [x, y, z] = line;
  const steps =
    lengthOf(line) >= ROOM * bit.diameter && bit.maxPlungeDepth > 0 ? Math.ceil((from - z) / bit.maxPlungeDepth) : 1;
  for (let n = 1; n < steps; n++) {
    const level = from + ((z - from) * n) / steps;
    path.feed(x, y, level, bit.plunge, 'plunge');
    for (let i = 3; i < line.length; i += 3)
      path.feed(line[i], line[i + 1], Math.max(level, line[i + 2]), bit.plunge, 'ramp');
    for (let i = line.length - 6; i >= 0; i -= 3)
      path.feed(line[i], line[i + 1], Math.max(level, line[i + 2]), bit.plunge, 'ramp');
  }
  path.feed(x, y, z, bit.plunge, 'plunge');
}

/** Sinks along a line from its first point. @returns index of the ring's point where it ended; 0 for an open line */
function ramp(
  path: Path,
  bit: Entering,
  line: Float64Array,
  { closed, from, slope, floor }: { closed: boolean; from: number; slope: number; floor: number },
): number {
  let z = from;
  let [x, y] = line;
  let index = 0;
  const n = line.length / 3;
  for (const [nx, ny, nz] of walk(line, closed)) {
    const l = Math.hypot(nx - x, ny - y);
    const next = Math.max(nz, z - l * slope, floor);
    // Over a wall the tip has stood higher than the ramp: what it really goes down counts.
    const drop = next - path.z;
    path.feed(nx, ny, next, sinkingFeed(bit.feed, bit.plunge, drop, Math.hypot(l, drop)), 'ramp');
    x = nx;
    y = ny;
    z = Math.min(z, Math.max(z - l * slope, floor));
    index++;
    const there = closed || index % (2 * (n - 1)) === 0;
    if (z <= floor && there) break;
  }
  return closed ? index % n : 0;
}
