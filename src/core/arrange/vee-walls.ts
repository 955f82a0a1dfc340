import type { SeenLayer } from '../doc/layer';
import { type Grid, sampleField } from '../field/height-field';
import type { Bounds, Polygon } from '../outline/polygon';
import { grooveOf, isGroove } from './grooves';
import type { Content } from './kinds/kind';
import { veeWidth } from './relief-of';
import type { Rendered } from './rendered';
import type { Window } from './window';

/** The walls of V grooves: they begin on the ground along an outline and fall at one slope until they meet, or down to a deepest. */
export interface Walls {
  /** Rings with their inside at the left, board coordinates, mm. */
  polygon: Polygon;
  /** Fall of the walls, mm a mm. */
  fall: number;
  /** Deepest below the ground at a place itself, mm. */
  deepest: number;
  /** How far the ground along the outline counts, mm. */
  reach: number;
}

/**
 * Only ground within so many times a place's distance from the outline counts for the walls over it: on ground that slopes by up to a third of what the
 * walls fall nothing further away can be higher, for z + s D - f D > z - (s + f) d only where D < d (f + s) / (f - s).
 */
export const COUNTS = 2;

/** How far the ground along the outline of grooves counts, mm. @param angle between the walls, degrees @param deepest mm */
export const reachOf = (angle: number, deepest: number): number => COUNTS * veeWidth(angle, deepest);

/** The walls of a layer of V grooves; null for one that is none, or whose depth is changed by more than its outline. */
export function wallsOf(l: SeenLayer, content: Content): Walls | null {
  const plain = l.lift === 0 && l.thin === 0 && !l.invert && l.mask.kind === 'none' && l.turnedIn === undefined;
  if (!plain || !isGroove(l) || l.slope.x !== 0 || l.slope.y !== 0) return null;
  const { polygon, angle, deepest } = grooveOf(l, content);
  return { polygon, fall: 1 / veeWidth(angle, 1), deepest, reach: reachOf(angle, deepest) };
}

/** Longest piece of an outline over which the ground is taken as straight, mm; a cell where that is more. */
const PIECE = 0.3;
/** A hair, so that what lies just at a distance counts, mm. */
export const NEAR = 0.01;
const EVERYWHERE: Bounds = { x0: -Infinity, y0: -Infinity, x1: Infinity, y1: Infinity };
/** Ground that differs by less along all of an outline is level, mm. */
const LEVEL = 1e-4;
/** How many cells high a step between two of them is a cliff: the higher one counts. */
const CLIFF = 4;

/** Pieces of an outline with the ground along them, in squares of a size: x, y, way and length, ground at the start and its slope. */
export class WallFoot {
  private readonly pieces: Float64Array;
  private readonly squares = new Map<number, number[]>();
  private readonly size: number;
  /** Whether the ground is level along all of the outline that counts: then no heights of walls are kept. */
  readonly level: boolean;

  /**
   * @param ground height of the ground at a place of the outline, mm, and the unit vector out of it there; NaN where there is none
   * @param box only what can be within reach of it counts; all where left out
   */
  constructor(
    private readonly walls: Walls,
    ground: (x: number, y: number, out: [number, number]) => number,
    longest = PIECE,
    box: Bounds = EVERYWHERE,
  ) {
    const { reach } = walls;
    this.size = Math.max(reach / 2, 4 * longest);
    const [x0, y0, x1, y1] = [box.x0 - reach, box.y0 - reach, box.x1 + reach, box.y1 + reach];
    const out: number[] = [];
    for (const r of walls.polygon) {
      for (let i = 0, q = r.length - 2; i < r.length; q = i, i += 2) {
        const [ax, ay, bx, by] = [r[q], r[q + 1], r[i], r[i + 1]];
        if (Math.max(ax, bx) < x0 || Math.min(ax, bx) > x1 || Math.max(ay, by) < y0 || Math.min(ay, by) > y1) continue;
        const [dx, dy] = [bx - ax, by - ay];
        const n = Math.max(1, Math.ceil(Math.hypot(dx, dy) / longest));
        const long = Math.hypot(dx, dy) / n;
        if (long === 0) continue;
        const away: [number, number] = [dy / (n * long), -dx / (n * long)];
        let before = ground(ax, ay, away);
        for (let k = 1; k <= n; k++) {
          const next = ground(ax + (dx * k) / n, ay + (dy * k) / n, away);
          const [x, y] = [ax + (dx * (k - 1)) / n, ay + (dy * (k - 1)) / n];
          if (!Number.isNaN(before + next))
            out.push(x, y, dx / (n * long), dy / (n * long), long, before, (next - before) / long);
          before = next;
        }
      }
    }
    this.pieces = Float64Array.from(out);
    let [low, high] = [Infinity, -Infinity];
    for (let p = 0; p < out.length; p += 7) {
      const end = out[p + 5] + out[p + 6] * out[p + 4];
      low = Math.min(low, out[p + 5], end);
      high = Math.max(high, out[p + 5], end);
    }
    this.level = !(high - low > LEVEL);
    if (!this.level) for (let p = 0; p < out.length; p += 7) this.file(p);
  }

  private key = (i: number, j: number) => (i + 32768) * 65536 + j + 32768;

  /** Puts a piece into every square from which it can be within reach of a place. */
  private file(p: number): void {
    const [x, y] = this.pieces.subarray(p, p + 2);
    const far = this.walls.reach + this.pieces[p + 4];
    const at = (v: number) => Math.floor(v / this.size);
    for (let j = at(y - far); j <= at(y + far); j++) {
      for (let i = at(x - far); i <= at(x + far); i++) {
        const k = this.key(i, j);
        const had = this.squares.get(k);
        if (had) had.push(p);
        else this.squares.set(k, [p]);
      }
    }
  }

  /**
   * Height of the walls at a place: of all cones that stand with their upper edge on the outline's ground the highest, mm; -Infinity where none is
   * within reach. On a straight piece whose ground rises by m the highest stands at m h / sqrt(fall^2 - m^2) beyond the foot of the place, h its
   * distance from the piece's line.
   * @param far how far away the outline counts, mm
   * @param flat radius around the place within which a wall need not fall, mm: a blunt tip's
   */
  at(x: number, y: number, far: number, flat = 0): number {
    const near = this.squares.get(this.key(Math.floor(x / this.size), Math.floor(y / this.size)));
    const { fall } = this.walls;
    const reach = Math.min(far, this.walls.reach);
    const { pieces } = this;
    let high = -Infinity;
    if (!near) return high;
    for (const p of near) {
      const [ox, oy] = [x - pieces[p], y - pieces[p + 1]];
      const [wx, wy, long, z, slope] = [pieces[p + 2], pieces[p + 3], pieces[p + 4], pieces[p + 5], pieces[p + 6]];
      const on = ox * wx + oy * wy;
      const h = Math.abs(ox * wy - oy * wx);
      if (h > reach) continue;
      const steep = fall * fall - slope * slope;
      const beyond = steep > 0 ? (h * slope) / Math.sqrt(steep) : slope > 0 ? Infinity : -Infinity;
      const t = Math.max(0, Math.min(long, on + beyond));
      const d = Math.sqrt((t - on) ** 2 + h * h);
      if (d > reach) continue;
      const v = z + slope * t - fall * Math.max(0, d - flat);
      if (v > high) high = v;
    }
    return high;
  }

  /** The slope of the ground by the outline within a radius of a place: of the plane that lies nearest to it, what is further away counting less. */
  gradient(x: number, y: number, radius: number): [number, number] {
    const near = this.squares.get(this.key(Math.floor(x / this.size), Math.floor(y / this.size))) ?? [];
    const far = Math.min(radius, this.walls.reach);
    const { pieces } = this;
    let [n, sx, sy, sz, xx, xy, yy, xz, yz] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
    for (const p of near) {
      const half = pieces[p + 4] / 2;
      const dx = pieces[p] + pieces[p + 2] * half - x;
      const dy = pieces[p + 1] + pieces[p + 3] * half - y;
      const share = (dx * dx + dy * dy) / (far * far);
      if (!(share < 1)) continue;
      const w = (1 - share) ** 2 * half;
      const z = pieces[p + 5] + pieces[p + 6] * half;
      n += w;
      sx += w * dx;
      sy += w * dy;
      sz += w * z;
      xx += w * dx * dx;
      xy += w * dx * dy;
      yy += w * dy * dy;
      xz += w * dx * z;
      yz += w * dy * z;
    }
    if (n === 0) return [0, 0];
    const little = 1e-6 * n * far * far;
    const [a, b, c] = [xx - (sx * sx) / n + little, xy - (sx * sy) / n, yy - (sy * sy) / n + little];
    const [u, v] = [xz - (sx * sz) / n, yz - (sy * sz) / n];
    const det = a * c - b * b;
    return [(c * u - b * v) / det, (a * v - b * u) / det];
  }
}

/**
 * Where the walls meet that stand around a place on the middle of an outline: on sloping ground the middle moves downhill by its distance r from the
 * outline times the slope over the walls' fall. With n the way to any of the nearest places P = p + r n, the cones over them are equally high at
 * p + d where (n1 - n2) (d + r g / fall) = 0 for each two of them, g the ground's gradient: at d = -r g / fall.
 */
export function meetingOf(foot: WallFoot, { fall }: Walls, x: number, y: number, r: number): [number, number] {
  const [gx, gy] = foot.gradient(x, y, 2 * r);
  const by = Math.min(r / fall, r / 2 / Math.max(Math.hypot(gx, gy), 1e-9));
  return [x - gx * by, y - gy * by];
}

/**
 * Height of the walls over the cells of a window, mm, by the ground as it stands before they are cut; null where it is level all along the outline, and
 * the walls follow from the distance alone.
 * @param depth of the groove at a cell of the window on level ground, mm; AIR where there is none
 */
export function wallHeights(
  walls: Walls,
  { grid, z }: { grid: Grid; z: Float32Array },
  w: Window,
  depth: (i: number, j: number) => number,
): Float32Array | null {
  const field = { ...grid, data: z };
  const place = (i: number, j: number) => ({ x: grid.originX + i * grid.cell, y: grid.originY + j * grid.cell });
  const [first, last] = [place(0, 0), place(grid.width - 1, grid.height - 1)];
  const [a, b] = [place(w.i, w.j), place(w.i + w.width - 1, w.j + w.height - 1)];
  const foot = new WallFoot(
    walls,
    (x, y) =>
      x >= first.x && y >= first.y && x <= last.x && y <= last.y
        ? sampleField(field, x, y, CLIFF * grid.cell)
        : Number.NaN,
    Math.max(PIECE, grid.cell),
    { x0: a.x, y0: a.y, x1: b.x, y1: b.y },
  );
  if (foot.level) return null;
  const out = new Float32Array(w.width * w.height).fill(-Infinity);
  const per = COUNTS / walls.fall;
  for (let j = 0; j < w.height; j++) {
    const y = grid.originY + (w.j + j) * grid.cell;
    for (let i = 0; i < w.width; i++) {
      const d = depth(i, j);
      if (d >= 0) out[j * w.width + i] = foot.at(grid.originX + (w.i + i) * grid.cell, y, d * per + NEAR);
    }
  }
  return out;
}

/** The walls of what of a layer has been drawn: no place of it lies deeper than its deepest there. */
export function drawnWalls(walls: Walls | null, { heights }: Rendered): Walls | null {
  if (!walls) return null;
  let most = -1;
  for (const h of heights) if (h > most) most = h;
  return { ...walls, reach: most < 0 ? 0 : Math.min(walls.reach, (COUNTS * most) / walls.fall + NEAR) };
}

/** How far beyond a window the ground counts for the walls in it, mm. */
export const reachOfWalls = (all: (Walls | null)[]): number => all.reduce((sum, w) => sum + (w?.reach ?? 0), 0);
