import { STRAIGHT } from '../../cutter/limits';
import { enterWood, hasRoom } from '../../motion/enter';
import { slopeFeed } from '../../motion/path';
import { highestAlong, type Tool } from '../context';
import type { Live } from '../live';
import type { Raster } from './raster';

/** Directions in which it is looked for room to go into the wood. */
const WAYS = 16;
/** Steps of a way after which it is asked what stands over it. */
const LOOKED = 4;

/** A place at which a bit did not go into the wood, for there is no room to ramp: board coordinates, and how much of the wood stands there, mm. */
export interface Refused {
  x: number;
  y: number;
  z: number;
  deep: number;
}

/** A finishing bit on its way: what stands under it meanwhile, how steeply it sinks, degrees, and where it was refused. */
export interface Way extends Tool {
  live: Live;
  angle: number;
  raster: Raster;
  refused: Refused[];
}

/** Over the wood to the first point and down: where the bit has been close by, through air and on from there, else into the wood. */
export function hopTo(way: Way, points: Float64Array): void {
  const { path, cutter, clear, heights, live, raster } = way;
  const [x, y, z] = points;
  const stock = highestAlong(clear, x, y, x, y);
  if (path.moves === 0) path.rapid(x, y, heights.everything);
  const been = live.nearest(x, y, raster.near);
  if (been && raster.linkable(been.x, been.y, x, y, live)) {
    const over = Math.max(highestAlong(clear, path.x, path.y, been.x, been.y), been.z) + heights.between;
    path.hop(been.x, been.y, over, been.z + heights.approach / 2);
    path.feed(been.x, been.y, been.z, cutter.plunge, 'plunge');
    emit(way, raster.link(been.x, been.y, x, y), 'link');
    return;
  }
  const over = Math.max(highestAlong(clear, path.x, path.y, x, y), z) + heights.between;
  const down = Math.max(stock, z) + heights.approach / 2;
  path.hop(x, y, over, down);
  goIn(way, points);
}

/**
 * Feeds along x y z points, a link's from the second on, downwards as fast as the tip bears; where it goes straight down into more wood than the
 * bit may, by a ramp. Where there is no room for one it stays over the wood.
 */
export function emit(way: Way, points: Float64Array, kind: 'cut' | 'link'): void {
  const { path, cutter, raster } = way;
  let over = false;
  for (let i = kind === 'link' ? 3 : 0; i < points.length; i += 3) {
    const [x, y, z] = points.subarray(i, i + 3);
    if (over && z < path.z) path.feed(x, y, path.z, cutter.feed, kind);
    const dz = z - path.z;
    const aside = Math.hypot(x - path.x, (y - path.y) * raster.narrowed(Math.min(z, path.z)));
    over = false;
    if (-dz > cutter.maxPlungeDepth && aside <= STRAIGHT * -dz) {
      over = !goIn(way, points.subarray(i));
      continue;
    }
    path.feed(x, y, z, slopeFeed(cutter.feed, cutter.plunge, dz, aside), kind);
  }
}

/**
 * Down to the first of x y z points that are to be cut, from over it: through the wood that stands there straight, by a ramp along them, or by one
 * along the longest way beside them, as across a slot that is hardly wider than the bit.
 * @returns whether it got there; else the bit stands on the wood, and its place is noted
 */
function goIn(way: Way, points: Float64Array): boolean {
  const { path, cutter, live, angle, refused } = way;
  const [x, y, z] = points;
  const top = Math.min(path.z, z + live.solid({ x, y, z }, cutter.maxPlungeDepth));
  const line = hasRoom(path, cutter, points, top) ? points : longestWay(way, points, top);
  if (hasRoom(path, cutter, line, top)) {
    enterWood(path, cutter, line, { closed: false, top, angle });
    return true;
  }
  path.feed(x, y, top, cutter.plunge, 'plunge');
  const deep = top - z;
  const near = refused.find((r) => Math.hypot(r.x - x, r.y - y) < cutter.diameter);
  if (!near) refused.push({ x, y, z, deep });
  else if (deep > near.deep) Object.assign(near, { x, y, z, deep });
  return false;
}

/**
 * The longest straight way on the surface from a point that stays below a height, and over which no more stands than the bit takes at once, x y z
 * points; at most a diameter.
 */
function longestWay({ raster, cutter, live }: Way, [x, y, z]: Float64Array, height: number): Float64Array {
  const { step } = raster;
  const most = Math.ceil(cutter.diameter / step);
  let best = { n: 0, ux: 0, uy: 0 };
  for (let w = 0; w < WAYS; w++) {
    const [ux, uy] = [Math.cos((2 * Math.PI * w) / WAYS), Math.sin((2 * Math.PI * w) / WAYS)];
    const free = (n: number) => {
      const [px, py] = [x + n * step * ux, y + n * step * uy];
      if (!raster.allowed(px, py) || raster.heightAt(px, py) > height) return false;
      return n % LOOKED !== 0 || live.solid({ x: px, y: py, z }, cutter.maxStepdown) <= cutter.maxStepdown;
    };
    let n = 0;
    while (n < most && free(n + 1)) n++;
    if (n > best.n) best = { n, ux, uy };
  }
  return raster.link(x, y, x + best.n * step * best.ux, y + best.n * step * best.uy);
}
