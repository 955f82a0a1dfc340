import type { Cutter } from '../cutter/cutter';
import { ringArea, ringLength } from '../field/contours';
import { cellAt, sampleField } from '../field/height-field';
import { enterWood } from '../motion/enter';
import { shortestHop } from '../motion/link';
import type { Path } from '../motion/path';
import { isInside } from '../outline/polygon';
import { highestAlong, type PassContext, type Tool } from './context';
import { type Level, type Loop, loopsOf, Near, within } from './loops';
import type { RoughPass } from './rough/schema';

/** What of a pass rings need. */
export type Rings = Pick<RoughPass, 'stepover' | 'rampAngle' | 'milling'>;

/** The shortest way on a level over which a hop is quicker, mm. */
export const hopOver = ({ machine, heights }: PassContext, cutter: Cutter): number =>
  shortestHop(machine, cutter, heights.between + heights.approach, heights.approach);

/**
 * Least distance, in cells, read between the cells, at which the tip may run: the outermost ring runs at RIM and wanders by half a cell from it, so
 * that its own vertices can lie nearer to a forbidden cell than to an open one.
 */
const NEAREST = 0.25;

/** Whether the tip may run straight from one place to another at this level. */
export function passable(level: Level, x0: number, y0: number, x1: number, y1: number): boolean {
  const { grid, depth } = level;
  const field = { ...grid, data: depth };
  const n = Math.max(1, Math.ceil((Math.hypot(x1 - x0, y1 - y0) / grid.cell) * 4));
  for (let s = 0; s <= n; s++) {
    const [x, y] = [x0 + ((x1 - x0) * s) / n, y0 + ((y1 - y0) * s) / n];
    if (cellAt(grid, x, y) < 0 || sampleField(field, x, y) < NEAREST) return false;
  }
  return true;
}

/**
 * Down over ground that is already open: rapid to just above, the last bit at the plunge feed. Beside a cut rather than on
 * it a sliver may stand in the way: there the rapid ends above what stood before this level.
 */
export function dropTo(
  { path, cutter, clear, heights }: Tool,
  level: Level,
  x: number,
  y: number,
  onCut: boolean,
): void {
  const { approach, between } = heights;
  const height = highestAlong(clear, path.x, path.y, x, y) + between;
  const before = highestAlong(clear, x, y, x, y) + approach / 2;
  path.hop(
    x,
    y,
    Math.max(height, level.z + between),
    onCut ? level.z + approach : Math.max(before, level.z + approach),
  );
  path.feed(x, y, level.z, cutter.plunge, 'plunge');
}

/** From one place on a loop to the next at which it is asked whether wood stands there, as a share of the bit's radius. */
const ASKED = 0.25;
/** Wood lower than this over a level is as good as none, mm. */
const BARE = 0.01;

/** A place on the way round a loop: whether the bit meets wood there, and whether the loop turns there. */
interface OnLoop {
  x: number;
  y: number;
  meets: boolean;
  turns: boolean;
}

/** The way round a loop from vertex i, back to it: what loops beside it have taken is gone by now. */
function* wayRound({ wood, z }: Level, { xy }: Loop, i: number, radius: number): Generator<OnLoop> {
  const n = xy.length / 2;
  const at = (x: number, y: number, turns: boolean): OnLoop => ({ x, y, turns, meets: wood.meets(x, y, z, BARE) });
  yield at(xy[2 * i], xy[2 * i + 1], true);
  for (let k = 1; k <= n; k++) {
    const [a, b] = [(i + k - 1) % n, (i + k) % n];
    const [ax, ay, bx, by] = [xy[2 * a], xy[2 * a + 1], xy[2 * b], xy[2 * b + 1]];
    const parts = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / (ASKED * radius)));
    for (let s = 1; s < parts; s++) yield at(ax + ((bx - ax) * s) / parts, ay + ((by - ay) * s) / parts, false);
    yield at(bx, by, true);
  }
}

/** Whether a bit takes anything at all on its way round a loop. */
function takes(level: Level, loop: Loop, radius: number): boolean {
  for (const { meets } of wayRound(level, loop, 0, radius)) if (meets) return true;
  return false;
}

/** Round a loop from vertex i, back to it; over what is in air for longer than a hop is worth the bit hops. */
function follow(tool: Tool, level: Level, loop: Loop, i: number): void {
  const { path, cutter } = tool;
  const { z, hop } = level;
  const way = [...wayRound(level, loop, i, cutter.diameter / 2)];
  const cut = (k: number) => path.feed(way[k].x, way[k].y, z, cutter.feed, k === 0 ? 'link' : 'cut');
  const last = way.length - 1;
  cut(0);
  loop.been = true;
  for (let k = 0; k < last; ) {
    let [end, long] = [k, 0];
    for (; !way[k].meets && end < last && !way[end + 1].meets; end++)
      long += Math.hypot(way[end + 1].x - way[end].x, way[end + 1].y - way[end].y);
    if (long > hop) {
      loop.been = false;
      cut(k);
      if (end < last) dropTo(tool, level, way[end].x, way[end].y, false);
      k = end;
      continue;
    }
    const to = Math.max(end, k + 1);
    while (k < to) if (way[++k].turns) cut(k);
  }
  loop.done = true;
}

/**
 * Turns a loop so that its wood lies on the side that the pass wants it on. Contours have open ground on their left: the first loop of a level is
 * a slot, and the wall that stays is on its right; of a loop beside one that has been cut the wood is on the other side.
 * @param i the vertex that it begins at @param cut a place beside it that is open already; null for a first loop
 * @returns the vertex's number afterwards
 */
function turnedFor({ milling }: Rings, { xy }: Loop, i: number, cut: { x: number; y: number } | null): number {
  if (milling === 'either') return i;
  // What a ring goes round lies at its left where its area is positive.
  const woodRight = cut === null || isInside([xy], cut.x, cut.y) === ringArea(xy) > 0;
  if (woodRight === (milling === 'climb')) return i;
  xy.reverse();
  for (let k = 0; k < xy.length; k += 2) [xy[k], xy[k + 1]] = [xy[k + 1], xy[k]];
  return xy.length / 2 - 1 - i;
}

/** Enters solid material by a ramp along a loop, from the vertex nearest the tool, and follows the loop once. */
function enter(tool: Tool, level: Level, loop: Loop, angle: number): void {
  const { path, cutter, clear, heights } = tool;
  const { xy } = loop;
  const n = xy.length / 2;
  let start = 0;
  let least = Infinity;
  let top = -Infinity;
  for (let i = 0; i < n; i++) {
    const d = Math.hypot(xy[2 * i] - path.x, xy[2 * i + 1] - path.y);
    if (d < least) {
      least = d;
      start = i;
    }
    const k = (i + 1) % n;
    top = Math.max(top, highestAlong(clear, xy[2 * i], xy[2 * i + 1], xy[2 * k], xy[2 * k + 1]));
  }
  const points = new Float64Array(n * 3);
  for (let i = 0; i < n; i++) {
    const v = (start + i) % n;
    points.set([xy[2 * v], xy[2 * v + 1], level.z], 3 * i);
  }
  top = Math.max(top, level.z);
  const from = top + heights.approach / 2;
  const height = Math.max(highestAlong(clear, path.x, path.y, points[0], points[1]) + heights.between, from);
  path.hop(points[0], points[1], height, from);
  const end = enterWood(path, cutter, points, { closed: true, top, angle });
  follow(tool, level, loop, (start + end) % n);
}

/** Clears a level by rings from the walls inwards; each is entered from one already cut, or else by a ramp. */
export function clearByRings(tool: Tool, level: Level, pass: Rings, tolerance: number): void {
  cutLoops(tool, level, loopsOf(level, pass.stepover, tolerance, Infinity).flat(), pass);
}

/** Cuts loops, each from one beside it that has been cut, or else by a ramp; one on which nothing stands any more is left out. */
export function cutLoops(tool: Tool, level: Level, loops: Loop[], pass: Rings): void {
  const { path, cutter } = tool;
  const radius = 1.7 * pass.stepover;
  const near = new Near(radius);
  for (const l of loops) near.add(l);
  const search = { path, level, loops, near, radius };
  let left = loops.length;
  // A loop too short to ramp on is taken only from a neighbour that has been cut.
  const needless = (l: Loop): boolean => {
    if (takes(level, l, cutter.diameter / 2)) return false;
    l.done = true;
    left--;
    return true;
  };
  const roots = loops.filter((l) => ringLength(l.xy) >= cutter.diameter / 2);
  while (left > 0) {
    const beside = near.nearest(path.x, path.y, radius, (l) => !l.done);
    const current = near.nearest(path.x, path.y, 0.02, (l) => l.done);
    if (current && beside && path.z === level.z && passable(level, path.x, path.y, beside.x, beside.y)) {
      if (needless(beside.loop)) continue;
      follow(tool, level, beside.loop, turnedFor(pass, beside.loop, beside.i, path));
      left--;
      continue;
    }
    // From where the bit has been; where nothing stood ground is open too, but on which side of the next loop it is does not tell.
    const jump = nearestFrom(search, (l) => l.been) ?? nearestFrom(search, (l) => l.done);
    if (jump) {
      if (needless(jump.loop)) continue;
      dropTo(tool, level, jump.from.x, jump.from.y, jump.from.loop.been);
      follow(tool, level, jump.loop, turnedFor(pass, jump.loop, jump.i, jump.from));
      left--;
      continue;
    }
    let best: Loop | undefined;
    let least = Infinity;
    for (const l of roots) {
      if (l.done) continue;
      // Outer walls before islands and inner rings: they open the ground that the others are entered from.
      const d = Math.hypot(l.xy[0] - path.x, l.xy[1] - path.y) - (ringArea(l.xy) > 0 ? 1e4 + ringLength(l.xy) : 0);
      if (d < least) {
        least = d;
        best = l;
      }
    }
    if (!best) break;
    if (needless(best)) continue;
    turnedFor(pass, best, 0, null);
    enter(tool, level, best, pass.rampAngle);
    left--;
  }
}

/** Loops of a level, and how far one may lie from another that is gone to from it, mm. */
interface Search {
  path: Path;
  level: Level;
  loops: Loop[];
  near: Near;
  radius: number;
}

/** The undone loop nearest the tool that passes close to one of the open ones, and the place on that one. */
function nearestFrom({ path, level, loops, near, radius }: Search, open: (l: Loop) => boolean) {
  let best: { loop: Loop; i: number; from: { x: number; y: number; loop: Loop } } | undefined;
  let least = Infinity;
  for (const loop of loops) {
    if (loop.done) continue;
    const n = loop.xy.length / 2;
    const step = Math.max(1, Math.floor(n / 40));
    for (let i = 0; i < n; i += step) {
      const [x, y] = [loop.xy[2 * i], loop.xy[2 * i + 1]];
      if (!within(x - path.x, y - path.y, least)) continue;
      const from = near.nearest(x, y, radius, open);
      if (from && passable(level, from.x, from.y, x, y)) {
        least = Math.hypot(x - path.x, y - path.y);
        best = { loop, i, from };
      }
    }
  }
  return best;
}
