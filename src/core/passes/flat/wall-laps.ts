import type { Cutter } from '../../cutter/cutter';
import { cellAt, type HeightField, sampleField } from '../../field/height-field';
import type { Path } from '../../motion/path';
import { type Nearest, NearestOutline } from '../../outline/nearest';
import { type Polygon, polygonBounds, turnedRing } from '../../outline/polygon';
import { offsetPolygon } from '../../outline/union';
import { BARE } from '../clear-down';
import { clearHeights, descend, highestWithin, lowerStock, type PassContext } from '../context';
import { lowestTip } from '../lowest-tip';
import { RIM } from '../standing';
import { type Flat, LEVEL } from './fields';
import type { FlatPass } from './schema';

/** Furthest that arcs of a lap lie from true ones, and how much nearer to another wall than its radius the bit may come, mm. */
const ARC = 0.002;
/** Places along a wall at which it is asked what stands there are no further apart than this, mm. */
const STEP = 0.2;
/** How far beside an outline, in cells, the target is read: nearer than that its cells may lie on either side. */
const BESIDE = 1.5;
/** A lap follows where the bit has been within so many cells of its line. */
const NEAR_TIP = 4;
/** Stretches shorter than this are left to finishing, mm. */
const SHORTEST = 1;

/** A wall that layers make: an outline, its nearest points, and the lines of a bit beside it. */
interface Wall {
  polygon: Polygon;
  near: NearestOutline;
  rings: [Float64Array, boolean][];
}

/** The rings at a distance from an outline: around what it encloses, and inside it. */
const ringsBeside = (polygon: Polygon, R: number): [Float64Array, boolean][] => [
  ...offsetPolygon(polygon, R, ARC).map((r): [Float64Array, boolean] => [r, true]),
  ...offsetPolygon(polygon, -R, ARC).map((r): [Float64Array, boolean] => [r, false]),
];

/** What laps along the walls of level fields go by: the outlines of the layers, and what the target lets a bit do apart from them. */
export interface Walls {
  walls: Wall[];
  /** Lowest that the tip may be by cells that lie off all outlines, mm. */
  lowest(x: number, y: number, floor: number): number;
}

/** The walls that a bit can follow on their own line, wherever cells end: outlines of layers on the board. */
export function wallsOf({ target: { field } }: PassContext, edges: Polygon[], cutter: Cutter): Walls {
  const walls = edges
    .filter((p) => p.length > 0)
    .map((polygon): Wall => {
      const near = new NearestOutline(polygon, cutter.diameter);
      return { polygon, near, rings: ringsBeside(polygon, cutter.diameter / 2) };
    });
  const data = field.data.slice();
  const hit: Nearest = { distance: 0, along: 0, ring: 0 };
  const by = BESIDE * field.cell;
  for (const { polygon, near } of walls) {
    const b = polygonBounds(polygon);
    const [i0, j0] = [b.x0 - by - field.originX, b.y0 - by - field.originY].map((v) =>
      Math.max(0, Math.floor(v / field.cell)),
    );
    const i1 = Math.min(field.width - 1, Math.ceil((b.x1 + by - field.originX) / field.cell));
    const j1 = Math.min(field.height - 1, Math.ceil((b.y1 + by - field.originY) / field.cell));
    for (let j = j0; j <= j1; j++) {
      for (let i = i0; i <= i1; i++) {
        const [x, y] = [field.originX + i * field.cell, field.originY + j * field.cell];
        if (near.find(x, y, hit, by).distance <= by) data[j * field.width + i] = -Infinity;
      }
    }
  }
  return { walls, lowest: lowestTip({ ...field, data }, cutter) };
}

/** A place on a lap, and the foot of the wall that it runs along, mm. */
interface Place {
  x: number;
  y: number;
  foot: [number, number];
}

/** A level field that has been cleared, as laps along its walls are made in it. */
interface At {
  field: HeightField;
  flat: Flat;
  R: number;
  all: Walls;
  /** What stands under the bit, all but a hair of its rim, and the level that is lapped, mm. */
  under: HeightField;
  z: number;
}

/** The target's height so far beyond a wall's foot as seen from a place; before it where that is negative. */
function heightBeyond(
  { field }: At,
  { x, y }: { x: number; y: number },
  [fx, fy]: [number, number],
  by: number,
): number {
  const d = Math.hypot(fx - x, fy - y) || 1;
  return sampleField(field, fx + ((fx - x) * by) / d, fy + ((fy - y) * by) / d, 0);
}

/** The place nearest to another where the bit has been, within some cells of it; null where there is none. */
function cleared({ field, flat }: At, x: number, y: number): { x: number; y: number } | null {
  const [u, v] = [(x - field.originX) / field.cell - flat.i, (y - field.originY) / field.cell - flat.j];
  let [best, least] = [-1, NEAR_TIP ** 2];
  for (let b = Math.max(0, Math.ceil(v - NEAR_TIP)); b <= Math.min(flat.height - 1, v + NEAR_TIP); b++) {
    for (let a = Math.max(0, Math.ceil(u - NEAR_TIP)); a <= Math.min(flat.width - 1, u + NEAR_TIP); a++) {
      const d = (a - u) ** 2 + (b - v) ** 2;
      if (d >= least || !flat.tip[b * flat.width + a]) continue;
      least = d;
      best = b * flat.width + a;
    }
  }
  if (best < 0) return null;
  const [a, b] = [best % flat.width, Math.floor(best / flat.width)];
  return { x: field.originX + (flat.i + a) * field.cell, y: field.originY + (flat.j + b) * field.cell };
}

/** Whether the bit may stand at a place at the field's height beside a wall on its own line, there is such a wall, and the ground beside it is open. */
function beside(at: At, own: Wall, p: Place): boolean {
  const { flat, R, all, field } = at;
  const open = cleared(at, p.x, p.y);
  if (!open || !(at.under.data[cellAt(at.under, open.x, open.y)] <= at.z + BARE)) return false;
  const by = BESIDE * field.cell;
  const high = (foot: [number, number]) => heightBeyond(at, p, foot, by) > flat.z + LEVEL;
  if (!high(p.foot) || heightBeyond(at, p, p.foot, -by) > flat.z + LEVEL) return false;
  const hit: Nearest = { distance: 0, along: 0, ring: 0 };
  for (const other of all.walls) {
    if (other === own || other.near.find(p.x, p.y, hit, R).distance >= R - ARC) continue;
    if (high(other.near.foot(p.x, p.y))) return false;
  }
  return all.lowest(p.x, p.y, flat.z) <= flat.z + 1e-4;
}

/** A ring as the pass wants its wall to lie: offset rings have the wall on their right outside what they go round, on their left inside it. */
function turnedFor(ring: Float64Array, outside: boolean, { milling }: FlatPass): Float64Array {
  const wallRight = !outside;
  return milling === 'either' || (milling === 'climb') === wallRight ? ring : turnedRing(ring);
}

/** Places along a ring, its corners among them. */
function placesOn(ring: Float64Array, near: NearestOutline): Place[] {
  const out: Place[] = [];
  for (let i = 0; i < ring.length; i += 2) {
    const k = (i + 2) % ring.length;
    const [dx, dy] = [ring[k] - ring[i], ring[k + 1] - ring[i + 1]];
    const n = Math.max(1, Math.ceil(Math.hypot(dx, dy) / STEP));
    for (let s = 0; s < n; s++) {
      const [x, y] = [ring[i] + (dx * s) / n, ring[i + 1] + (dy * s) / n];
      out.push({ x, y, foot: near.foot(x, y) });
    }
  }
  return out;
}

/** The stretches of a closed row of places that are wanted; one that comes round again ends at its first place. */
function stretches(all: Place[], wanted: boolean[]): Place[][] {
  if (wanted.every(Boolean)) return [[...all, all[0]]];
  const start = wanted.indexOf(false);
  const out: Place[][] = [];
  let run: Place[] = [];
  for (let s = 1; s <= all.length; s++) {
    const k = (start + s) % all.length;
    if (wanted[k]) run.push(all[k]);
    else if (run.length > 0) {
      out.push(run);
      run = [];
    }
  }
  const long = (r: Place[]) =>
    r.reduce((sum, p, i) => sum + (i > 0 ? Math.hypot(p.x - r[i - 1].x, p.y - r[i - 1].y) : 0), 0);
  return out.filter((r) => long(r) >= SHORTEST);
}

/**
 * Once along each wall of a cleared level field that an outline of a layer makes, at exactly the bit's radius from it: what rings on cells have left there
 * comes away at the height of a level. It comes from the cleared side and goes back to it. Lowers ctx.stock.
 */
export async function lapWalls(
  ctx: PassContext,
  path: Path,
  { flat, walls: all, z }: { flat: Flat; walls: Walls; z: number },
  { pass, cutter }: { pass: FlatPass; cutter: Cutter },
): Promise<void> {
  const R = cutter.diameter / 2;
  const under = await highestWithin(ctx, ctx.stands, Math.max(R / 2, R - RIM * ctx.stands.cell));
  const at: At = { field: ctx.target.field, flat, R, all, under, z };
  const from = path.moves;
  const clear = await clearHeights(ctx, R);
  for (const own of all.walls) {
    for (const [ring, outside] of own.rings) {
      const row = placesOn(turnedFor(ring, outside, pass), own.near);
      for (const run of stretches(
        row,
        row.map((p) => beside(at, own, p)),
      )) {
        const [first, last] = [run[0], run[run.length - 1]].map((p) => cleared(at, p.x, p.y));
        if (!first || !last) continue;
        descend(path, clear, { ...first, z }, ctx.heights);
        path.feed(first.x, first.y, z, cutter.plunge, 'plunge');
        path.feed(run[0].x, run[0].y, z, cutter.feed, 'link');
        for (const p of run.slice(1)) path.feed(p.x, p.y, z, cutter.feed);
        path.feed(last.x, last.y, z, cutter.feed, 'link');
      }
    }
  }
  await lowerStock(ctx, path, from, cutter);
}
