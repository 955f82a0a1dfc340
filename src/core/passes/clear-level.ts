import type { Cutter } from '../cutter/cutter';
import { contourRings, type Ring, ringArea, ringLength, simplifyRing } from '../field/contours';
import type { HeightField } from '../field/height-field';
import type { Path } from '../motion/path';
import type { RoughPass } from '../plan/pass';

/** What of a pass rings need. */
type Rings = Pick<RoughPass, 'stepover' | 'rampAngle'>;

import { CLEARANCE, highestAlong } from './context';
import { rampOnto } from './ramp';

/** One level to be cleared. */
export interface Level {
  z: number;
  /** Distance in cells from each cell of the grid to the nearest place where the tip may not be; 0 there. */
  depth: Float32Array;
  grid: Omit<HeightField, 'data'>;
  /** Highest stock under the cutter, before this level. */
  clear: HeightField;
}

/** A closed loop in board coordinates, x y pairs. */
interface Loop {
  xy: Ring;
  done: boolean;
}

/** Where the outermost ring runs: half a cell inside the first cell that is forbidden. */
const RIM = 0.5;

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
function loopsOf(level: Level, stepover: number, tolerance: number, rings: number): Loop[][] {
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

/** Whether the tip may run straight from one place to another at this level. */
function passable(level: Level, x0: number, y0: number, x1: number, y1: number): boolean {
  const { grid, depth } = level;
  const n = Math.max(1, Math.ceil((Math.hypot(x1 - x0, y1 - y0) / grid.cell) * 2));
  for (let s = 0; s <= n; s++) {
    const i = Math.round((x0 + ((x1 - x0) * s) / n - grid.originX) / grid.cell);
    const j = Math.round((y0 + ((y1 - y0) * s) / n - grid.originY) / grid.cell);
    if (i < 0 || j < 0 || i >= grid.width || j >= grid.height || depth[j * grid.width + i] <= 0) return false;
  }
  return true;
}

/**
 * Down over ground that is already open: rapid to just above, the last bit at the plunge feed. Beside a cut rather than on
 * it a sliver may stand in the way: there the rapid ends above what stood before this level.
 */
function dropTo(path: Path, level: Level, x: number, y: number, cutter: Cutter, onCut: boolean): void {
  const height = highestAlong(level.clear, path.x, path.y, x, y) + CLEARANCE;
  const before = highestAlong(level.clear, x, y, x, y) + CLEARANCE / 2;
  path.hop(
    x,
    y,
    Math.max(height, level.z + CLEARANCE),
    onCut ? level.z + CLEARANCE : Math.max(before, level.z + CLEARANCE),
  );
  path.feed(x, y, level.z, cutter.plunge);
}

/** Round a loop from vertex i, back to it. */
function follow(path: Path, loop: Loop, i: number, z: number, feed: number): void {
  const { xy } = loop;
  const n = xy.length / 2;
  for (let k = 0; k <= n; k++) {
    const v = (i + k) % n;
    path.feed(xy[2 * v], xy[2 * v + 1], z, feed);
  }
  loop.done = true;
}

/** Enters solid material by a ramp along a loop, from the vertex nearest the tool, and follows the loop once. */
function enter(path: Path, level: Level, loop: Loop, cutter: Cutter, angle: number): void {
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
    top = Math.max(top, highestAlong(level.clear, xy[2 * i], xy[2 * i + 1], xy[2 * k], xy[2 * k + 1]));
  }
  const points = new Float64Array(n * 3);
  for (let i = 0; i < n; i++) {
    const v = (start + i) % n;
    points.set([xy[2 * v], xy[2 * v + 1], level.z], 3 * i);
  }
  const from = Math.max(top, level.z) + CLEARANCE / 2;
  const height = Math.max(highestAlong(level.clear, path.x, path.y, points[0], points[1]) + CLEARANCE, from);
  path.hop(points[0], points[1], height, from);
  const end = rampOnto(path, points, true, from, angle, cutter);
  follow(path, loop, (start + end) % n, level.z, cutter.feed);
}

/** Clears a level by rings from the walls inwards; each is entered from one already cut, or else by a ramp. */
export function clearByRings(path: Path, level: Level, pass: Rings, cutter: Cutter, tolerance: number): void {
  cutLoops(path, level, loopsOf(level, pass.stepover, tolerance, Infinity).flat(), pass, cutter);
}

function cutLoops(path: Path, level: Level, loops: Loop[], pass: Rings, cutter: Cutter): void {
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
      follow(path, beside.loop, beside.i, level.z, cutter.feed);
      left--;
      continue;
    }
    const jump = nearestFromDone(path, level, loops, near, radius);
    if (jump) {
      dropTo(path, level, jump.from.x, jump.from.y, cutter, true);
      follow(path, jump.loop, jump.i, level.z, cutter.feed);
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
    enter(path, level, best, cutter, pass.rampAngle);
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

/** Clears a level by following its walls once and then by rows between them. */
export function clearByRows(path: Path, level: Level, pass: RoughPass, cutter: Cutter, tolerance: number): void {
  cutLoops(path, level, loopsOf(level, pass.stepover, tolerance, 1).flat(), pass, cutter);
  const { grid, depth } = level;
  const a = (pass.angle * Math.PI) / 180;
  const [ux, uy] = [Math.cos(a), Math.sin(a)];
  const cx = grid.originX + (grid.width * grid.cell) / 2;
  const cy = grid.originY + (grid.height * grid.cell) / 2;
  const reach = Math.hypot(grid.width, grid.height) * grid.cell * 0.5;
  const rows: [number, number, number, number][][] = [];
  const open = (x: number, y: number) => {
    const i = Math.round((x - grid.originX) / grid.cell);
    const j = Math.round((y - grid.originY) / grid.cell);
    return i >= 0 && j >= 0 && i < grid.width && j < grid.height && depth[j * grid.width + i] >= RIM + 0.5;
  };
  const step = grid.cell / 2;
  for (let v = -reach; v <= reach; v += pass.stepover) {
    const row: [number, number, number, number][] = [];
    let start: number | undefined;
    let last = 0;
    for (let u = -reach; u <= reach + step; u += step) {
      if (u <= reach && open(cx + u * ux - v * uy, cy + u * uy + v * ux)) {
        start ??= u;
        last = u;
      } else if (start !== undefined) {
        row.push([
          cx + start * ux - v * uy,
          cy + start * uy + v * ux,
          cx + last * ux - v * uy,
          cy + last * uy + v * ux,
        ]);
        start = undefined;
      }
    }
    if (row.length > 0) rows.push(row);
  }
  cutRows(path, level, rows, pass, cutter);
}

/** Rows in serpentines, region by region. Their ends lie on the walls that were followed, so that each is entered open. */
function cutRows(
  path: Path,
  level: Level,
  rows: [number, number, number, number][][],
  pass: RoughPass,
  cutter: Cutter,
): void {
  const left = rows.map((r) => r.slice());
  const total = left.reduce((n, r) => n + r.length, 0);
  let at = 0;
  for (let cut = 0; cut < total; cut++) {
    const find = (row: number, limit: number) => {
      let best = -1;
      let turned = false;
      let least = limit;
      (left[row] ?? []).forEach((s, i) => {
        for (const back of [false, true]) {
          const d = Math.hypot(s[back ? 2 : 0] - path.x, s[back ? 3 : 1] - path.y);
          if (d < least) {
            least = d;
            best = i;
            turned = back;
          }
        }
      });
      return best < 0 ? undefined : { row, i: best, turned, d: least };
    };
    const findAnywhere = () => {
      let best = find(0, Infinity);
      for (let r = 1; r < left.length; r++) best = find(r, best?.d ?? Infinity) ?? best;
      return best;
    };
    const pick = find(at + 1, 3 * pass.stepover) ?? find(at, 3 * pass.stepover) ?? findAnywhere();
    if (!pick) break;
    const [s] = left[pick.row].splice(pick.i, 1);
    const [x0, y0, x1, y1] = pick.turned ? [s[2], s[3], s[0], s[1]] : s;
    if (path.z === level.z && pick.d <= 3 * pass.stepover && passable(level, path.x, path.y, x0, y0)) {
      path.feed(x0, y0, level.z, cutter.feed);
    } else dropTo(path, level, x0, y0, cutter, false);
    path.feed(x1, y1, level.z, cutter.feed);
    at = pick.row;
  }
}
