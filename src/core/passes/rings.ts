import { contourRings, type Ring, ringArea, ringLength, simplifyRing } from '../field/contours';
import { cellAt, type HeightField, sampleField } from '../field/height-field';
import { enterWood } from '../motion/enter';
import type { Path } from '../motion/path';
import type { RoughPass } from './rough/schema';

/** What of a pass rings need. */
export type Rings = Pick<RoughPass, 'stepover' | 'rampAngle' | 'milling'>;

import { highestAlong, type Tool } from './context';

/** One level to be cleared. */
export interface Level {
  z: number;
  /** Distance in cells from each cell of the grid to the nearest place where the tip may not be; 0 there. */
  depth: Float32Array;
  grid: Omit<HeightField, 'data'>;
}

/** A closed loop in board coordinates, x y pairs. */
interface Loop {
  xy: Ring;
  done: boolean;
}

/** Where the outermost ring runs: half a cell inside the first cell that is forbidden. */
export const RIM = 0.5;

/** Vertices of loops by place, to find what lies near a point. */
class Near {
  private readonly cells = new Map<number, { loop: Loop; x: number; y: number; i: number }[]>();
  constructor(private readonly size: number) {}

  private key(x: number, y: number): number {
    return Math.floor(x / this.size) * 65536 + Math.floor(y / this.size);
  }
  add(loop: Loop): void {
    const { xy } = loop;
    const n = xy.length / 2;
    for (let i = 0; i < n; i++) {
      const k = (i + 1) % n;
      const [ax, ay, bx, by] = [xy[2 * i], xy[2 * i + 1], xy[2 * k], xy[2 * k + 1]];
      const parts = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / (this.size / 2)));
      for (let s = 0; s < parts; s++) {
        const x = ax + ((bx - ax) * s) / parts;
        const y = ay + ((by - ay) * s) / parts;
        const key = this.key(x, y);
        const list = this.cells.get(key);
        const entry = { loop, x, y, i };
        if (list) list.push(entry);
        else this.cells.set(key, [entry]);
      }
    }
  }
  /** Nearest vertex within `radius` (at most the size of a cell) whose loop passes the test. */
  nearest(x: number, y: number, radius: number, test: (l: Loop) => boolean) {
    let best: { loop: Loop; x: number; y: number; i: number } | undefined;
    let least = radius;
    for (let b = -1; b <= 1; b++) {
      for (let a = -1; a <= 1; a++) {
        for (const e of this.cells.get(this.key(x + a * this.size, y + b * this.size)) ?? []) {
          const d = Math.hypot(e.x - x, e.y - y);
          if (d < least && test(e.loop)) {
            least = d;
            best = e;
          }
        }
      }
    }
    return best;
  }
}

/** Loops at distance 0, s, 2 s ... from the walls, outermost first; tiny ones, which could only be drilled, are left out. */
export function loopsOf(level: Level, stepover: number, tolerance: number, rings: number): Loop[][] {
  const { grid, depth } = level;
  const values = new Float32Array(depth.length);
  for (let k = 0; k < values.length; k++) {
    const v = ((depth[k] - RIM) * grid.cell) / stepover + 1e-4;
    // Only the rings asked for: with a ceiling just under the next whole number no more are traced.
    values[k] = Math.min(v, rings - 1e-3);
  }
  return contourRings(values, grid.width, grid.height).map((list) =>
    list
      .map((r) => {
        const out = simplifyRing(r, tolerance / grid.cell);
        for (let i = 0; i < out.length; i += 2) {
          out[i] = grid.originX + out[i] * grid.cell;
          out[i + 1] = grid.originY + out[i + 1] * grid.cell;
        }
        return { xy: out, done: false };
      })
      .filter((l) => l.xy.length >= 6),
  );
}

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

/** Round a loop from vertex i, back to it. */
function follow(path: Path, loop: Loop, i: number, z: number, feed: number): void {
  const { xy } = loop;
  const n = xy.length / 2;
  for (let k = 0; k <= n; k++) {
    const v = (i + k) % n;
    path.feed(xy[2 * v], xy[2 * v + 1], z, feed, k === 0 ? 'link' : 'cut');
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
  const n = xy.length / 2;
  const [p, q] = [(i + n - 1) % n, (i + 1) % n];
  const [dx, dy] = [xy[2 * q] - xy[2 * p], xy[2 * q + 1] - xy[2 * p + 1]];
  const woodRight = cut === null || dx * (cut.y - xy[2 * i + 1]) - dy * (cut.x - xy[2 * i]) > 0;
  if (woodRight === (milling === 'climb')) return i;
  xy.reverse();
  for (let k = 0; k < xy.length; k += 2) [xy[k], xy[k + 1]] = [xy[k + 1], xy[k]];
  return n - 1 - i;
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
  follow(path, loop, (start + end) % n, level.z, cutter.feed);
}

/** Clears a level by rings from the walls inwards; each is entered from one already cut, or else by a ramp. */
export function clearByRings(tool: Tool, level: Level, pass: Rings, tolerance: number): void {
  cutLoops(tool, level, loopsOf(level, pass.stepover, tolerance, Infinity).flat(), pass);
}

export function cutLoops(tool: Tool, level: Level, loops: Loop[], pass: Rings): void {
  const { path, cutter } = tool;
  const radius = 1.7 * pass.stepover;
  const near = new Near(radius);
  for (const l of loops) near.add(l);
  let left = loops.length;
  // A loop too short to ramp on is taken only from a neighbour that has been cut.
  const roots = loops.filter((l) => ringLength(l.xy) >= cutter.diameter / 2);
  while (left > 0) {
    const beside = near.nearest(path.x, path.y, radius, (l) => !l.done);
    const current = near.nearest(path.x, path.y, 0.02, (l) => l.done);
    if (current && beside && path.z === level.z && passable(level, path.x, path.y, beside.x, beside.y)) {
      follow(path, beside.loop, turnedFor(pass, beside.loop, beside.i, path), level.z, cutter.feed);
      left--;
      continue;
    }
    const jump = nearestFromDone(path, level, loops, near, radius);
    if (jump) {
      dropTo(tool, level, jump.from.x, jump.from.y, true);
      follow(path, jump.loop, turnedFor(pass, jump.loop, jump.i, jump.from), level.z, cutter.feed);
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
    turnedFor(pass, best, 0, null);
    enter(tool, level, best, pass.rampAngle);
    left--;
  }
}

/** The undone loop nearest the tool that passes close to one already cut, and the place on that one. */
function nearestFromDone(path: Path, level: Level, loops: Loop[], near: Near, radius: number) {
  let best: { loop: Loop; i: number; from: { x: number; y: number } } | undefined;
  let least = Infinity;
  for (const loop of loops) {
    if (loop.done) continue;
    const n = loop.xy.length / 2;
    const step = Math.max(1, Math.floor(n / 40));
    for (let i = 0; i < n; i += step) {
      const [x, y] = [loop.xy[2 * i], loop.xy[2 * i + 1]];
      const d = Math.hypot(x - path.x, y - path.y);
      if (d >= least) continue;
      const from = near.nearest(x, y, radius, (l) => l.done);
      if (from && passable(level, from.x, from.y, x, y)) {
        least = d;
        best = { loop, i, from };
      }
    }
  }
  return best;
}
